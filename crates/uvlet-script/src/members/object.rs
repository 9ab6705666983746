//! Which value a source gives out as a whole: the one whose members others read.

use std::collections::{HashMap, HashSet};

use oxc_ast::ast::{
    Argument, ArrowFunctionExpression, AssignmentExpression, AssignmentTarget, BindingPattern,
    CallExpression, ExportDefaultDeclaration, ExportDefaultDeclarationKind, ExportSpecifier,
    Expression, FormalParameters, Function, IdentifierReference, ModuleExportName, ReturnStatement,
    VariableDeclarator,
};
use oxc_ast_visit::{Visit, walk};
use oxc_semantic::Scoping;
use oxc_syntax::{scope::ScopeFlags, symbol::SymbolId};

/// Where a function, or an object that is written out, begins.
pub(super) type Start = u32;

/// What an expression stands for, as far as that is written out.
#[derive(Clone, Debug)]
enum Value {
    Symbol(SymbolId),
    Function(Start),
    /// What calling it with these names returns.
    Called(Box<Value>, Vec<SymbolId>),
    Literal(Start),
    /// `exports`, or `module.exports`.
    Exports,
    Other,
}

/// The value that a source gives out, under all names that it has there.
#[derive(Default)]
pub(super) struct Object {
    pub(super) symbols: HashSet<SymbolId>,
    pub(super) literals: HashSet<Start>,
    /// Names of namespaces that it is made of.
    pub(super) made_of: HashSet<SymbolId>,
}

/// What names begin as, what functions return, what is given out, and names of functions that are called
/// where they stand.
pub(super) struct Facts<'s> {
    scoping: &'s Scoping,
    begins: HashMap<SymbolId, Value>,
    returns: HashMap<Start, Vec<Value>>,
    given: Vec<Value>,
    parameters: HashMap<Start, Vec<Option<SymbolId>>>,
    calls: Vec<(Value, Vec<Value>)>,
    functions: Vec<Start>,
}

impl<'s> Facts<'s> {
    pub(super) fn new(scoping: &'s Scoping) -> Self {
        Self {
            scoping,
            begins: HashMap::new(),
            returns: HashMap::new(),
            given: vec![Value::Exports],
            parameters: HashMap::new(),
            calls: Vec::new(),
            functions: Vec::new(),
        }
    }

    /// The value that is given out.
    pub(super) fn object(&mut self) -> Object {
        self.call();
        let mut object = Object::default();
        let mut called: HashSet<Start> = HashSet::new();
        let mut open: Vec<&Value> = self.given.iter().collect();
        while let Some(value) = open.pop() {
            match value {
                Value::Symbol(symbol) => {
                    if object.symbols.insert(*symbol) {
                        open.extend(self.begins.get(symbol));
                    }
                }
                Value::Called(callee, arguments) => {
                    let function = self.function(callee).filter(|start| called.insert(*start));
                    let returns = function.and_then(|start| self.returns.get(&start));
                    open.extend(returns.into_iter().flatten());
                    // Helpers return what they are given, with marks and more members.
                    for argument in arguments {
                        match self.begins.get(argument) {
                            Some(literal @ Value::Literal(_)) => {
                                object.symbols.insert(*argument);
                                open.push(literal);
                            }
                            Some(_) => {}
                            None => _ = object.made_of.insert(*argument),
                        }
                    }
                }
                Value::Literal(start) => _ = object.literals.insert(*start),
                Value::Function(_) | Value::Exports | Value::Other => {}
            }
        }
        // What `exports` is called as an argument.
        let exports = self.begins.iter().filter(|(_, value)| matches!(value, Value::Exports));
        object.symbols.extend(exports.map(|(symbol, _)| *symbol));
        object
    }

    /// The function that a value is.
    fn function<'v>(&'v self, mut value: &'v Value) -> Option<Start> {
        let mut seen: HashSet<SymbolId> = HashSet::new();
        loop {
            match value {
                Value::Function(start) => return Some(*start),
                Value::Symbol(symbol) if seen.insert(*symbol) => value = self.begins.get(symbol)?,
                _ => return None,
            }
        }
    }

    /// Whether a function that is written out here is called.
    pub(super) fn is_of_here(&self, callee: &Expression<'_>) -> bool {
        self.function(&self.value(callee)).is_some()
    }

    fn value(&self, expression: &Expression<'_>) -> Value {
        match expression.get_inner_expression() {
            Expression::Identifier(name) => match symbol(self.scoping, name) {
                Some(symbol) => Value::Symbol(symbol),
                None if name.name == "exports" => Value::Exports,
                None => Value::Other,
            },
            Expression::FunctionExpression(function) => Value::Function(function.span.start),
            Expression::ArrowFunctionExpression(arrow) => Value::Function(arrow.span.start),
            Expression::ObjectExpression(object) => Value::Literal(object.span.start),
            Expression::CallExpression(call) => {
                let (callee, arguments) = called(call);
                let names = arguments.iter().filter_map(|argument| match argument {
                    Argument::Identifier(name) => symbol(self.scoping, name),
                    _ => None,
                });
                Value::Called(Box::new(self.value(callee)), names.collect())
            }
            Expression::AssignmentExpression(assignment) => self.value(&assignment.right),
            Expression::SequenceExpression(list) => {
                list.expressions.last().map_or(Value::Other, |last| self.value(last))
            }
            expression if is_module_exports(expression) => Value::Exports,
            _ => Value::Other,
        }
    }

    fn begin(&mut self, pattern: &BindingPattern<'_>, value: Value) {
        if let BindingPattern::BindingIdentifier(id) = pattern
            && let Some(symbol) = id.symbol_id.get()
        {
            self.begins.insert(symbol, value);
        }
    }

    /// Parameters begin as what the first call gives them, outer functions first.
    fn call(&mut self) {
        for (callee, arguments) in std::mem::take(&mut self.calls) {
            let function = self.function(&callee);
            let parameters = function.and_then(|start| self.parameters.get(&start));
            for (parameter, argument) in parameters.into_iter().flatten().zip(arguments) {
                if let Some(symbol) = parameter {
                    self.begins.entry(*symbol).or_insert(argument);
                }
            }
        }
    }

    fn parameters(&mut self, function: Start, parameters: &FormalParameters<'_>) {
        let symbol = |pattern: &BindingPattern<'_>| match pattern {
            BindingPattern::BindingIdentifier(id) => id.symbol_id.get(),
            _ => None,
        };
        let symbols = parameters.items.iter().map(|one| symbol(&one.pattern)).collect();
        self.parameters.insert(function, symbols);
    }
}

