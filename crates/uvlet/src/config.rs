//! `uvlet.toml`: what is measured, which build, and the budgets.
//!
//! Read by hand from the spanned tree instead of by derive, so that every complaint names line,
//! column and the nearest key. What the file does not mention keeps its default.

mod reader;
mod size;

pub use size::parse as size;

use std::{
    collections::BTreeMap,
    fs, io,
    path::{Path, PathBuf},
};

use uvlet_audit::{
    gate::{About, Budget, Scope, Strictness, Waiver},
    nearest::remedy,
    selector::Selector,
    waste,
};
use uvlet_record::sizes::{Coding, Measure};

pub use uvlet_audit::gate::Growth;

use reader::{Table, line_and_column, parse};

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
    /// How strictly budgets are held.
    pub strictness: Strictness,
    /// Globs over packages that count as own code.
    pub own: Vec<String>,
    /// Named groups of bytes.
    pub groups: Vec<(String, Selector)>,
    /// Languages that the site speaks.
    pub languages: Vec<String>,
    /// The budgets in the order written.
    pub budgets: Vec<Budget>,
    /// Exceptions to budgets and findings.
    pub waivers: Vec<Waiver>,
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
            strictness: Strictness::default(),
            own: Vec::new(),
            groups: Vec::new(),
            languages: Vec::new(),
            budgets: Vec::new(),
            waivers: Vec::new(),
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
    match read_plain(path) {
        Ok(bytes) => {
            // A replacement character in a value is refused where that value is used.
            let text = String::from_utf8_lossy(&bytes);
            read(path, &text).map(Some)
        }
        Err(error) if named.is_none() && error.kind() == io::ErrorKind::NotFound => Ok(None),
        Err(source) => Err(ConfigError::Io { path: path.to_owned(), source }),
    }
}

/// Settings stand in a plain file: a pipe or a device is not waited for.
fn read_plain(path: &Path) -> io::Result<Vec<u8>> {
    const LONGEST: u64 = 16 << 20;
    let metadata = fs::metadata(path)?;
    if !metadata.is_file() || metadata.len() > LONGEST {
        return Err(io::Error::other("it is no file of settings"));
    }
    fs::read(path)
}

fn read(path: &Path, text: &str) -> Result<Config, ConfigError> {
    let located = |(at, message): (usize, String)| {
        let (line, column) = line_and_column(text, at);
        ConfigError::At { path: path.to_owned(), line, column, message }
    };
    let tree = parse(text).map_err(located)?;
    let table = Table::new("the file", text, &tree);
    settings(path, &table).map_err(located)
}

fn settings(path: &Path, table: &Table<'_>) -> Result<Config, reader::Wrong> {
    let mut config = Config { path: path.to_owned(), ..Config::none() };
    table.only(&["measure", "languages", "level", "build", "group", "gate", "budget", "waiver"])?;
    config.languages = table.strings("languages")?;
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
    if let Some(groups) = table.table("group")? {
        for name in groups.names() {
            let Some(selector) = groups.parsed::<Selector>(name)? else { continue };
            if selector.names_groups() {
                return Err(groups.wrong_at(name, "a group cannot be made of groups"));
            }
            config.groups.push((name.to_owned(), selector));
        }
    }
    if let Some(gate) = table.table("gate")? {
        gate.only(&["allow_development", "allow_estimated", "allow_unattributed"])?;
        config.strictness = Strictness {
            allow_development: gate.flag("allow_development")?.unwrap_or(false),
            allow_estimated: gate.flag("allow_estimated")?.unwrap_or(false),
            allow_unattributed: gate.with("allow_unattributed", size::parse)?.unwrap_or(0),
        };
    }
    if let Some(budgets) = table.table("budget")? {
        for (name, budget) in budgets.tables()? {
            config.budgets.push(read_budget(name, &budget, config.measure)?);
        }
    }
    for waiver in table.list("waiver")? {
        config.waivers.push(read_waiver(&waiver, &config.budgets)?);
    }
    Ok(config)
}

fn read_budget(name: &str, table: &Table<'_>, measure: Measure) -> Result<Budget, reader::Wrong> {
    table.only(&[
        "total",
        "each",
        "absent",
        "waste",
        "at_most",
        "warn_above",
        "grow_at_most",
        "files_at_most",
        "measure",
    ])?;
    let (key, scope) = scope(name, table)?;
    let at_most = table.with("at_most", size::parse)?;
    let warn_above = table.with("warn_above", size::parse)?;
    let grow_at_most = table.with("grow_at_most", growth)?;
    let files_at_most = table.number("files_at_most", 0..=u32::MAX)?.map(u64::from);
    let has_others = grow_at_most.is_some() || files_at_most.is_some();
    match (&scope, at_most, warn_above) {
        (Scope::Absent(_), None, None) if !has_others => {}
        (Scope::Absent(_), ..) => {
            return Err(table.wrong(&format!(
                "budget `{name}` forbids something with `absent`, which takes no limit"
            )));
        }
        (_, None, None) if !has_others => {
            return Err(table.wrong(&format!(
                "budget `{name}` has no limit; add `at_most`, `warn_above`, `grow_at_most` or `files_at_most`"
            )));
        }
        (_, Some(at_most), Some(warn_above)) if warn_above > at_most => {
            return Err(table.wrong_at(
                "warn_above",
                "`warn_above` is over `at_most`, and could never warn before it breaks",
            ));
        }
        _ => {}
    }
    Ok(Budget {
        name: name.to_owned(),
        scope,
        place: table.place(key),
        at_most,
        warn_above,
        grow_at_most,
        files_at_most,
        measure: table.parsed("measure")?.unwrap_or(measure),
    })
}

