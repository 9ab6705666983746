//! AMD: `define([…], …)`, with `require([…], …)` on demand.

use uvlet_record::Format;
use uvlet_script::{
    Script,
    ast::{Argument, CallExpression, Expression},
};

use super::{
    constants::first_strings,
    format::{Found, ScriptFormat},
};

/// Scripts that define themselves for AMD.
#[derive(Default)]
pub struct Amd {
    /// A definition stands at the top level: elsewhere it is one of several ways that a script knows.
    defines: bool,
}

impl ScriptFormat for Amd {
    fn format(&self) -> Format {
        Format::Amd
    }

    fn recognises(&self, _: &Script<'_>) -> bool {
        self.defines
    }

    fn call(&mut self, call: &CallExpression<'_>, found: &mut Found) {
        let Expression::Identifier(name) = &call.callee else { return };
        // Anything else is a package, or one of AMD's own words.
        let loads = || first_strings(call).into_iter().filter(|load| load.starts_with('.'));
        match name.name.as_str() {
            "define" => {
                self.defines |= found.is_sure_to_run();
                loads().for_each(|load| found.load(&script_named(&load)));
            }
            "require" | "requirejs" => {
                let is_list = matches!(call.arguments.first(), Some(Argument::ArrayExpression(_)));
                for load in loads().filter(|_| is_list) {
                    found.imports.push(found.asked(script_named(&load), call.span));
                }
            }
            _ => {}
        }
    }
}

/// A file as AMD names it: without its ending.
fn script_named(name: &str) -> String {
    let file = name.rsplit('/').next().unwrap_or(name);
    let has_ending = [".js", ".mjs", ".cjs"].iter().any(|ending| file.ends_with(ending));
    if has_ending { name.to_owned() } else { format!("{name}.js") }
}
