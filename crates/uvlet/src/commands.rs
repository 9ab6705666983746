//! One file per command: has the build read, asks the question, shows the answer.

pub(crate) mod advice;
pub(crate) mod attribute;
pub(crate) mod choose;
pub(crate) mod compare;
pub(crate) mod config;
pub(crate) mod coverage;
pub(crate) mod demo;
pub(crate) mod gate;
pub(crate) mod help;
pub(crate) mod kept;
pub(crate) mod maps;
pub(crate) mod plugin;
#[cfg(feature = "post")]
pub(crate) mod post;
pub(crate) mod propose;
pub(crate) mod record;
pub(crate) mod report;
pub(crate) mod requests;
pub mod steps;
pub(crate) mod survey;
pub(crate) mod waste;
pub(crate) mod what_if;
pub(crate) mod why;

use std::{
    collections::BTreeMap,
    mem::ManuallyDrop,
    path::{Path, PathBuf},
    sync::Arc,
};

use choose::Chosen;
use clap::Parser;
use serde::Serialize;
use uvlet_audit::{
    find::marks,
    lens::Lens,
    parts::marks::Marks,
    select::{groups, selector::Selector, words::Plain},
};
use uvlet_read::{Cache, Coder, Options, TracedCosts};
use uvlet_record::{
    Record, Recording, Target, Texts,
    sizes::{Coding, Measure},
};
use uvlet_view::{json, screen::Screen};

use crate::{
    cli::{self, Asked, Build, Cli, Command, Format, MeasureChoice, Page},
    config::{Config, FILE, load},
    failure::{Failure, Status},
    output,
    progress::Watch,
};

/// Runs the command of a line without one: the survey, where there is something to survey.
pub fn run_alone() -> Result<Status, Failure> {
    let here = Path::new(".");
    let is_there = uvlet_read::project::is_project(here) || here.join(FILE).is_file();
    let words = ["uvlet", "survey"];
    match Cli::try_parse_from(words) {
        Ok(Cli { command: Some(command) }) if is_there => run(&command),
        _ => help::usage(),
    }
}

/// Runs a command.
pub fn run(command: &Command) -> Result<Status, Failure> {
    match command {
        Command::Survey(arguments) => survey::run(arguments),
        Command::Attribute(arguments) => attribute::run(arguments),
        Command::Waste(arguments) => waste::run(arguments),
        Command::Why(arguments) => why::run(arguments),
        Command::Coverage(arguments) => coverage::run(arguments),
        Command::Requests(arguments) => requests::run(arguments),
        Command::WhatIf(arguments) => what_if::run(arguments),
        Command::Compare(arguments) => compare::run(arguments),
        Command::Gate(arguments) => gate::run(arguments),
        Command::Propose(arguments) => propose::run(arguments),
        Command::Record(arguments) => record::run(arguments),
        #[cfg(feature = "post")]
        Command::Post(arguments) => post::run(arguments),
        Command::Config(arguments) => config::run(arguments),
        Command::Report(arguments) => report::run(arguments),
        Command::Plugin(arguments) => plugin::run(arguments),
        Command::Demo(arguments) => demo::run(arguments),
        Command::Completions(arguments) => help::completions(arguments),
        Command::Manual(arguments) => help::manual(arguments),
    }
}

/// The settings of the build's command.
fn settings(build: &Build) -> Result<Option<Config>, Failure> {
    Ok(load(build.config.as_deref(), build.app.as_deref())?)
}

/// What an opened build is read with.
struct Wanted<'a> {
    build: &'a Build,
    config: Option<&'a Config>,
    /// What sizes are needed in, besides the one that programs always find.
    measures: Measures,
    format: Format,
    /// Keep the texts in the record.
    sources: bool,
}

/// A build that was read.
struct Opened {
    path: PathBuf,
    /// What sizes are shown in, the table's own first.
    measures: Vec<Measure>,
    /// The process ends with the answer: giving a large record back piece by piece only takes time.
    record: ManuallyDrop<Record>,
    texts: Box<dyn Texts>,
    coder: Coder,
}

/// Reads the build, and makes sure that it has what is wanted.
fn open(wanted: Wanted<'_>) -> Result<Opened, Failure> {
    let Wanted { build, config, measures: Measures { mut list, all }, format, sources } = wanted;
    let Chosen { path, is_found } = choose::build(build.path.as_deref(), config)?;
    let mut levels = config.map(|config| config.levels.clone()).unwrap_or_default();
    levels.extend(build.levels.iter().copied());
    let coder = coder(build, &levels, &taken(&list, format));
    let options = Options {
        label: build.label.clone(),
        description: build
            .description
            .clone()
            .or_else(|| config.and_then(|config| config.description.clone())),
        maps: build.maps.clone(),
        root: build.root.clone(),
        precompressed: build.precompressed,
        sources,
        coder,
        target: build.target.map(|target| match target {
            cli::Target::Browser => Target::Browser,
            cli::Target::Server => Target::Server,
            cli::Target::Edge => Target::Edge,
            cli::Target::Worker => Target::Worker,
        }),
        base: config.and_then(|config| config.base.clone()),
        own: config.map(|config| config.own.clone()).unwrap_or_default(),
    };
    let watch = Watch::over(&options.coder.progress);
    let read = uvlet_read::open(&path, &options);
    drop(watch);
    let (mut record, texts) = read?;
    record.notices.extend(choose::remarks(&path, is_found, &record));
    record.notices.sort();
    let held: Vec<Measure> = record.measures().collect();
    if let Some(&measure) = list.iter().find(|measure| !all && !held.contains(measure)) {
        let taken: Vec<_> = held.iter().map(|measure| measure.name()).collect();
        return Err(Failure::Measure { path, measure, taken: taken.join(", ") });
    }
    list.retain(|measure| held.contains(measure));
    for (coding, asked) in levels {
        let held = record.encoders.get(&coding).map_or(asked, |encoder| encoder.level);
        if held != asked {
            return Err(Failure::Level { path, coding, held, asked });
        }
    }
    // A folder that is read with precompressed copies counts them, even if there are none.
    if build.precompressed
        && record.encoders.keys().any(|&coding| record.precompressed.get(coding).is_none())
    {
        return Err(Failure::NoPrecompressed(path));
    }
    Ok(Opened {
        path,
        measures: list,
        record: ManuallyDrop::new(record),
        texts,
        coder: options.coder,
    })
}

