//! `System.register([…], …)`, with `c.import("…")` on demand.

use uvlet_record::Format;
use uvlet_script::{
    Script,
    ast::{Argument, CallExpression, Expression},
};

use super::{
    constants::first_strings,
    format::{Found, ScriptFormat},
};

/// Scripts that register themselves with System.
#[derive(Default)]
pub struct System {
    registers: bool,
}

impl ScriptFormat for System {
    fn format(&self) -> Format {
        Format::System
    }

    fn recognises(&self, _: &Script<'_>) -> bool {
        self.registers
    }

    fn call(&mut self, call: &CallExpression<'_>, found: &mut Found) {
        let Expression::StaticMemberExpression(member) = &call.callee else { return };
        let Expression::Identifier(object) = &member.object else { return };
        match (object.name.as_str(), member.property.name.as_str()) {
            ("System", "register") => {
                self.registers = true;
                first_strings(call).iter().for_each(|load| found.load(load));
            }
            (_, "import") if self.registers => {
                if let [Argument::StringLiteral(text)] = call.arguments.as_slice() {
                    found.imports.push(found.asked(text.value.to_string(), call.span));
                }
            }
            _ => {}
        }
    }
}
