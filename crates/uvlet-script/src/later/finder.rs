//! What holds a use back: the functions and conditions around it, from the inside out.

use std::collections::HashMap;

use oxc_ast::{
    AstKind,
    ast::{
        Argument, AssignmentTarget, BindingPattern, Expression, JSXAttributeItem, JSXAttributeName,
        JSXAttributeValue, JSXElementName, ModuleExportName, ObjectPropertyKind, PropertyKey,
        Statement,
    },
};
use oxc_semantic::{NodeId, Semantic};
use oxc_span::GetSpan;
use oxc_syntax::{operator::LogicalOperator, symbol::SymbolId};

use super::Waits;

/// Events that nobody but a person sets off, in small letters.
const ACTS: [&str; 24] = [
    "click",
    "dblclick",
    "doubleclick",
    "auxclick",
    "contextmenu",
    "submit",
    "input",
    "change",
    "keydown",
    "keyup",
    "keypress",
    "pointerdown",
    "pointerup",
    "mousedown",
    "mouseup",
    "touchstart",
    "touchend",
    "drop",
    "paste",
    "copy",
    "cut",
    "press",
    "tap",
    "beforeinput",
];

/// Of these, what components call with their first value, too.
const OF_ELEMENTS: [&str; 3] = ["input", "change", "beforeinput"];

/// Functions that make a state of a first value.
const STATES: [&str; 6] = ["useState", "ref", "shallowRef", "signal", "useSignal", "createSignal"];

/// How far a function is followed through the names that it is given.
const DEEPEST: usize = 12;

/// `onClick`, `onclick`, `on:click`, `onClickCapture`.
fn act(name: &str) -> Option<String> {
    let event = name.strip_prefix("on")?.trim_start_matches([':', '-']).to_lowercase();
    let event = event.strip_suffix("capture").unwrap_or(&event);
    ACTS.contains(&event).then(|| name.to_owned())
}

/// The same of something that may be a component.
fn surely_act(name: &str) -> Option<String> {
    act(name).filter(|name| {
        let name = name.to_lowercase();
        !OF_ELEMENTS.iter().any(|event| name.trim_start_matches("on").starts_with(event))
    })
}

pub struct Finder<'e, 'a> {
    pub semantic: &'e Semantic<'a>,
    pub imports: HashMap<SymbolId, (String, Option<String>)>,
    /// What all uses of a function wait for; none while it is being found out.
    pub known: HashMap<SymbolId, Option<Waits>>,
}

