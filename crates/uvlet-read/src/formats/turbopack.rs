//! Scripts that register modules with Turbopack's runtime.
//!
//! A chunk pushes one flat list: itself, then runs of ids with the function that they share,
//! `TURBOPACK.push([script, 77811, e=>{…}, 45110, 26514, e=>{…}])`, some of them in a list of their own.
//! What is opened on demand is asked for by the id of a module, `e.A(46364)`; that module may stand in any
//! chunk, and fetches the files:
//! `46364, e=>{e.v(t=>Promise.all(["static/chunks/a.js"].map(t=>e.l(t))).then(()=>t(45163)))}`.

use uvlet_record::Format;
use uvlet_script::{
    GetSpan, Script,
    ast::{Argument, ArrayExpressionElement, CallExpression, Expression},
    functions::{is_function, unnested},
    visit::{Visit, walk},
};

use super::{
    constants::{id, strings, used},
    format::{Chunks, Found, Opener, ScriptFormat},
};

/// Bytes beyond which a module function does more than fetch files.
const LONGEST: u32 = 8_000;

/// Scripts of Turbopack.
#[derive(Default)]
pub struct Turbopack {
    registers: bool,
    openers: Vec<Opener>,
    modules: Vec<String>,
}

impl ScriptFormat for Turbopack {
    fn format(&self) -> Format {
        Format::Turbopack
    }

    fn recognises(&self, _: &Script<'_>) -> bool {
        self.registers
    }

    fn call(&mut self, call: &CallExpression<'_>, found: &mut Found) {
        let Expression::StaticMemberExpression(callee) = &call.callee else { return };
        match (callee.property.name.as_str(), call.arguments.as_slice()) {
            ("push", [Argument::ArrayExpression(pushed)]) => self.take(&pushed.elements),
            ("A", [argument]) if self.registers => {
                if let Some(id) = argument.as_expression().and_then(id) {
                    found.keyed.push(found.asked(id, call.span));
                }
            }
            _ => {}
        }
    }

    fn finish(self: Box<Self>, chunks: &mut Chunks) {
        chunks.openers.extend(self.openers);
        chunks.modules.extend(self.modules);
    }
}

impl Turbopack {
    /// Takes note of a pushed list, if it is one of modules: a list of another form is somebody's own.
    fn take(&mut self, elements: &[ArrayExpressionElement<'_>]) {
        let [script, rest @ ..] = elements else { return };
        let Some(script) = script.as_expression() else { return };
        if id(script).is_some() || is_function(script) {
            return;
        }
        let mut ids: Vec<String> = Vec::new();
        let mut openers = Vec::new();
        let mut modules = Vec::new();
        for element in rest.iter().flat_map(unnested) {
            let Some(element) = element.as_expression() else { return };
            if let Some(id) = id(element) {
                ids.push(id);
            } else if is_function(element) && !ids.is_empty() {
                if let Some(Opened { files, opens, .. }) = opened(element) {
                    openers.extend(ids.iter().map(|id| Opener {
                        key: id.clone(),
                        files: files.clone(),
                        opens: opens.clone(),
                    }));
                }
                modules.append(&mut ids);
            } else {
                return;
            }
        }
        if ids.is_empty() && !modules.is_empty() {
            self.registers = true;
            self.openers.extend(openers);
            self.modules.extend(modules);
        }
    }
}

/// The files that a module function fetches, if that is what it is there for; they may be none.
fn opened(function: &Expression<'_>) -> Option<Opened> {
    if function.span().size() > LONGEST {
        return None;
    }
    let mut opened = Opened::default();
    opened.visit_expression(function);
    (opened.gives_a_promise && opened.waits).then_some(opened)
}

#[derive(Default)]
struct Opened {
    /// `e.v(t => …)`.
    gives_a_promise: bool,
    /// `Promise.all(…)` or `Promise.resolve()`, with what comes `.then`.
    waits: bool,
    files: Vec<String>,
    opens: Option<String>,
}

impl<'a> Visit<'a> for Opened {
    fn visit_call_expression(&mut self, call: &CallExpression<'a>) {
        if let Expression::StaticMemberExpression(callee) = &call.callee {
            match callee.property.name.as_str() {
                "v" => {
                    let first = call.arguments.first().and_then(Argument::as_expression);
                    self.gives_a_promise |= first.is_some_and(is_function);
                }
                "then" => {
                    self.waits = true;
                    let first = call.arguments.first().and_then(Argument::as_expression);
                    self.opens = first.and_then(used).or(self.opens.take());
                }
                "map" => {
                    if let Expression::ArrayExpression(list) = &callee.object {
                        self.files.extend(strings(list).unwrap_or_default());
                    }
                }
                _ => {}
            }
        }
        walk::walk_call_expression(self, call);
    }
}
