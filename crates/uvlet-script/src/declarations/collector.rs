//! What is collected of a script, and how a declaration is noted.

use std::{
    collections::{HashMap, HashSet},
    ops::Range,
};

use oxc_ast::ast::{
    BindingIdentifier, ExportSpecifier, Expression, ExpressionStatement, IdentifierReference,
};
use oxc_semantic::Semantic;
use oxc_span::Span;
use oxc_syntax::symbol::SymbolId;

use crate::{
    declarations::{
        effects::{Effect, Effects},
        layout::{Item, List},
        node::{Declared, Node, NodeKind, SourceDeclaration},
    },
    span::range,
};

/// What was collected.
pub(super) struct Collected {
    pub(super) declared: Declared,
    pub(super) by_symbol: HashMap<SymbolId, usize>,
    /// Bytes inside which a node is the one that uses. These do not overlap.
    pub(super) owned: Vec<(Range<usize>, usize)>,
    /// The same of members, inside those.
    pub(super) inner: Vec<(Range<usize>, usize)>,
    /// Members of namespace objects by name.
    pub(super) members: HashMap<usize, HashMap<String, usize>>,
    /// The symbol that a member stands for.
    pub(super) values: HashMap<usize, SymbolId>,
    /// Namespace objects that imported helpers make, with the helper.
    pub(super) made_by: Vec<(usize, SymbolId)>,
    /// References that are no uses, by their first bytes.
    pub(super) ignored: HashSet<u32>,
    /// Functions that use `this`.
    pub(super) with_this: HashSet<usize>,
    /// First bytes of declarations, by node.
    pub(super) starts: Vec<usize>,
    /// Nodes that are used whatever else is true.
    pub(super) kept: Vec<usize>,
}

impl Collected {
    pub(super) fn in_source(self) -> Vec<SourceDeclaration> {
        let nodes = self.declared.nodes.into_iter().enumerate();
        let nodes = nodes.filter(|(_, node)| {
            matches!(node.kind, NodeKind::Function | NodeKind::Class | NodeKind::Variable)
        });
        nodes
            .map(|(at, node)| {
                let own = self.owned.iter().find(|(_, of)| *of == at);
                SourceDeclaration {
                    is_variable: node.kind == NodeKind::Variable,
                    head: node.head..node.head + node.name.len(),
                    start: self.starts[at],
                    range: own.map_or(0..0, |(range, _)| range.clone()),
                    name: node.name,
                    effect: node.effect,
                    is_believed: node.is_believed,
                }
            })
            .collect()
    }
}

/// Walks over the levels of a script.
pub(super) struct Collector<'e, 'a> {
    pub(super) text: &'e str,
    pub(super) semantic: &'e Semantic<'a>,
    pub(super) effects: Effects<'e>,
    /// Nodes whose value is made where they are declared.
    pub(super) fresh: HashSet<usize>,
    /// Nodes that begin as `{}`, or as nothing.
    pub(super) empty: HashSet<usize>,
    /// Expression statements of all levels.
    pub(super) statements: Vec<&'e ExpressionStatement<'a>>,
    /// Lists of exports.
    pub(super) exported: Vec<(&'e [ExportSpecifier<'a>], Span)>,
    pub(super) out: Collected,
}

impl<'e, 'a> Collector<'e, 'a> {
    pub(super) fn node(
        &mut self,
        kind: NodeKind,
        name: &str,
        place: Range<usize>,
        effect: Option<Effect>,
    ) -> usize {
        let is_believed = self.effects.believed.take();
        let head = place.start;
        let name = name.to_owned();
        let uses = Vec::new();
        self.out.declared.nodes.push(Node {
            kind,
            name,
            head,
            effect,
            is_believed,
            is_definer: false,
            is_without_this: false,
            uses,
        });
        self.out.starts.push(head);
        self.out.declared.nodes.len() - 1
    }

    /// A node for a name. One that is declared again is the same node.
    pub(super) fn named(
        &mut self,
        kind: NodeKind,
        id: &BindingIdentifier<'a>,
        start: usize,
        effect: Option<Effect>,
    ) -> Option<usize> {
        let symbol = id.symbol_id.get()?;
        if let Some(&known) = self.out.by_symbol.get(&symbol) {
            let node = &mut self.out.declared.nodes[known];
            node.effect = node.effect.or(effect);
            self.fresh.remove(&known);
            self.empty.remove(&known);
            return Some(known);
        }
        let node = self.node(kind, id.name.as_str(), range(id.span), effect);
        self.out.starts[node] = start;
        self.out.by_symbol.insert(symbol, node);
        Some(node)
    }

    pub(super) fn list(
        &mut self,
        items: Vec<Item>,
        whole: Option<Range<usize>>,
        inside: Option<usize>,
    ) {
        self.out.declared.layout.lists.push(List { items, whole, inside });
    }

    /// Something that stands by itself.
    pub(super) fn single(&mut self, node: usize, place: Range<usize>) {
        self.out.owned.push((place.clone(), node));
        self.list(vec![Item { range: place.clone(), node: Some(node) }], Some(place), None);
    }

    pub(super) fn symbol(&self, name: &IdentifierReference<'a>) -> Option<SymbolId> {
        self.semantic.scoping().get_reference(name.reference_id.get()?).symbol_id()
    }

    pub(super) fn node_of(&self, expression: &Expression<'a>) -> Option<(usize, SymbolId)> {
        let Expression::Identifier(name) = expression.get_inner_expression() else { return None };
        let symbol = self.symbol(name)?;
        Some((*self.out.by_symbol.get(&symbol)?, symbol))
    }

    /// Whether a name keeps the value that it is declared with.
    pub(super) fn is_steady(&self, symbol: SymbolId) -> bool {
        let references = self.semantic.scoping().get_resolved_references(symbol);
        !references.into_iter().any(|reference| reference.is_write())
    }
}