impl<'a> Finder<'_, 'a> {
    fn kind(&self, id: NodeId) -> AstKind<'a> {
        self.semantic.nodes().get_node(id).kind()
    }

    fn parent(&self, id: NodeId) -> Option<NodeId> {
        let parent = self.semantic.nodes().parent_node(id).id();
        (parent != id).then_some(parent)
    }

    fn symbol_of(&self, name: &oxc_ast::ast::IdentifierReference<'a>) -> Option<SymbolId> {
        self.semantic.scoping().get_reference(name.reference_id()).symbol_id()
    }

    /// What the code at a node waits for, the outermost reason that is found last.
    pub fn waits(&mut self, id: NodeId) -> Waits {
        self.waits_at(id, 0)
    }

    fn waits_at(&mut self, id: NodeId, depth: usize) -> Waits {
        if depth > DEEPEST {
            return Waits::Nothing;
        }
        // An identifier may itself be what an event is given.
        let given = self.given(id, depth);
        if given != Waits::Nothing {
            return given;
        }
        let mut at = id;
        while let Some(parent) = self.parent(at) {
            if let Some(waits) = self.step(at, parent, depth) {
                return waits;
            }
            at = parent;
        }
        Waits::Nothing
    }

    /// What holds a node back that stands in its parent.
    fn step(&mut self, at: NodeId, parent: NodeId, depth: usize) -> Option<Waits> {
        let span = self.kind(at).span();
        match self.kind(at) {
            AstKind::ArrowFunctionExpression(_) => {
                let waits = self.given(at, depth);
                if waits != Waits::Nothing {
                    return Some(waits);
                }
            }
            AstKind::Function(function) => {
                let waits = match function.id.as_ref().filter(|_| function.is_declaration()) {
                    Some(name) => self.of_named(name.symbol_id(), depth),
                    None => self.given(at, depth),
                };
                if waits != Waits::Nothing {
                    return Some(waits);
                }
            }
            AstKind::ObjectProperty(property) if !property.method => {
                // A row of a router's table.
                let is_page = ["component", "element", "Component", "page", "view"];
                if let (Some(key), AstKind::ObjectExpression(row)) =
                    (key(&property.key), self.kind(parent))
                    && is_page.contains(&key.as_str())
                    && let Some(path) = path_of(&row.properties)
                {
                    return Some(Waits::Route(path));
                }
            }
            AstKind::JSXAttribute(_) => {
                if let AstKind::JSXOpeningElement(element) = self.kind(parent)
                    && matches!(&element.name, JSXElementName::IdentifierReference(name) if name.name == "Route")
                {
                    let path = element.attributes.iter().find_map(|attribute| match attribute {
                        JSXAttributeItem::Attribute(one) if is_named(&one.name, "path") => {
                            match &one.value {
                                Some(JSXAttributeValue::StringLiteral(text)) => {
                                    Some(text.value.to_string())
                                }
                                _ => None,
                            }
                        }
                        _ => None,
                    });
                    return path.filter(|path| is_other(path)).map(Waits::Route);
                }
            }
            _ => {}
        }
        match self.kind(parent) {
            AstKind::LogicalExpression(test)
                if test.operator == LogicalOperator::And && test.right.span() == span =>
            {
                self.state(&test.left).map(Waits::State)
            }
            AstKind::ConditionalExpression(test) if test.consequent.span() == span => {
                self.state(&test.test).map(Waits::State)
            }
            AstKind::IfStatement(test) if test.consequent.span() == span => {
                self.state(&test.test).map(Waits::State)
            }
            AstKind::FunctionBody(body) => {
                // `if (!open) return null` before it.
                let before = body.statements.iter().take_while(|one| one.span().start < span.start);
                let mut states = before.filter_map(|statement| match statement {
                    Statement::IfStatement(test)
                        if test.alternate.is_none() && returns(&test.consequent) =>
                    {
                        match test.test.get_inner_expression() {
                            Expression::UnaryExpression(not) if not.operator.is_not() => {
                                Some(&not.argument)
                            }
                            _ => None,
                        }
                    }
                    _ => None,
                });
                states.find_map(|state| self.state(state)).map(Waits::State)
            }
            _ => None,
        }
    }

    /// What the value at a node is given to.
    fn given(&mut self, id: NodeId, depth: usize) -> Waits {
        let span = self.kind(id).span();
        let Some(mut parent) = self.parent(id) else { return Waits::Nothing };
        while matches!(
            self.kind(parent),
            AstKind::ParenthesizedExpression(_) | AstKind::JSXExpressionContainer(_)
        ) {
            let Some(next) = self.parent(parent) else { return Waits::Nothing };
            parent = next;
        }
        match self.kind(parent) {
            AstKind::JSXAttribute(attribute) => {
                let name = match &attribute.name {
                    JSXAttributeName::Identifier(name) => name.name.to_string(),
                    JSXAttributeName::NamespacedName(name) => {
                        format!("{}:{}", name.namespace.name, name.name.name)
                    }
                };
                let is_element = self.parent(parent).is_some_and(|element| {
                    matches!(self.kind(element), AstKind::JSXOpeningElement(element)
                        if matches!(element.name, JSXElementName::Identifier(_)))
                });
                let act = if is_element { act(&name) } else { surely_act(&name) };
                act.map_or(Waits::Nothing, Waits::Event)
            }
            AstKind::ObjectProperty(property) if property.value.span() == span => {
                let name = key(&property.key).and_then(|key| surely_act(&key));
                name.map_or(Waits::Nothing, Waits::Event)
            }
            AstKind::AssignmentExpression(assignment) if assignment.right.span() == span => {
                match &assignment.left {
                    AssignmentTarget::StaticMemberExpression(member) => {
                        act(&member.property.name).map_or(Waits::Nothing, Waits::Event)
                    }
                    _ => Waits::Nothing,
                }
            }
            AstKind::VariableDeclarator(variable)
                if variable.init.as_ref().is_some_and(|value| value.span() == span) =>
            {
                match &variable.id {
                    BindingPattern::BindingIdentifier(name) if is_function(self.kind(id)) => {
                        self.of_named(name.symbol_id(), depth)
                    }
                    _ => Waits::Nothing,
                }
            }
            AstKind::CallExpression(call) => {
                let place = call.arguments.iter().position(|argument| argument.span() == span);
                let Some(place) = place else { return Waits::Nothing };
                match call.callee.get_inner_expression() {
                    Expression::StaticMemberExpression(member)
                        if member.property.name == "addEventListener" && place == 1 =>
                    {
                        match call.arguments.first() {
                            Some(Argument::StringLiteral(event))
                                if ACTS.contains(&event.value.as_str()) =>
                            {
                                Waits::Event(event.value.to_string())
                            }
                            _ => Waits::Nothing,
                        }
                    }
                    // A function that is kept as it is from one rendering to the next.
                    Expression::Identifier(name) if name.name == "useCallback" && place == 0 => {
                        self.given_on(parent, depth)
                    }
                    Expression::Identifier(name) => match self.symbol_of(name) {
                        Some(symbol) => self.argument(symbol, place, depth),
                        None => Waits::Nothing,
                    },
                    _ => Waits::Nothing,
                }
            }
            _ => Waits::Nothing,
        }
    }

    /// What a call's value is given to, where that is a name or an event.
    fn given_on(&mut self, call: NodeId, depth: usize) -> Waits {
        let span = self.kind(call).span();
        if let Some(parent) = self.parent(call)
            && let AstKind::VariableDeclarator(variable) = self.kind(parent)
            && variable.init.as_ref().is_some_and(|value| value.span() == span)
            && let BindingPattern::BindingIdentifier(name) = &variable.id
        {
            return self.of_named(name.symbol_id(), depth);
        }
        self.given(call, depth)
    }

    /// What a function waits for that is handed to a named one.
    fn argument(&mut self, symbol: SymbolId, place: usize, depth: usize) -> Waits {
        if let Some((request, Some(name))) = self.imports.get(&symbol) {
            return Waits::Given { request: request.clone(), name: name.clone(), place };
        }
        let declared = self.semantic.scoping().symbol_declaration(symbol);
        let Some(parameter) = self.parameter(declared, place) else { return Waits::Nothing };
        self.of_named(parameter, depth)
    }

    /// The parameter of a function at a place, by a plain name.
    fn parameter(&self, declared: NodeId, place: usize) -> Option<SymbolId> {
        let parameters = match self.kind(declared) {
            AstKind::Function(function) => &function.params,
            AstKind::VariableDeclarator(variable) => {
                match variable.init.as_ref()?.get_inner_expression() {
                    Expression::ArrowFunctionExpression(arrow) => &arrow.params,
                    Expression::FunctionExpression(function) => &function.params,
                    _ => return None,
                }
            }
            _ => return None,
        };
        parameters.items.get(place)?.pattern.get_binding_identifier().map(|name| name.symbol_id())
    }

    /// What all uses of a name wait for: of a function or a parameter that is one.
    fn of_named(&mut self, symbol: SymbolId, depth: usize) -> Waits {
        match self.known.get(&symbol) {
            Some(Some(known)) => return known.clone(),
            // It comes back to itself, which is no use by anybody else.
            Some(None) => return Waits::Event(String::new()),
            None => {}
        }
        if self.semantic.scoping().symbol_is_mutated(symbol) {
            return Waits::Nothing;
        }
        self.known.insert(symbol, None);
        let references: Vec<NodeId> = self
            .semantic
            .scoping()
            .get_resolved_references(symbol)
            .filter(|reference| !reference.is_type())
            .map(|reference| reference.node_id())
            .collect();
        let mut found = Waits::Nothing;
        for reference in references {
            match self.waits_at(reference, depth + 1) {
                Waits::Nothing => {
                    found = Waits::Nothing;
                    break;
                }
                Waits::Event(name) if name.is_empty() => {}
                waits => found = waits,
            }
        }
        if self.is_exported(symbol) {
            found = Waits::Nothing;
        }
        self.known.insert(symbol, Some(found.clone()));
        found
    }

    fn is_exported(&self, symbol: SymbolId) -> bool {
        let mut at = self.semantic.scoping().symbol_declaration(symbol);
        loop {
            if matches!(
                self.kind(at),
                AstKind::ExportDeclaration(_) | AstKind::ExportDefaultDeclaration(_)
            ) {
                return true;
            }
            // What is declared in a function is its own.
            if matches!(self.kind(at), AstKind::FunctionBody(_) | AstKind::FormalParameters(_)) {
                return false;
            }
            let Some(parent) = self.parent(at) else { return false };
            at = parent;
        }
    }

    /// The name of a state that is false at first and that makes a test false as long as it is.
    fn state(&mut self, test: &Expression<'a>) -> Option<String> {
        match test.get_inner_expression() {
            Expression::Identifier(name) => self.is_state(self.symbol_of(name)?, false),
            Expression::StaticMemberExpression(member) if member.property.name == "value" => {
                match member.object.get_inner_expression() {
                    Expression::Identifier(name) => self.is_state(self.symbol_of(name)?, true),
                    _ => None,
                }
            }
            Expression::CallExpression(call) if call.arguments.is_empty() => {
                match call.callee.get_inner_expression() {
                    Expression::Identifier(name) => self.is_state(self.symbol_of(name)?, false),
                    _ => None,
                }
            }
            Expression::UnaryExpression(not) if not.operator.is_not() => {
                match not.argument.get_inner_expression() {
                    Expression::UnaryExpression(twice) if twice.operator.is_not() => {
                        self.state(&twice.argument)
                    }
                    _ => None,
                }
            }
            Expression::LogicalExpression(both) if both.operator == LogicalOperator::And => {
                self.state(&both.left).or_else(|| self.state(&both.right))
            }
            _ => None,
        }
    }

    /// `const [open, setOpen] = useState(false)`, whose setter waits for events alone.
    fn is_state(&mut self, symbol: SymbolId, by_value: bool) -> Option<String> {
        let declared = self.semantic.scoping().symbol_declaration(symbol);
        let AstKind::VariableDeclarator(variable) = self.kind(declared) else { return None };
        let Expression::CallExpression(call) = variable.init.as_ref()?.get_inner_expression()
        else {
            return None;
        };
        let maker = match call.callee.get_inner_expression() {
            Expression::Identifier(name) => name.name.as_str(),
            Expression::StaticMemberExpression(member) => member.property.name.as_str(),
            _ => return None,
        };
        if !STATES.contains(&maker) || !call.arguments.first().is_none_or(is_false) {
            return None;
        }
        let name = self.semantic.scoping().symbol_name(symbol).to_owned();
        match &variable.id {
            BindingPattern::ArrayPattern(pair) if !by_value => {
                let [Some(BindingPattern::BindingIdentifier(first)), rest @ ..] =
                    pair.elements.as_slice()
                else {
                    return None;
                };
                if first.symbol_id() != symbol {
                    return None;
                }
                match rest {
                    [] => Some(name),
                    [Some(BindingPattern::BindingIdentifier(setter))] => {
                        let references =
                            self.semantic.scoping().get_resolved_references(setter.symbol_id());
                        let references: Vec<NodeId> = references.map(|one| one.node_id()).collect();
                        self.all_wait(&references).then_some(name)
                    }
                    _ => None,
                }
            }
            BindingPattern::BindingIdentifier(_) if by_value => {
                // Where its value is written.
                let references = self.semantic.scoping().get_resolved_references(symbol);
                let references: Vec<NodeId> = references.map(|one| one.node_id()).collect();
                let mut writers = Vec::new();
                for id in references {
                    let member = self.parent(id)?;
                    match self.kind(member) {
                        AstKind::StaticMemberExpression(one) if one.property.name == "value" => {
                            let parent = self.parent(member)?;
                            let is_written = match self.kind(parent) {
                                AstKind::AssignmentExpression(assignment) => {
                                    assignment.left.span() == one.span
                                }
                                AstKind::UpdateExpression(_) => true,
                                _ => false,
                            };
                            if is_written {
                                writers.push(id);
                            }
                        }
                        _ => return None,
                    }
                }
                self.all_wait(&writers).then_some(name)
            }
            _ => None,
        }
    }

    fn all_wait(&mut self, uses: &[NodeId]) -> bool {
        // Only what somebody sets off here is seen to do so; what others make of it is not known.
        uses.iter().all(|&id| matches!(self.waits(id), Waits::Event(_)))
    }

    /// The parameters of an exported function that go to events alone.
    pub fn handlers(&mut self, statement: &Statement<'a>) -> Vec<(String, Vec<usize>)> {
        use oxc_ast::ast::Declaration;
        let mut exported: Vec<(String, NodeId)> = Vec::new();
        match statement {
            Statement::ExportDeclaration(export) => match &export.declaration {
                Declaration::FunctionDeclaration(function) => exported.extend(
                    function.id.as_ref().map(|id| (id.name.to_string(), function.node_id())),
                ),
                Declaration::VariableDeclaration(variables) => {
                    exported.extend(variables.declarations.iter().filter_map(|variable| {
                        let name = variable.id.get_binding_identifier()?;
                        Some((name.name.to_string(), variable.node_id()))
                    }));
                }
                _ => {}
            },
            Statement::ExportNamedDeclaration(export) => {
                exported.extend(export.specifiers.iter().filter_map(|specifier| {
                    let ModuleExportName::IdentifierReference(local) = &specifier.local else {
                        return None;
                    };
                    let symbol = self.symbol_of(local)?;
                    let declared = self.semantic.scoping().symbol_declaration(symbol);
                    Some((specifier.exported.name().to_string(), declared))
                }));
            }
            _ => {}
        }
        let mut found = Vec::new();
        for (name, declared) in exported {
            let mut places = Vec::new();
            for place in 0.. {
                let Some(parameter) = self.parameter(declared, place) else { break };
                if matches!(self.of_named(parameter, 0), Waits::Event(_)) {
                    places.push(place);
                }
            }
            if !places.is_empty() {
                found.push((name, places));
            }
        }
        found
    }
}

