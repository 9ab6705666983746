//! What any script may do in a browser: load others into a worker, and start workers.

use uvlet_record::Format;
use uvlet_script::{
    Script,
    ast::{Argument, CallExpression, Expression, NewExpression},
    visit::Visit,
};

use super::{
    constants::WorkerUrl,
    format::{Found, ScriptFormat, Walk},
};

/// Scripts of no other format.
#[derive(Default)]
pub struct Classic;

impl ScriptFormat for Classic {
    fn format(&self) -> Format {
        Format::Classic
    }

    fn recognises(&self, _: &Script<'_>) -> bool {
        true
    }

    fn call(&mut self, call: &CallExpression<'_>, found: &mut Found) {
        let is_it =
            matches!(&call.callee, Expression::Identifier(name) if name.name == "importScripts");
        for argument in call.arguments.iter().filter(|_| is_it) {
            if let Argument::StringLiteral(url) = argument {
                // It takes URLs, where a bare word is a file and not a package.
                let is_word = !url.value.starts_with(['.', '/']) && !url.value.contains(':');
                found.load(&format!("{}{}", if is_word { "./" } else { "" }, url.value));
            }
        }
    }

    fn construct(&mut self, call: &NewExpression<'_>, found: &mut Found) -> Walk {
        let Expression::Identifier(callee) = &call.callee else { return Walk::Inside };
        let is_worker = matches!(callee.name.as_str(), "Worker" | "SharedWorker");
        let Some(first) = call.arguments.first().filter(|_| is_worker) else { return Walk::Inside };
        let mut url = WorkerUrl::default();
        url.visit_argument(first);
        match url {
            WorkerUrl { chunk: Some(id), .. } => found.chunks.push(found.asked(id, call.span)),
            WorkerUrl { text: Some(url), .. } => found.workers.push(found.asked(url, call.span)),
            _ => return Walk::Inside,
        }
        Walk::On
    }
}
