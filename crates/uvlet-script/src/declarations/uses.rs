//! Who uses whom: every reference to a node, by the node that it stands in.

use std::{collections::BTreeSet, ops::Range};

use oxc_ast::{AstKind, ast::Expression};
use oxc_semantic::{NodeId, Reference, Semantic};
use oxc_span::GetSpan;
use oxc_syntax::symbol::SymbolId;

use crate::{
    declarations::{
        collector::Collected,
        node::{Declared, NodeKind, Use},
    },
    span::range,
};

/// Adds the uses to what was collected.
pub(super) fn uses<'a>(semantic: &Semantic<'a>, collected: Collected) -> Declared {
    let mut finder = Finder { semantic, collected, found: Vec::new() };
    let mut symbols: Vec<(SymbolId, usize)> =
        finder.collected.by_symbol.iter().map(|(symbol, node)| (*symbol, *node)).collect();
    symbols.sort_unstable_by_key(|(_, node)| *node);
    for &(symbol, node) in &symbols {
        let is_without_this = finder.is_without_this(symbol, node);
        finder.collected.declared.nodes[node].is_without_this = is_without_this;
    }
    for (symbol, node) in symbols {
        for reference in semantic.scoping().get_resolved_references(symbol) {
            finder.reference(reference, node);
        }
    }
    let Finder { collected, found, .. } = finder;
    let Collected { mut declared, kept, made_by, by_symbol, values, .. } = collected;
    let mut roots: BTreeSet<Use> = kept.into_iter().map(Use::Node).collect();
    let mut by_node: Vec<BTreeSet<Use>> = vec![BTreeSet::new(); declared.nodes.len()];
    for (user, used) in found {
        match user {
            Some(user) => by_node[user].insert(used),
            None => roots.insert(used),
        };
    }
    for (at, node) in declared.nodes.iter_mut().enumerate() {
        node.uses = std::mem::take(&mut by_node[at]).into_iter().collect();
        // A member stands on the object that it is a member of.
        if let NodeKind::Member { of, .. } = node.kind {
            node.uses.push(Use::Node(of));
        }
    }
    declared.roots = roots.into_iter().collect();
    for (node, helper) in made_by {
        declared.made_by.extend(by_symbol.get(&helper).map(|helper| (node, *helper)));
    }
    for (member, symbol) in values {
        declared.values.extend(by_symbol.get(&symbol).map(|node| (member, *node)));
    }
    declared
}

struct Finder<'e, 'a> {
    semantic: &'e Semantic<'a>,
    collected: Collected,
    /// Who uses, none for code that runs; and what.
    found: Vec<(Option<usize>, Use)>,
}

/// The node in whose bytes a byte stands.
fn within(ranges: &[(Range<usize>, usize)], at: usize) -> Option<usize> {
    let before = ranges.partition_point(|(range, _)| range.start <= at);
    let (range, node) = ranges.get(before.checked_sub(1)?)?;
    range.contains(&at).then_some(*node)
}

