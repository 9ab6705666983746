//! `uvlet.toml`: what is measured, which build, and the budgets.
//!
//! Read by hand from the spanned tree instead of by derive, so that every complaint names line,
//! column and the nearest key. What the file does not mention keeps its default.

mod reader;
mod size;

use std::{
    collections::BTreeMap,
    fs, io,
    path::{Path, PathBuf},
};

use uvlet_audit::gate::{Budget, Scope};
use uvlet_record::sizes::{Coding, Measure};

use reader::{Table, parse};

/// The file that is read unless another is named.
pub const FILE: &str = "uvlet.toml";

/// The settings of a file.
#[derive(Debug)]
pub struct Config {
    /// The file, as it was named.
    pub path: PathBuf,
    /// What sizes are shown and judged in.
    pub measure: Measure,
    /// The output folder, from the file's own place.
    pub folder: Option<PathBuf>,
    /// What the bundler says of the build, from the file's own place.
    pub description: Option<PathBuf>,
    /// URL under which the files will stand.
    pub base: Option<String>,
    /// Levels of encoders that are not their usual ones.
    pub levels: BTreeMap<Coding, u32>,
    /// The gate takes a development build.
    pub allow_development: bool,
    /// Globs over packages that count as own code.
    pub own: Vec<String>,
    /// The budgets in the order written.
    pub budgets: Vec<Budget>,
}

impl Config {
    /// What holds where there is no file.
    pub fn none() -> Self {
        Self {
            path: PathBuf::from(FILE),
            measure: Measure::Coded(Coding::Gzip),
            folder: None,
            description: None,
            base: None,
            levels: BTreeMap::new(),
            allow_development: false,
            own: Vec::new(),
            budgets: Vec::new(),
        }
    }
}

/// Why a file's settings cannot be used.
#[derive(Debug, thiserror::Error)]
pub enum ConfigError {
    #[error("{}: cannot be read: {}; name an existing file with --config", path.display(), .source.to_string().split(" (os").next().unwrap_or_default().to_lowercase())]
    Io { path: PathBuf, source: io::Error },
    #[error("{}:{line}:{column}: {message}", path.display())]
    At { path: PathBuf, line: usize, column: usize, message: String },
    #[error("{}: there is no such file; write one with a [budget.NAME], or name it with --config", .0.display())]
    Missing(PathBuf),
    #[error("{}: holds no budget; add a [budget.NAME] with `total` or `each`, and `at_most`", .0.display())]
    NoBudget(PathBuf),
}

/// Reads the named file, or `uvlet.toml` of the working folder if it is there.
pub fn load(named: Option<&Path>) -> Result<Option<Config>, ConfigError> {
    let path = named.unwrap_or(Path::new(FILE));
    match fs::read(path) {
        Ok(bytes) => {
            // A replacement character in a value is refused where that value is used.
            let text = String::from_utf8_lossy(&bytes);
            read(path, &text).map(Some)
        }
        Err(error) if named.is_none() && error.kind() == io::ErrorKind::NotFound => Ok(None),
        Err(source) => Err(ConfigError::Io { path: path.to_owned(), source }),
    }
}

fn read(path: &Path, text: &str) -> Result<Config, ConfigError> {
    let located = |(at, message): (usize, String)| {
        let before = text.get(..at).unwrap_or(text);
        let line = before.matches('\n').count() + 1;
        let column = before.rsplit('\n').next().unwrap_or("").chars().count() + 1;
        ConfigError::At { path: path.to_owned(), line, column, message }
    };
    let tree = parse(text).map_err(located)?;
    let table = Table::new("the file", &tree);
    settings(path, &table).map_err(located)
}

fn settings(path: &Path, table: &Table<'_>) -> Result<Config, reader::Wrong> {
    let mut config = Config { path: path.to_owned(), ..Config::none() };
    table.only(&["measure", "level", "build", "gate", "budget"])?;
    config.measure = table.parsed("measure")?.unwrap_or(config.measure);
    if let Some(build) = table.table("build")? {
        build.only(&["folder", "description", "base", "own"])?;
        let here = path.parent().unwrap_or(Path::new(""));
        config.folder = build.string("folder")?.map(|folder| here.join(folder));
        config.description = build.string("description")?.map(|file| here.join(file));
        config.base = build.string("base")?.map(str::to_owned);
        config.own = build.strings("own")?;
    }
    if let Some(levels) = table.table("level")? {
        levels.only(&Coding::ALL.map(Coding::name))?;
        for coding in Coding::ALL {
            let level = levels.number(coding.name(), coding.levels())?;
            config.levels.extend(level.map(|level| (coding, level)));
        }
    }
    if let Some(gate) = table.table("gate")? {
        gate.only(&["allow_development"])?;
        config.allow_development = gate.flag("allow_development")?.unwrap_or(false);
    }
    if let Some(budgets) = table.table("budget")? {
        for (name, budget) in budgets.tables()? {
            config.budgets.push(read_budget(name, &budget, config.measure)?);
        }
    }
    Ok(config)
}

fn read_budget(name: &str, table: &Table<'_>, measure: Measure) -> Result<Budget, reader::Wrong> {
    table.only(&["total", "each", "at_most", "warn_above", "measure"])?;
    let scope = match (table.parsed("total")?, table.parsed("each")?) {
        (Some(selector), None) => Scope::Total(selector),
        (None, Some(selector)) => Scope::Each(selector),
        (Some(_), Some(_)) => {
            return Err(
                table.wrong(&format!("budget `{name}` has both `total` and `each`; keep one"))
            );
        }
        (None, None) => {
            return Err(table
                .wrong(&format!("budget `{name}` says nothing of what; add `total` or `each`")));
        }
    };
    let at_most = table.with("at_most", size::parse)?;
    let warn_above = table.with("warn_above", size::parse)?;
    if at_most.is_none() && warn_above.is_none() {
        return Err(
            table.wrong(&format!("budget `{name}` has no limit; add `at_most` or `warn_above`"))
        );
    }
    Ok(Budget {
        name: name.to_owned(),
        scope,
        at_most,
        warn_above,
        measure: table.parsed("measure")?.unwrap_or(measure),
    })
}
