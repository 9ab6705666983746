//! What can be wrong with the settings as a whole.

use std::{io, path::PathBuf};
use uvlet_record::fault;

use uvlet_view::words::errors;

/// The file that is read unless another is named.
pub const FILE: &str = "uvlet.toml";
/// Why a file's settings cannot be used.
#[derive(Debug, thiserror::Error)]
pub enum ConfigError {
    #[error("{}: cannot be read: {}; name an existing file with --config", path.display(), fault::reason(source))]
    Io { path: PathBuf, source: io::Error },
    #[error("{}:{line}:{column}: {message}", path.display())]
    At { path: PathBuf, line: usize, column: usize, message: String },
    #[error("{}: there is no such file; write one with a [budget.NAME], or name it with --config", .0.display())]
    Missing(PathBuf),
    #[error("{}: has no app called `{name}`, {}", path.display(), match known.is_empty() { true => "and no [app.NAME] at all".to_owned(), false => errors::remedy(name, known.iter().map(String::as_str)) })]
    NoApp { path: PathBuf, name: String, known: Vec<String> },
    #[error("{}: holds no budget; add a [budget.NAME] with `total` or `each`, and `at_most`", .0.display())]
    NoBudget(PathBuf),
}