/// A look at a record with the groups of the settings.
fn with_groups<'r>(record: &'r Record, config: Option<&Config>) -> Result<Lens<'r>, Failure> {
    look(record, config, Marks::default())
}

/// A look at a record with its marks and the groups of the settings.
fn look<'r>(
    record: &'r Record,
    config: Option<&Config>,
    marks: Marks,
) -> Result<Lens<'r>, Failure> {
    let groups = config.map_or(&[][..], |config| config.groups.as_slice());
    Ok(groups::with_groups(Lens::new(record).with_marks(marks), groups)?)
}

/// The marks that selectors and the groups of the settings speak of.
fn marks_named<'s>(
    selectors: impl IntoIterator<Item = &'s Selector>,
    config: Option<&'s Config>,
) -> Vec<Plain> {
    let groups = config.map_or(&[][..], |config| config.groups.as_slice());
    let all: Vec<&Selector> =
        selectors.into_iter().chain(groups.iter().map(|(_, selector)| selector)).collect();
    let marks = [Plain::Leftovers, Plain::NeverRan];
    marks.into_iter().filter(|mark| all.iter().any(|one| one.names(*mark))).collect()
}

/// What is to be marked for selectors that speak of it.
fn marks_wanted<'a>(named: &[Plain], recordings: &'a [Recording]) -> marks::Wanted<'a> {
    let is_recorded = named.contains(&Plain::NeverRan) && !recordings.is_empty();
    marks::Wanted {
        leftovers: named.contains(&Plain::Leftovers),
        recordings: is_recorded.then_some(recordings),
        exports: false,
    }
}

/// A record cut by the marks that are wanted.
fn marked(
    record: ManuallyDrop<Record>,
    texts: &dyn Texts,
    coder: &Coder,
    wanted: marks::Wanted<'_>,
) -> (ManuallyDrop<Record>, Marks) {
    if !wanted.leftovers && wanted.recordings.is_none() && !wanted.exports {
        return (record, Marks::default());
    }
    let costs = TracedCosts::new(&record, texts, coder);
    let (record, marks) = marks::marked(&record, texts, Some(&costs), wanted);
    (ManuallyDrop::new(record), marks)
}

/// How sizes in these measures are taken.
fn coder(build: &Build, levels: &BTreeMap<Coding, u32>, measures: &[Measure]) -> Coder {
    let codings = measures.iter().filter_map(|measure| measure.coding());
    let levels = codings
        .map(|coding| (coding, levels.get(&coding).copied().unwrap_or_else(|| coding.level())));
    let folder = dirs::cache_dir().filter(|_| !build.no_cache);
    let cache = folder.map(|folder| Arc::new(Cache::new(folder.join("uvlet"))));
    Coder { levels: levels.collect(), cache, ..Coder::default() }
}

/// What sizes are needed in.
struct Measures {
    list: Vec<Measure>,
    /// Every measure was asked for: of a record, those that it holds.
    all: bool,
}

/// What sizes are shown in: as asked for, else as configured. The first is the table's own.
fn measures(choice: &MeasureChoice, config: Option<&Config>) -> Measures {
    let usual = config.map_or_else(|| Config::none().measure, |config| config.measure);
    let asked = choice.measures.iter().flat_map(|asked| match asked {
        Asked::All => [&[usual], &Measure::ALL[..]].concat(),
        Asked::One(measure) => vec![*measure],
    });
    let mut list: Vec<Measure> = Vec::new();
    for measure in asked {
        if !list.contains(&measure) {
            list.push(measure);
        }
    }
    if list.is_empty() {
        list.push(usual);
    }
    Measures { list, all: choice.measures.contains(&Asked::All) }
}

/// What sizes are taken in besides those that are shown: programs find gzip in every answer.
fn taken(shown: &[Measure], format: Format) -> Vec<Measure> {
    let gzip = Measure::Coded(Coding::Gzip);
    match format {
        Format::Json | Format::Csv if !shown.contains(&gzip) => [shown, &[gzip]].concat(),
        _ => shown.to_owned(),
    }
}

fn screen(page: &Page, measures: &[Measure]) -> Screen {
    let width = page.width.unwrap_or_else(|| output::width(page.output.as_deref()));
    let (&measure, also) = measures.split_first().unwrap_or((&Measure::Emitted, &[]));
    Screen { width, units: page.units, measure, also: also.to_owned(), brief: page.brief }
}

/// What to ask next, for a person who sees the answer.
fn following(next: Option<String>, page: &Page) -> String {
    let next = next.filter(|_| output::is_seen(page.output.as_deref()) && !page.brief);
    next.map(|next| format!("\n{next}\n")).unwrap_or_default()
}

fn as_json<A: Serialize>(
    command: &str,
    record: &Record,
    notices: &[uvlet_view::Notice],
    answer: &A,
) -> Result<String, Failure> {
    json::answer(command, env!("CARGO_PKG_VERSION"), record, notices, answer)
        .map_err(|error| Failure::Output(error.into()))
}
