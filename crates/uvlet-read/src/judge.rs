//! Is it a production build? Judged by positive marks only.

use uvlet_record::{Mode, Module};

use crate::emitted::Emitted;

/// Share of white space below which code is taken for minified: real minified scripts hold 2 to 6%
/// (in texts), scripts as written 15% and more.
const MINIFIED_SPACE: f64 = 0.10;

/// What one script shows of how it was made.
#[derive(Debug, Default, Clone, Copy)]
pub struct Look {
    /// Bytes of code.
    pub bytes: u64,
    /// Bytes of white space among them.
    pub space: u64,
    /// Module bodies stand in strings that are evaluated.
    pub evaluates: bool,
}

impl Look {
    /// Looks at a script's text; licence comments behind the last statement are left out.
    pub fn at(text: &[u8], code: &Emitted) -> Self {
        let end = code.statements.last().map_or(0, |statement| statement.range.end);
        Self { evaluates: code.evaluates, ..Self::of(&text[..end.min(text.len())]) }
    }

    /// Looks at code.
    pub fn of(text: &[u8]) -> Self {
        let space = text.iter().filter(|byte| byte.is_ascii_whitespace()).count();
        Self { bytes: text.len() as u64, space: space as u64, evaluates: false }
    }
}

/// Judges the mode, with the evidence.
pub fn mode<'m>(
    looks: &[(&str, Look)],
    modules: impl Iterator<Item = &'m Module>,
    said: Option<&(Mode, String)>,
) -> (Mode, Vec<String>) {
    let mut evidence = Vec::new();
    if let Some((path, _)) = looks.iter().find(|(_, look)| look.evaluates) {
        evidence.push(format!("{path} evaluates module bodies from strings"));
    }
    for module in modules {
        let path = module.path.as_str();
        let live = ["webpack-dev-server/client/", "webpack/hot/", "vite/dist/client/"];
        let installed = path.rsplit("node_modules/").next().filter(|_| module.package.is_some());
        if installed.is_some_and(|inside| live.iter().any(|mark| inside.starts_with(mark))) {
            evidence.push(format!("{path} is a live-reload client"));
        } else if path.contains(".development.") && module.package.is_some() {
            evidence.push(format!("{path} is a library's development edition"));
        }
    }
    if let Some((Mode::Development, said)) = said {
        evidence.push(said.clone());
    }
    if !evidence.is_empty() {
        return (Mode::Development, evidence);
    }
    if let Some((mode, said)) = said {
        return (*mode, vec![said.clone()]);
    }
    let bytes: u64 = looks.iter().map(|(_, look)| look.bytes).sum();
    let space: u64 = looks.iter().map(|(_, look)| look.space).sum();
    if bytes == 0 {
        return (Mode::Unclear, vec!["there is no code to judge by".to_owned()]);
    }
    #[expect(clippy::cast_precision_loss, reason = "a share of white space needs three digits")]
    let share = space as f64 / bytes as f64;
    let said = format!("{:.1}% of the code is white space", 100.0 * share);
    if share < MINIFIED_SPACE {
        (Mode::Production, vec![format!("minified: {said}")])
    } else {
        (Mode::Unclear, vec![format!("not minified: {said}")])
    }
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
