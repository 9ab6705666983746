//! `uvlet.toml`: what is measured, which build, and the budgets.
//!
//! Read by hand from the spanned tree instead of by derive, so that every complaint names file, line,
//! column and the nearest key. What no file mentions keeps its default.

pub(crate) mod budgets;
pub(crate) mod error;
pub(crate) mod files;
pub(crate) mod keys;
pub(crate) mod listed;
pub(crate) mod reader;
pub(crate) mod size;
pub(crate) mod source;

pub use budgets::{ceiling, growth};
pub use error::{ConfigError, FILE};
pub use listed::Setting;
pub use size::{ValueError, parse as size};

use std::{
    collections::BTreeMap,
    path::{Path, PathBuf},
};

use files::{gather, located, nearest};
use reader::{Table, Wrong, parse};
use source::Source;
use toml::{Spanned, de::DeTable};
use uvlet_audit::{
    ask::gate::{
        budget::{Budget, Strictness},
        waiver::Waiver,
    },
    select::selector::Selector,
};
use uvlet_record::sizes::{Coding, Measure};

/// All settings with what they are unless said otherwise, as comments.
pub const USUAL: &str = include_str!("config/usual.toml");

/// The settings of a file and of those that it extends.
#[derive(Debug)]
pub struct Config {
    /// The app of the repository that they are for, where there are several.
    pub app: Option<String>,
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
    /// The same for each app of the repository, on top of what holds for all.
    pub apps: Vec<Config>,
    /// Every value as it is written, and where.
    pub listed: Vec<Setting>,
}

impl Config {
    /// What holds where there is no file.
    pub fn none() -> Self {
        Self {
            app: None,
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
            apps: Vec::new(),
            listed: Vec::new(),
        }
    }
}

/// Reads the named file, or the nearest `uvlet.toml`, with what it extends; for one app, if asked.
pub fn load(named: Option<&Path>, app: Option<&str>) -> Result<Option<Config>, ConfigError> {
    let found = if named.is_none() { nearest() } else { None };
    let Some(path) = named.or(found.as_deref()) else {
        return match app {
            None => Ok(None),
            Some(_) => Err(ConfigError::Missing(PathBuf::from(FILE))),
        };
    };
    let mut config = read(path, &gather(path)?)?;
    let Some(name) = app else { return Ok(Some(config)) };
    let known: Vec<String> = config.apps.iter().filter_map(|app| app.app.clone()).collect();
    let chosen = config.apps.iter().position(|one| one.app.as_deref() == app);
    match chosen {
        Some(at) => Ok(Some(config.apps.swap_remove(at))),
        None => Err(ConfigError::NoApp { path: path.to_owned(), name: name.to_owned(), known }),
    }
}

fn read(path: &Path, sources: &[Source]) -> Result<Config, ConfigError> {
    let at = |wrong: Wrong| located(&sources[wrong.file], &wrong);
    let mut trees: Vec<(&Source, Spanned<DeTable<'_>>)> = Vec::new();
    for (file, source) in sources.iter().enumerate() {
        let tree = parse(&source.text);
        let tree = tree.map_err(|(byte, message)| at(Wrong { file, at: byte, message }))?;
        trees.push((source, tree));
    }
    let trees: Vec<(&Source, &Spanned<DeTable<'_>>)> =
        trees.iter().map(|(source, tree)| (*source, tree)).collect();
    let root = Table::root(&trees);
    whole(path, &root).map_err(at)
}

/// What holds for all, and for each app.
fn whole(path: &Path, root: &Table<'_>) -> Result<Config, Wrong> {
    root.only(&keys::names(&keys::root()))?;
    let apps = root.table("app")?.map(|apps| apps.tables()).transpose()?.unwrap_or_default();
    let mut named: Vec<&str> = Vec::new();
    for table in apps.iter().map(|(_, app)| app).chain([root]) {
        named.extend(table.table("budget")?.iter().flat_map(Table::names));
    }
    let mut config = settings(path, root, None, &named)?;
    config.listed = listed::all(root, None);
    for (name, own) in apps {
        own.only(&keys::names(&keys::app()))?;
        let table = root.under(&own);
        let mut app = settings(path, &table, Some(&own), &named)?;
        app.app = Some(name.to_owned());
        app.listed = listed::all(&table, Some(name));
        config.apps.push(app);
    }
    Ok(config)
}

/// The settings of a table; `app` is the part of it that is an app's own.
fn settings(
    path: &Path,
    table: &Table<'_>,
    app: Option<&Table<'_>>,
    named: &[&str],
) -> Result<Config, Wrong> {
    let mut config = Config { path: path.to_owned(), ..Config::none() };
    config.languages = table.strings("languages")?;
    config.measure = table.parsed("measure")?.unwrap_or(config.measure);
    let build = table.table("build")?;
    for build in build.iter() {
        build.only(&keys::names(&keys::build()))?;
    }
    // What stands in the app's table itself counts most.
    for build in build.iter().chain(app) {
        let file = |key| -> Result<Option<PathBuf>, Wrong> {
            let here = build.folder_of(key).unwrap_or(Path::new(""));
            Ok(build.string(key)?.map(|file| here.join(file)))
        };
        config.folder = file("folder")?.or(config.folder);
        config.description = file("description")?.or(config.description);
        config.base = build.string("base")?.map(str::to_owned).or(config.base);
        config.own.extend(build.strings("own")?);
    }
    if let Some(levels) = table.table("level")? {
        levels.only(&keys::names(&keys::level()))?;
        for coding in Coding::ALL {
            let level = levels.number(coding.name(), coding.levels())?;
            config.levels.extend(level.map(|level| (coding, level)));
        }
    }
    if let Some(groups) = table.table("group")? {
        for name in groups.names() {
            let Some(selector) = groups.selector(name)? else { continue };
            if selector.names_groups() {
                return Err(groups.wrong_at(name, "a group cannot be made of groups"));
            }
            config.groups.push((name.to_owned(), selector));
        }
    }
    if let Some(gate) = table.table("gate")? {
        gate.only(&keys::names(&keys::gate()))?;
        config.strictness = Strictness {
            allow_development: gate.flag("allow_development")?.unwrap_or(false),
            allow_estimated: gate.flag("allow_estimated")?.unwrap_or(false),
            allow_unattributed: gate.with("allow_unattributed", size::parse)?.unwrap_or(0),
            judged_at_least: gate
                .with("judged_at_least", budgets::share)?
                .unwrap_or_else(|| Strictness::default().judged_at_least),
        };
    }
    if let Some(budgets) = table.table("budget")? {
        for (name, budget) in budgets.tables()? {
            config.budgets.extend(budgets::budget(name, &budget, config.measure)?);
        }
    }
    for waiver in table.list("waiver")? {
        config.waivers.extend(budgets::waiver(&waiver, &config.budgets, named)?);
    }
    Ok(config)
}
