//! One file per command: has the build read, asks the question, shows the answer.

mod attribute;
mod demo;
mod gate;
mod help;
mod record;
mod recorder;
mod survey;

use serde::Serialize;
use uvlet_read::Options;
use uvlet_record::{Notice, Record, Target, sizes::Measure};
use uvlet_view::{json, table::Screen};

use crate::{
    cli::{self, Build, Command, Show},
    config::{self, Config},
    failure::{Failure, Status},
    output,
};

/// Runs a command.
pub fn run(command: &Command) -> Result<Status, Failure> {
    match command {
        Command::Survey(arguments) => survey::run(arguments),
        Command::Attribute(arguments) => attribute::run(arguments),
        Command::Gate(arguments) => gate::run(arguments),
        Command::Record(arguments) => record::run(arguments),
        Command::Recorder(arguments) => recorder::run(arguments),
        Command::Demo(arguments) => demo::run(arguments),
        Command::Completions(arguments) => help::completions(arguments),
        Command::Manual(arguments) => help::manual(arguments),
    }
}

/// The settings, and the build read with them.
fn open(build: &Build) -> Result<(Option<Config>, Record), Failure> {
    open_with(build, false)
}

fn open_with(build: &Build, texts: bool) -> Result<(Option<Config>, Record), Failure> {
    let config = config::load(build.config.as_deref())?;
    let from_config = config.as_ref().and_then(|config| config.folder.clone());
    let Some(path) = build.path.clone().or(from_config) else {
        return Err(Failure::Usage(
            "no build is named; name its output folder, or set `folder` under [build] in uvlet.toml".to_owned(),
        ));
    };
    let options = Options {
        label: build.label.clone(),
        stats: build
            .stats
            .clone()
            .or_else(|| config.as_ref().and_then(|config| config.stats.clone())),
        maps: build.maps.clone(),
        root: build.root.clone(),
        twins: build.twins,
        texts,
        target: build.target.map(|target| match target {
            cli::Target::Browser => Target::Browser,
            cli::Target::Server => Target::Server,
            cli::Target::Edge => Target::Edge,
            cli::Target::Worker => Target::Worker,
        }),
        base: config.as_ref().and_then(|config| config.base.clone()),
        own: config.as_ref().map(|config| config.own.clone()).unwrap_or_default(),
    };
    let record = uvlet_read::open(&path, &options)?;
    Ok((config, record))
}

/// The one measure of a table: as asked for, else as configured.
fn measure(asked: Option<Measure>, config: Option<&Config>) -> Measure {
    asked.unwrap_or_else(|| config.map_or_else(|| Config::none().measure, |config| config.measure))
}

fn taken(measure: Measure, record: &Record) -> Result<(), Failure> {
    if record.measures().any(|taken| taken == measure) {
        return Ok(());
    }
    let taken: Vec<_> = record.measures().map(Measure::name).collect();
    Err(Failure::Measure { measure: measure.to_string(), taken: taken.join(", ") })
}

fn screen(show: &Show, measure: Measure) -> Screen {
    let width = show.width.unwrap_or_else(|| output::width(show.output.as_deref()));
    Screen { width, units: show.units, measure }
}

fn as_json<A: Serialize>(
    command: &str,
    record: &Record,
    notices: &[Notice],
    answer: &A,
) -> Result<String, Failure> {
    json::answer(command, env!("CARGO_PKG_VERSION"), record, notices, answer)
        .map_err(|error| Failure::Output(error.into()))
}