/// What is called, and with what: `f.call(this, …)` calls `f`, too.
fn called<'e, 'a>(call: &'e CallExpression<'a>) -> (&'e Expression<'a>, &'e [Argument<'a>]) {
    let callee = call.callee.get_inner_expression();
    match callee {
        Expression::StaticMemberExpression(member) if member.property.name == "call" => {
            (member.object.get_inner_expression(), call.arguments.get(1..).unwrap_or_default())
        }
        _ => (callee, &call.arguments),
    }
}

/// The symbol of a name; none of a global one.
pub(super) fn symbol(scoping: &Scoping, name: &IdentifierReference<'_>) -> Option<SymbolId> {
    scoping.get_reference(name.reference_id.get()?).symbol_id()
}

/// The specifier of `require("x")`.
pub(super) fn required(call: &CallExpression<'_>) -> Option<String> {
    let is_require = matches!(&call.callee, Expression::Identifier(name) if name.name == "require");
    match call.arguments.as_slice() {
        [Argument::StringLiteral(text)] if is_require => Some(text.value.to_string()),
        _ => None,
    }
}

/// `module.exports`, whatever the module goes by.
fn is_module_exports(expression: &Expression<'_>) -> bool {
    matches!(expression, Expression::StaticMemberExpression(member)
        if member.property.name == "exports"
            && matches!(&member.object, Expression::Identifier(name) if name.name == "module"))
}

/// `exports`, or `module.exports`.
pub(super) fn is_exports(scoping: &Scoping, expression: &Expression<'_>) -> bool {
    match expression.get_inner_expression() {
        Expression::Identifier(name) => name.name == "exports" && symbol(scoping, name).is_none(),
        expression => is_module_exports(expression),
    }
}

impl<'a> Visit<'a> for Facts<'_> {
    fn visit_function(&mut self, function: &Function<'a>, flags: ScopeFlags) {
        if let Some(symbol) = function.id.as_ref().and_then(|id| id.symbol_id.get()) {
            self.begins.insert(symbol, Value::Function(function.span.start));
        }
        self.parameters(function.span.start, &function.params);
        self.functions.push(function.span.start);
        walk::walk_function(self, function, flags);
        self.functions.pop();
    }

    fn visit_arrow_function_expression(&mut self, arrow: &ArrowFunctionExpression<'a>) {
        self.parameters(arrow.span.start, &arrow.params);
        self.functions.push(arrow.span.start);
        walk::walk_arrow_function_expression(self, arrow);
        self.functions.pop();
    }

    fn visit_return_statement(&mut self, statement: &ReturnStatement<'a>) {
        if let (Some(value), Some(function)) = (&statement.argument, self.functions.last()) {
            let value = self.value(value);
            self.returns.entry(*function).or_default().push(value);
        }
        walk::walk_return_statement(self, statement);
    }

    fn visit_variable_declarator(&mut self, declarator: &VariableDeclarator<'a>) {
        if let Some(init) = &declarator.init {
            let value = self.value(init);
            self.begin(&declarator.id, value);
        }
        walk::walk_variable_declarator(self, declarator);
    }

    fn visit_assignment_expression(&mut self, assignment: &AssignmentExpression<'a>) {
        if let AssignmentTarget::StaticMemberExpression(member) = &assignment.left {
            let is_whole = match member.property.name.as_str() {
                "exports" => matches!(&member.object, Expression::Identifier(_)),
                "default" => is_exports(self.scoping, &member.object),
                _ => false,
            };
            if is_whole {
                let value = self.value(&assignment.right);
                self.given.push(value);
            }
        }
        walk::walk_assignment_expression(self, assignment);
    }

    fn visit_export_default_declaration(&mut self, export: &ExportDefaultDeclaration<'a>) {
        let value = match &export.declaration {
            ExportDefaultDeclarationKind::FunctionDeclaration(function) => {
                let symbol = function.id.as_ref().and_then(|id| id.symbol_id.get());
                symbol.map_or(Value::Other, Value::Symbol)
            }
            declared => {
                declared.as_expression().map_or(Value::Other, |expression| self.value(expression))
            }
        };
        self.given.push(value);
        walk::walk_export_default_declaration(self, export);
    }

    fn visit_export_specifier(&mut self, specifier: &ExportSpecifier<'a>) {
        if let ModuleExportName::IdentifierReference(local) = &specifier.local
            && specifier.exported.name() == "default"
            && let Some(symbol) = symbol(self.scoping, local)
        {
            self.given.push(Value::Symbol(symbol));
        }
    }

    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        let (callee, arguments) = called(call);
        let given = arguments.iter().map(|argument| {
            argument.as_expression().map_or(Value::Other, |value| self.value(value))
        });
        let call_of = (self.value(callee), given.collect());
        self.calls.push(call_of);
        walk::walk_call_expression(self, call);
    }
}
