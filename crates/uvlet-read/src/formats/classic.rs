//! What any script may do in a browser: load others into a worker, and start workers.

use uvlet_record::Format;
use uvlet_script::{
    Script,
    ast::{
        Argument, AssignmentExpression, AssignmentTarget, CallExpression, Expression, NewExpression,
    },
    visit::Visit,
};

use super::{
    constants::{WorkerUrl, constant},
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

    /// `script.src = "https://…"`, whatever is put behind it.
    fn assignment(&mut self, assignment: &AssignmentExpression<'_>, found: &mut Found) -> Walk {
        if let AssignmentTarget::StaticMemberExpression(member) = &assignment.left
            && matches!(member.property.name.as_str(), "src" | "href")
            && let Some(url) = start_of(&assignment.right).filter(|url| names_host(url))
        {
            found.hosts.push(found.asked(url, assignment.span));
        }
        Walk::Inside
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

/// What a text certainly begins with.
fn start_of(expression: &Expression<'_>) -> Option<String> {
    match expression.get_inner_expression() {
        Expression::BinaryExpression(sum) => start_of(&sum.left),
        Expression::TemplateLiteral(template) => {
            let first = template.quasis.first()?;
            Some(first.value.cooked.unwrap_or(first.value.raw).to_string())
        }
        Expression::CallExpression(call) => match &call.callee {
            Expression::StaticMemberExpression(member) if member.property.name == "concat" => {
                start_of(&member.object)
            }
            _ => None,
        },
        expression => constant(expression),
    }
}

/// Whether a URL, or the start of one, leads to a host that it names in full.
pub fn names_host(url: &str) -> bool {
    let Some((scheme, rest)) = url.split_once("//") else { return false };
    let host = rest.split(['/', '?', '#']).next().unwrap_or(rest);
    // The specifications that drawings and documents name are fetched by nobody.
    let is_name = host.ends_with("w3.org") || host.starts_with("localhost");
    matches!(scheme, "" | "http:" | "https:") && host.contains('.') && !is_name
}
