//! Steps through a program's tree that several questions take.

use oxc_ast::{
    AstKind,
    ast::{
        Argument, ArrowFunctionBody, BindingPattern, Expression, IdentifierReference,
        JSXAttributeName, PropertyKey, Statement,
    },
};
use oxc_semantic::{NodeId, Semantic};
use oxc_span::{GetSpan, Span};
use oxc_syntax::symbol::SymbolId;

/// A program's nodes and names.
#[derive(Clone, Copy)]
pub struct Tree<'e, 'a> {
    pub semantic: &'e Semantic<'a>,
}

impl<'a> Tree<'_, 'a> {
    pub fn kind(self, id: NodeId) -> AstKind<'a> {
        self.semantic.nodes().get_node(id).kind()
    }

    pub fn span(self, id: NodeId) -> Span {
        self.kind(id).span()
    }

    pub fn parent(self, id: NodeId) -> Option<NodeId> {
        let parent = self.semantic.nodes().parent_node(id).id();
        (parent != id).then_some(parent)
    }

    /// The parent past what only wraps a value: parentheses, braces in markup, and type assertions.
    pub fn holder(self, id: NodeId) -> Option<NodeId> {
        let mut parent = self.parent(id)?;
        while matches!(
            self.kind(parent),
            AstKind::ParenthesizedExpression(_)
                | AstKind::JSXExpressionContainer(_)
                | AstKind::TSAsExpression(_)
                | AstKind::TSSatisfiesExpression(_)
                | AstKind::TSNonNullExpression(_)
        ) {
            parent = self.parent(parent)?;
        }
        Some(parent)
    }

    pub fn symbol(self, name: &IdentifierReference<'a>) -> Option<SymbolId> {
        self.semantic.scoping().get_reference(name.reference_id()).symbol_id()
    }

    pub fn declaration(self, symbol: SymbolId) -> NodeId {
        self.semantic.scoping().symbol_declaration(symbol)
    }

    /// Nodes that use the value of a name.
    pub fn references(self, symbol: SymbolId) -> Vec<NodeId> {
        let references = self.semantic.scoping().get_resolved_references(symbol);
        let values = references.filter(|reference| !reference.is_type());
        values.map(|reference| reference.node_id()).collect()
    }

    /// The function that a name is declared as.
    pub fn function(self, symbol: SymbolId) -> Option<AstKind<'a>> {
        let declared = self.declaration(symbol);
        match self.kind(declared) {
            AstKind::Function(_) => Some(self.kind(declared)),
            AstKind::VariableDeclarator(variable) => {
                match variable.init.as_ref()?.get_inner_expression() {
                    Expression::ArrowFunctionExpression(arrow) => {
                        Some(AstKind::ArrowFunctionExpression(arrow))
                    }
                    Expression::FunctionExpression(function) => Some(AstKind::Function(function)),
                    _ => None,
                }
            }
            _ => None,
        }
    }

    /// The parameter of a named function at a place, if it is a plain name.
    pub fn parameter(self, function: SymbolId, place: usize) -> Option<SymbolId> {
        let parameters = match self.function(function)? {
            AstKind::Function(function) => &function.params,
            AstKind::ArrowFunctionExpression(arrow) => &arrow.params,
            _ => return None,
        };
        let item = parameters.items.get(place)?;
        item.pattern.get_binding_identifier().map(|name| name.symbol_id())
    }

    /// The name that a function is declared or kept under, past `useCallback(…)`.
    pub fn name_of(self, function: NodeId) -> Option<SymbolId> {
        if let AstKind::Function(declared) = self.kind(function)
            && declared.is_declaration()
        {
            return declared.id.as_ref().map(|name| name.symbol_id());
        }
        let mut value = function;
        let mut holder = self.holder(value)?;
        if let AstKind::CallExpression(call) = self.kind(holder)
            && name_called(&call.callee) == Some("useCallback")
            && call.arguments.first().is_some_and(|first| first.span() == self.span(value))
        {
            value = holder;
            holder = self.holder(value)?;
        }
        let AstKind::VariableDeclarator(variable) = self.kind(holder) else { return None };
        let init = variable.init.as_ref()?;
        let is_its_value = init.span().contains_inclusive(self.span(value));
        let BindingPattern::BindingIdentifier(name) = &variable.id else { return None };
        is_its_value.then(|| name.symbol_id())
    }

    /// Tells whether others may use a name: it is exported where it is declared or by a list.
    pub fn is_exported(self, symbol: SymbolId) -> bool {
        let mut at = self.declaration(symbol);
        loop {
            match self.kind(at) {
                AstKind::ExportDeclaration(_) | AstKind::ExportDefaultDeclaration(_) => {
                    return true;
                }
                // What is declared in a function is its own.
                AstKind::FunctionBody(_) | AstKind::FormalParameters(_) => return false,
                _ => {}
            }
            let Some(parent) = self.parent(at) else { return false };
            at = parent;
        }
    }
}

/// The statements of a function that has a block.
pub fn block<'a>(function: AstKind<'a>) -> Option<&'a [Statement<'a>]> {
    match function {
        AstKind::Function(function) => Some(function.body.as_deref()?.statements.as_slice()),
        AstKind::ArrowFunctionExpression(arrow) => match &arrow.body {
            ArrowFunctionBody::FunctionBody(body) => Some(body.statements.as_slice()),
            _ => None,
        },
        _ => None,
    }
}

/// The plain name of what is called: `useState` of `useState(…)` and `React.useState(…)`.
pub fn name_called<'e>(callee: &'e Expression<'_>) -> Option<&'e str> {
    match callee.get_inner_expression() {
        Expression::Identifier(name) => Some(name.name.as_str()),
        Expression::StaticMemberExpression(member) => Some(member.property.name.as_str()),
        _ => None,
    }
}

pub fn property_name(key: &PropertyKey<'_>) -> Option<String> {
    match key {
        PropertyKey::StaticIdentifier(name) => Some(name.name.to_string()),
        PropertyKey::StringLiteral(name) => Some(name.value.to_string()),
        _ => None,
    }
}

pub fn attribute_name(name: &JSXAttributeName<'_>) -> String {
    match name {
        JSXAttributeName::Identifier(name) => name.name.to_string(),
        JSXAttributeName::NamespacedName(name) => {
            format!("{}:{}", name.namespace.name, name.name.name)
        }
    }
}

/// Tells whether a statement does nothing but return.
pub fn returns(statement: &Statement<'_>) -> bool {
    match statement {
        Statement::ReturnStatement(_) => true,
        Statement::BlockStatement(block) => {
            matches!(block.body.as_slice(), [Statement::ReturnStatement(_)])
        }
        _ => false,
    }
}

/// Tells whether a value is false in a test, whatever runs.
pub fn is_false(value: &Expression<'_>) -> bool {
    match value.get_inner_expression() {
        Expression::BooleanLiteral(literal) => !literal.value,
        Expression::NullLiteral(_) => true,
        Expression::StringLiteral(text) => text.value.is_empty(),
        Expression::NumericLiteral(number) => number.value == 0.0,
        Expression::Identifier(name) => name.name == "undefined",
        _ => false,
    }
}

/// The same of a call's first argument; one that is left out is `undefined`.
pub fn is_first_false(arguments: &[Argument<'_>]) -> bool {
    arguments.first().is_none_or(|first| first.as_expression().is_some_and(is_false))
}