fn is_function(kind: AstKind<'_>) -> bool {
    matches!(kind, AstKind::ArrowFunctionExpression(_) | AstKind::Function(_))
}

fn is_named(name: &JSXAttributeName<'_>, wanted: &str) -> bool {
    matches!(name, JSXAttributeName::Identifier(name) if name.name == wanted)
}

fn key(key: &PropertyKey<'_>) -> Option<String> {
    match key {
        PropertyKey::StaticIdentifier(name) => Some(name.name.to_string()),
        PropertyKey::StringLiteral(name) => Some(name.value.to_string()),
        _ => None,
    }
}

/// A route that is neither the first one nor one for whatever has none.
fn is_other(path: &str) -> bool {
    let path = path.trim_matches('/');
    !path.is_empty() && !path.contains('*')
}

fn path_of(row: &[ObjectPropertyKind<'_>]) -> Option<String> {
    row.iter().find_map(|property| match property {
        ObjectPropertyKind::ObjectProperty(property) if key(&property.key)? == "path" => {
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

fn returns(statement: &Statement<'_>) -> bool {
    match statement {
        Statement::ReturnStatement(_) => true,
        Statement::BlockStatement(block) => {
            matches!(block.body.as_slice(), [Statement::ReturnStatement(_)])
        }
        _ => false,
    }
}

fn is_false(value: &Argument<'_>) -> bool {
    match value {
        Argument::BooleanLiteral(literal) => !literal.value,
        Argument::NullLiteral(_) => true,
        Argument::StringLiteral(text) => text.value.is_empty(),
        Argument::NumericLiteral(number) => number.value == 0.0,
        Argument::Identifier(name) => name.name == "undefined",
        _ => false,
    }
}