fn read_waiver(table: &Table<'_>, budgets: &[Budget]) -> Result<Waiver, reader::Wrong> {
    table.only(&[
        "budget",
        "finding",
        "where",
        "at_most",
        "grow_at_most",
        "files_at_most",
        "reason",
        "until",
    ])?;
    let at_most = table.with("at_most", size::parse)?;
    let grow_at_most = table.with("grow_at_most", growth)?;
    let files_at_most = table.number("files_at_most", 0..=u32::MAX)?.map(u64::from);
    let within = table.parsed::<Selector>("where")?;
    let about = match (table.string("budget")?, table.string("finding")?) {
        (Some(name), None) => {
            let names = budgets.iter().map(|budget| budget.name.as_str());
            let Some(budget) = budgets.iter().find(|budget| budget.name == name) else {
                let message = format!("no budget is called `{name}`, {}", remedy(name, names));
                return Err(table.wrong_at("budget", &message));
            };
            if let Some(selector) = &within {
                if !matches!(budget.scope, Scope::Each(_)) {
                    let message = "`where` is for a budget with `each`; this one is held whole";
                    return Err(table.wrong_at("where", message));
                }
                selector.check_items().map_err(|error| {
                    let error = error.to_string().replace("`each`", "`where`");
                    table.wrong_at("where", &error)
                })?;
            }
            let limits = [
                ("at_most", at_most.is_some(), budget.at_most.is_some()),
                ("grow_at_most", grow_at_most.is_some(), budget.grow_at_most.is_some()),
                ("files_at_most", files_at_most.is_some(), budget.files_at_most.is_some()),
            ];
            if let Some((key, ..)) = limits.iter().find(|(_, has, is_held)| *has && !is_held) {
                let message = format!("budget `{name}` has no `{key}` that this could waive");
                return Err(table.wrong_at(key, &message));
            }
            About::Budget { name: name.to_owned(), within }
        }
        (None, Some(id)) if within.is_none() => About::Finding(id.to_owned()),
        (None, Some(_)) => {
            return Err(table.wrong_at("where", "a finding is one thing, and takes no `where`"));
        }
        _ => return Err(table.wrong("a waiver names one `budget`, or one `finding`")),
    };
    if at_most.is_none() && grow_at_most.is_none() && files_at_most.is_none() {
        return Err(table.wrong("a waiver has a ceiling: add `at_most`, or `grow_at_most`"));
    }
    let reason = table.string("reason")?.map(str::trim).filter(|reason| !reason.is_empty());
    let Some(reason) = reason else {
        return Err(table.wrong("a waiver says why: add `reason`"));
    };
    let Some(until) = table.date("until")? else {
        return Err(table.wrong("a waiver ends: add `until`, as in 2027-03-31"));
    };
    Ok(Waiver { about, at_most, grow_at_most, files_at_most, reason: reason.to_owned(), until })
}

/// `2 kB`, or `1.5%`.
///
/// # Errors
/// What is wrong, and how it would be right.
pub fn growth(text: &str) -> Result<Growth, String> {
    let Some(percent) = text.trim().strip_suffix('%') else {
        return size::parse(text).map(Growth::Bytes);
    };
    let wrong = || format!("`{text}` is no growth; write it like `2 kB` or `1.5%`");
    let (whole, part) = percent.trim().split_once('.').unwrap_or((percent.trim(), ""));
    let is_number = |digits: &str| digits.bytes().all(|digit| digit.is_ascii_digit());
    if whole.is_empty() || part.len() > 3 || !is_number(whole) || !is_number(part) {
        return Err(wrong());
    }
    let milli = format!("{whole}{part:0<3}").parse().map_err(|_| wrong())?;
    Ok(Growth::Milli(milli))
}

/// What a budget is about, and the key that says it.
fn scope(name: &str, table: &Table<'_>) -> Result<(&'static str, Scope), reader::Wrong> {
    type Make = fn(Selector) -> Scope;
    let keys: [(&str, Make); 3] =
        [("total", Scope::Total), ("each", Scope::Each), ("absent", Scope::Absent)];
    let mut found = Vec::new();
    for (key, scope) in keys {
        if let Some(selector) = table.parsed::<Selector>(key)? {
            if key == "each" {
                selector.check_items().map_err(|error| table.wrong_at(key, &error.to_string()))?;
            }
            found.push((key, scope(selector)));
        }
    }
    if let Some(kind) = table.parsed::<waste::Kind>("waste")? {
        found.push(("waste", Scope::Waste(kind)));
    }
    let second = found.get(1).map(|(key, _)| *key);
    match (found.into_iter().next(), second) {
        (Some(first), None) => Ok(first),
        (Some((first, _)), Some(second)) => {
            Err(table
                .wrong(&format!("budget `{name}` has both `{first}` and `{second}`; keep one")))
        }
        (None, _) => Err(table.wrong(&format!(
            "budget `{name}` says nothing of what; add `total`, `each`, `absent` or `waste`"
        ))),
    }
}
