//! What holds back the code at a node: the functions and conditions around it.
//!
//! Barriers form a tree beside the program's own: each knows the next one outside. Those around a node
//! are found once, without recursion, so that deep programs cost no more than their size.

use std::collections::HashMap;

use oxc_ast::{
    AstKind,
    ast::{
        Argument, AssignmentTarget, Expression, JSXAttributeItem, JSXAttributeValue,
        JSXElementName, ObjectPropertyKind,
    },
};
use oxc_semantic::NodeId;
use oxc_span::GetSpan;
use oxc_syntax::{operator::LogicalOperator, symbol::SymbolId};

use super::{
    events::{component_event, is_user_event, user_event},
    tree::{Tree, attribute_name, property_name},
};
use crate::later::uses::Given;

/// Place of a barrier in [`Barriers::all`].
pub type BarrierId = usize;

/// Something that may happen at startup, or not.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub enum Condition {
    /// A named function, or a parameter that is one, is called.
    Called(SymbolId),
    /// A state becomes true.
    True(SymbolId),
    /// What a function returns under a property is called.
    Returned(SymbolId, String),
}

/// Why code does not run at once.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Reason {
    /// It is the handler of this event.
    Event(String),
    /// It is the page of this route.
    Route(String),
    /// An imported function is given it.
    Given(Given),
    /// Something must happen first.
    Until(Condition),
}

pub struct Barrier {
    pub reason: Reason,
    /// The next one outside.
    pub outer: Option<BarrierId>,
}

pub struct Barriers<'e, 'a> {
    pub tree: Tree<'e, 'a>,
    pub imports: HashMap<SymbolId, (String, Option<String>)>,
    pub all: Vec<Barrier>,
    around: HashMap<NodeId, Option<BarrierId>>,
    /// By function body: where early returns end, and on which state.
    returns: HashMap<NodeId, Vec<(u32, SymbolId)>>,
}

impl<'e, 'a> Barriers<'e, 'a> {
    pub fn new(tree: Tree<'e, 'a>, imports: HashMap<SymbolId, (String, Option<String>)>) -> Self {
        Self { tree, imports, all: Vec::new(), around: HashMap::new(), returns: HashMap::new() }
    }

    fn push(&mut self, reason: Reason, outer: Option<BarrierId>) -> BarrierId {
        self.all.push(Barrier { reason, outer });
        self.all.len() - 1
    }

    /// The innermost barrier before a use of a name: what the name is given to, then what is around.
    pub fn before_use(&mut self, reference: NodeId) -> Option<BarrierId> {
        let outer = self.around(reference);
        match self.when_passed(reference) {
            Some(reason) => Some(self.push(reason, outer)),
            None => outer,
        }
    }

    /// The innermost barrier around a node.
    fn around(&mut self, node: NodeId) -> Option<BarrierId> {
        let mut path = Vec::new();
        let mut at = node;
        let mut outer = loop {
            if let Some(known) = self.around.get(&at) {
                break *known;
            }
            let Some(parent) = self.tree.parent(at) else { break None };
            path.push((at, parent));
            at = parent;
        };
        for (at, parent) in path.into_iter().rev() {
            for reason in self.reasons(at, parent) {
                outer = Some(self.push(reason, outer));
            }
            self.around.insert(at, outer);
        }
        outer
    }

    /// What holds a node back in its parent, the outermost first.
    fn reasons(&mut self, at: NodeId, parent: NodeId) -> Vec<Reason> {
        let tree = self.tree;
        let span = tree.span(at);
        let until = |state| Reason::Until(Condition::True(state));
        let mut found: Vec<Reason> = match tree.kind(parent) {
            AstKind::LogicalExpression(test)
                if test.operator == LogicalOperator::And && test.right.span() == span =>
            {
                tree.states_tested(&test.left).into_iter().map(until).collect()
            }
            AstKind::ConditionalExpression(test) if test.consequent.span() == span => {
                tree.states_tested(&test.test).into_iter().map(until).collect()
            }
            AstKind::IfStatement(test) if test.consequent.span() == span => {
                tree.states_tested(&test.test).into_iter().map(until).collect()
            }
            AstKind::FunctionBody(body) => {
                let returns = self.returns.entry(parent);
                let returns = returns.or_insert_with(|| tree.early_returns(&body.statements));
                let before = returns.iter().take_while(|(end, _)| *end <= span.start);
                before.map(|(_, state)| until(*state)).collect()
            }
            _ => Vec::new(),
        };
        found.extend(match tree.kind(at) {
            AstKind::ArrowFunctionExpression(_) => self.when_passed(at),
            AstKind::Function(function) if function.is_declaration() => {
                function.id.as_ref().map(|name| called(name.symbol_id()))
            }
            AstKind::Function(_) => self.when_passed(at),
            AstKind::ObjectProperty(_) | AstKind::JSXAttribute(_) => {
                self.route(at, parent).map(Reason::Route)
            }
            _ => None,
        });
        found
    }