impl<'a> Finder<'_, 'a> {
    fn reference(&mut self, reference: &Reference, node: usize) {
        let place = range(self.semantic.reference_span(reference));
        let start = u32::try_from(place.start).unwrap_or(u32::MAX);
        if self.collected.ignored.contains(&start) {
            return;
        }
        let user = within(&self.collected.inner, place.start)
            .or_else(|| within(&self.collected.owned, place.start));
        if user == Some(node) {
            return;
        }
        let used = match &self.collected.declared.nodes[node].kind {
            NodeKind::Import { .. } => self.of_import(reference.node_id(), node),
            _ if self.collected.members.contains_key(&node) => {
                return self.of_namespace(user, reference.node_id(), node);
            }
            _ => Use::Node(node),
        };
        self.found.push((user, used));
    }

    /// `X.a`, where `X` is the expression: the name that is read, and the node of the whole.
    fn member_read(&self, id: NodeId) -> Option<(String, NodeId)> {
        let nodes = self.semantic.nodes();
        let span = nodes.get_node(id).kind().span();
        let mut parent = nodes.parent_node(id);
        while let AstKind::ParenthesizedExpression(_) = parent.kind() {
            parent = nodes.parent_node(parent.id());
        }
        let AstKind::StaticMemberExpression(member) = parent.kind() else { return None };
        if member.object.span() != span {
            return None;
        }
        let name = member.property.name.to_string();
        let is_read = match nodes.parent_node(parent.id()).kind() {
            AstKind::AssignmentExpression(assignment) => assignment.left.span() != member.span,
            AstKind::UpdateExpression(_) => false,
            AstKind::UnaryExpression(unary) => !unary.operator.is_delete(),
            AstKind::ForInStatement(each) => each.left.span() != member.span,
            AstKind::ForOfStatement(each) => each.left.span() != member.span,
            AstKind::ArrayAssignmentTarget(_)
            | AstKind::AssignmentTargetWithDefault(_)
            | AstKind::AssignmentTargetPropertyProperty(_)
            | AstKind::AssignmentTargetRest(_) => false,
            _ => true,
        };
        is_read.then_some((name, parent.id()))
    }

    /// Whether an expression is called as it stands, which hands over its object as `this`.
    fn is_called(&self, id: NodeId) -> bool {
        let span = self.semantic.nodes().get_node(id).kind().span();
        match self.semantic.nodes().parent_node(id).kind() {
            AstKind::CallExpression(call) => call.callee.span() == span,
            AstKind::TaggedTemplateExpression(tagged) => tagged.tag.span() == span,
            _ => false,
        }
    }

    fn of_import(&self, id: NodeId, node: usize) -> Use {
        match self.member_read(id) {
            // What is called may read the others from `this`.
            Some((name, whole)) if !self.is_called(whole) => Use::MemberOf(node, name),
            Some((name, _)) => Use::CalledOf(node, name),
            None => Use::All(node),
        }
    }

    fn of_namespace(&mut self, user: Option<usize>, id: NodeId, node: usize) {
        let Some((name, whole)) = self.member_read(id) else {
            self.found.push((user, Use::All(node)));
            return;
        };
        self.found.push((user, Use::Node(node)));
        let Some(&member) = self.collected.members[&node].get(&name) else { return };
        let value = self.collected.values.get(&member);
        let value = value.and_then(|symbol| self.collected.by_symbol.get(symbol)).copied();
        let is_without_this =
            value.is_some_and(|value| self.collected.declared.nodes[value].is_without_this);
        if !is_without_this && self.is_called(whole) {
            self.found.push((user, Use::All(node)));
            return;
        }
        self.found.push((user, Use::Member(member)));
        // Of a namespace object in a namespace object, the same goes on.
        match value.filter(|value| self.collected.members.contains_key(value)) {
            Some(value) => self.of_namespace(user, whole, value),
            None => self.found.extend(value.map(|value| (user, self.whole_of(value)))),
        }
    }

    /// A function that keeps its value and does not see `this`, or a class.
    fn is_without_this(&self, symbol: SymbolId, node: usize) -> bool {
        if self.collected.with_this.contains(&node)
            || self.semantic.scoping().symbol_is_mutated(symbol)
        {
            return false;
        }
        let nodes = self.semantic.nodes();
        let declaration = nodes.get_node(self.semantic.scoping().symbol_declaration(symbol)).kind();
        match (&self.collected.declared.nodes[node].kind, declaration) {
            (NodeKind::Function | NodeKind::Class, _) => true,
            (NodeKind::Variable, AstKind::VariableDeclarator(declarator)) => matches!(
                declarator.init.as_ref().map(Expression::get_inner_expression),
                Some(
                    Expression::ArrowFunctionExpression(_)
                        | Expression::ClassExpression(_)
                        | Expression::FunctionExpression(_)
                )
            ),
            _ => false,
        }
    }

    fn whole_of(&self, node: usize) -> Use {
        match &self.collected.declared.nodes[node].kind {
            NodeKind::Import { .. } => Use::All(node),
            _ => Use::Node(node),
        }
    }
}
