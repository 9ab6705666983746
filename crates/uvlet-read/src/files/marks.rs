//! Marks in a script of how it was made and where it runs: white space, module bodies that are
//! evaluated, modules that only Node.js has.

use uvlet_script::{
    ast::{
        Argument, AssignmentExpression, AssignmentTarget, CallExpression, Expression, FunctionBody,
        ObjectProperty, Statement as Syntax,
    },
    functions::function_body,
};

/// What one script shows of how it was made.
#[derive(Debug, Default, Clone)]
pub struct CodeMarks {
    /// Bytes of code.
    pub bytes: u64,
    /// Bytes of white space among them.
    pub space: u64,
    /// Module bodies stand in strings that are evaluated, as webpack writes them for developers.
    pub evaluates: bool,
    /// Modules that only Node.js has, of those it requires as it starts.
    pub node_requires: Vec<String>,
    /// It holds what Vite puts before an app: preloads of modules for browsers that know none.
    pub preloads_modules: bool,
}

impl CodeMarks {
    /// Of code, without looking into it.
    pub fn of(text: &[u8]) -> Self {
        let space = text.iter().filter(|byte| byte.is_ascii_whitespace()).count();
        let holds = |word: &str| memchr::memmem::find(text, word.as_bytes()).is_some();
        // The polyfill looks for such links and fetches what they name.
        let preloads_modules = holds("modulepreload")
            && ["relList", "MutationObserver", "use-credentials"].iter().all(|word| holds(word));
        let (bytes, space) = (text.len() as u64, space as u64);
        Self { bytes, space, preloads_modules, ..Self::default() }
    }

    /// Looks at a call. Where it is not sure to run, it may be what browsers never get to.
    pub fn call(&mut self, call: &CallExpression<'_>, is_sure_to_run: bool) {
        if is_sure_to_run {
            self.node_requires.extend(node_require(call));
        }
    }

    /// Looks for `e.exports = require("fs")`: how a bundler hands a module of the platform on.
    pub fn assignment(&mut self, assignment: &AssignmentExpression<'_>, is_in_function: bool) {
        if let AssignmentTarget::StaticMemberExpression(member) = &assignment.left
            && member.property.name == "exports"
            && let Expression::CallExpression(call) = &assignment.right
            && is_in_function
        {
            self.node_requires.extend(node_require(call));
        }
    }

    /// Looks at a row of what may be a table of modules.
    pub fn property(&mut self, property: &ObjectProperty<'_>) {
        self.evaluates |= is_evaluated(function_body(&property.value));
    }
}

/// The module that only Node.js has in `require("fs")`.
fn node_require(call: &CallExpression<'_>) -> Option<String> {
    match (&call.callee, call.arguments.as_slice()) {
        (Expression::Identifier(callee), [Argument::StringLiteral(name)])
            if callee.name == "require" && is_node_builtin(&name.value) =>
        {
            Some(name.value.to_string())
        }
        _ => None,
    }
}

/// Whether a module's body is one `eval(text)` whose text says which module it is, as webpack and
/// Rspack write it in development mode.
fn is_evaluated(body: Option<&FunctionBody<'_>>) -> bool {
    let Some([Syntax::ExpressionStatement(only)]) = body.map(|body| body.statements.as_slice())
    else {
        return false;
    };
    let Expression::CallExpression(call) = &only.expression else { return false };
    let is_eval = matches!(&call.callee, Expression::Identifier(name) if name.name == "eval");
    let text = match call.arguments.as_slice() {
        [Argument::StringLiteral(text)] => &text.value,
        // `eval(n.ts(text))`, where a policy of trusted types holds.
        [Argument::CallExpression(call)] => match call.arguments.as_slice() {
            [Argument::StringLiteral(text)] => &text.value,
            _ => return false,
        },
        _ => return false,
    };
    // Newer versions put the body into a block.
    let body = text.trim_end();
    let body = body.strip_suffix('}').unwrap_or(body).trim_end();
    let last = body.rsplit('\n').next().unwrap_or_default();
    let names = last.strip_prefix("//# sourceURL=");
    is_eval && names.is_some_and(|url| url.starts_with("webpack") || url.starts_with("rspack"))
}

/// Modules that only Node.js has.
const NODE_BUILTINS: [&str; 16] = [
    "assert",
    "buffer",
    "child_process",
    "cluster",
    "crypto",
    "fs",
    "fs/promises",
    "http",
    "https",
    "module",
    "net",
    "os",
    "path",
    "stream",
    "worker_threads",
    "zlib",
];

/// Whether a specifier names a module that only Node.js has.
pub fn is_node_builtin(name: &str) -> bool {
    name.starts_with("node:") || NODE_BUILTINS.contains(&name)
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::CodeMarks;

    #[rstest]
    #[case::of_vite(
        "(function(){let e=document.createElement(`link`).relList;if(e&&e.supports&&e.supports(`modulepreload`))return;for(let e of document.querySelectorAll(`link[rel=\"modulepreload\"]`))n(e);new MutationObserver(e=>{});function t(e){let t={};return e.crossOrigin===`use-credentials`?t.credentials=`include`:t}})();",
        true
    )]
    #[case::of_an_app("if(link.relList.supports('modulepreload'))start()", false)]
    fn who_preloads_modules(#[case] text: &str, #[case] expected: bool) {
        assert_eq!(CodeMarks::of(text.as_bytes()).preloads_modules, expected);
    }
}