    /// The route whose page a value is: in a row of a router's table, or an attribute of `<Route>`.
    fn route(&self, at: NodeId, parent: NodeId) -> Option<String> {
        match (self.tree.kind(at), self.tree.kind(parent)) {
            (AstKind::ObjectProperty(property), AstKind::ObjectExpression(row)) => {
                let pages = ["component", "element", "Component", "page", "view"];
                let key = property_name(&property.key)?;
                (!property.method && pages.contains(&key.as_str()))
                    .then(|| path_of(&row.properties))
                    .flatten()
            }
            (AstKind::JSXAttribute(_), AstKind::JSXOpeningElement(element)) => {
                let is_route = matches!(&element.name,
                    JSXElementName::IdentifierReference(name) if name.name == "Route");
                let path = element.attributes.iter().find_map(|attribute| match attribute {
                    JSXAttributeItem::Attribute(one) if attribute_name(&one.name) == "path" => {
                        match &one.value {
                            Some(JSXAttributeValue::StringLiteral(text)) => {
                                Some(text.value.to_string())
                            }
                            _ => None,
                        }
                    }
                    _ => None,
                });
                path.filter(|path| is_route && is_other(path))
            }
            _ => None,
        }
    }

    /// What a value waits for because of what it is passed to.
    fn when_passed(&self, id: NodeId) -> Option<Reason> {
        let tree = self.tree;
        let span = tree.span(id);
        let holder = tree.holder(id)?;
        match tree.kind(holder) {
            AstKind::JSXAttribute(attribute) => {
                let name = attribute_name(&attribute.name);
                let is_element = tree.parent(holder).is_some_and(|element| {
                    matches!(tree.kind(element), AstKind::JSXOpeningElement(element)
                        if matches!(element.name, JSXElementName::Identifier(_)))
                });
                let event = if is_element { user_event(&name) } else { component_event(&name) };
                event.map(Reason::Event)
            }
            AstKind::ObjectProperty(property) if property.value.span().contains_inclusive(span) => {
                let event = property_name(&property.key).and_then(|key| component_event(&key));
                event.map(Reason::Event).or_else(|| self.when_returned(id))
            }
            AstKind::ArrayExpression(_) => self.when_returned(id),
            AstKind::AssignmentExpression(assignment)
                if assignment.right.span().contains_inclusive(span) =>
            {
                match &assignment.left {
                    AssignmentTarget::StaticMemberExpression(member) => {
                        user_event(&member.property.name).map(Reason::Event)
                    }
                    _ => None,
                }
            }
            AstKind::VariableDeclarator(_) if is_function(tree.kind(id)) => {
                tree.name_of(id).map(called)
            }
            AstKind::CallExpression(call) => {
                let is_it = |one: &Argument<'_>| one.span().contains_inclusive(span);
                let place = call.arguments.iter().position(is_it)?;
                self.when_argument(&call.callee, &call.arguments, place, id, holder)
            }
            _ => None,
        }
    }

    fn when_returned(&self, id: NodeId) -> Option<Reason> {
        let (function, key) = self.tree.returned_from(id)?;
        Some(Reason::Until(Condition::Returned(function, key)))
    }

    fn when_argument(
        &self,
        callee: &Expression<'a>,
        arguments: &[Argument<'a>],
        place: usize,
        id: NodeId,
        call: NodeId,
    ) -> Option<Reason> {
        let tree = self.tree;
        match callee.get_inner_expression() {
            Expression::StaticMemberExpression(member)
                if member.property.name == "addEventListener" && place == 1 =>
            {
                match arguments.first() {
                    Some(Argument::StringLiteral(event)) if is_user_event(&event.value) => {
                        Some(Reason::Event(event.value.to_string()))
                    }
                    _ => None,
                }
            }
            callee if place == 0 && super::tree::name_called(callee) == Some("useCallback") => {
                match tree.name_of(id) {
                    Some(name) => Some(called(name)),
                    // Kept from one rendering to the next, it is passed as the call's value.
                    None if !matches!(
                        tree.kind(tree.holder(call)?),
                        AstKind::CallExpression(_)
                    ) =>
                    {
                        self.when_passed(call)
                    }
                    None => None,
                }
            }
            Expression::Identifier(name) => {
                let symbol = tree.symbol(name)?;
                if let Some((request, Some(name))) = self.imports.get(&symbol) {
                    let (request, name) = (request.clone(), name.clone());
                    return Some(Reason::Given(Given { request, name, place }));
                }
                tree.parameter(symbol, place).map(called)
            }
            _ => None,
        }
    }
}

fn called(symbol: SymbolId) -> Reason {
    Reason::Until(Condition::Called(symbol))
}

fn is_function(kind: AstKind<'_>) -> bool {
    matches!(kind, AstKind::ArrowFunctionExpression(_) | AstKind::Function(_))
}

/// A route that is neither the first one nor one for whatever has none.
fn is_other(path: &str) -> bool {
    let path = path.trim_matches('/');
    !path.is_empty() && !path.contains('*')
}

fn path_of(row: &[ObjectPropertyKind<'_>]) -> Option<String> {
    row.iter().find_map(|property| match property {
        ObjectPropertyKind::ObjectProperty(property) if property_name(&property.key)? == "path" => {
            match &property.value {
                Expression::StringLiteral(text) if is_other(&text.value) => {
                    Some(text.value.to_string())
                }
                _ => None,
            }
        }
        _ => None,
    })
}
