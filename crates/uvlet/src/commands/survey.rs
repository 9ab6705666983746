//! `uvlet survey`.

use std::path::Path;

use clap::Args;
use uvlet_audit::{
    ask::{compare::moved, survey::survey},
    lens::Lens,
};
use uvlet_read::{Coder, Options};
use uvlet_record::{Entry, Record, glob::Glob};
use uvlet_view::{
    answers::Surveyed,
    screen::Screen,
    table::{self, Detail},
    words::errors,
};

use crate::{
    advice,
    args::{build::Build, measures::MeasureChoice, show::Show},
    failure::{Failure, Status},
    kept, maps,
    reading::{Opened, Wanted, measures, open, settings},
    show::{Around, Setting, following, screen, show},
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    /// Show only the entries that this names, each in full; `*`, `**` and `?` are wildcards. May be
    /// given several times.
    #[arg(long = "entry", value_name = "NAME")]
    pub entries: Vec<String>,
    /// List every file and every load on demand.
    #[arg(long)]
    pub all: bool,
    #[command(flatten)]
    pub show: Show,
    #[command(flatten)]
    pub measure: MeasureChoice,
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let show = &arguments.show;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { path, record, measures, coder, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: false,
    })?;
    let lens = Lens::new(&record);
    let answer = survey(&lens);
    let detail = Detail { entries: entries(&arguments.entries, &record)?, all: arguments.all };
    let notices = wording::notices(&record.notices);
    let screen = screen(&show.page, &measures);
    let shown = Surveyed { answer: &answer, detail: &detail };
    let setting =
        Setting { command: "survey", record: &record, notices: &notices, screen: &screen };
    self::show(&shown, &setting, show, || {
        let maps = maps::missing(&record, &path).map(|way| format!("\n{way}"));
        let next = advice::after_survey(&answer, screen.measure, &path);
        let next = next.filter(|_| maps.is_none());
        let since = since(arguments, &path, &lens, &screen, coder);
        let after = since + &maps.unwrap_or_default() + &following(next, &show.page);
        Around { before: None, after }
    })?;
    kept::keep(&arguments.build, &path, &record);
    Ok(Status::Held)
}

/// What moved since the build before, where one was looked at that can be compared.
fn since(
    arguments: &Arguments,
    path: &Path,
    now: &Lens<'_>,
    screen: &Screen,
    coder: Coder,
) -> String {
    let said = || {
        let kept = kept::before(&arguments.build, path, now.record, screen.measure)?;
        let options = Options { coder, ..Options::default() };
        let (before, _) = uvlet_read::open(&kept.path, &options).ok()?;
        // Between two kinds of build everything moved.
        if before.mode != now.record.mode {
            return None;
        }
        let moved = moved(&Lens::new(&before), now, screen.measure).ok()?;
        Some(table::since(&kept.said(), moved.as_ref(), screen))
    };
    said().map(|line| format!("\n{line}\n")).unwrap_or_default()
}

/// The names of the entries that some globs mean.
fn entries(globs: &[String], record: &Record) -> Result<Vec<String>, Failure> {
    let mut named = Vec::new();
    for text in globs {
        let wrong = |message: String| Failure::Usage(format!("--entry {text}: {message}"));
        let glob = Glob::new(text, false);
        let names = |entry: &Entry| {
            entry
                .aliases
                .iter()
                .chain([&entry.name])
                .any(|name| name == text || glob.is_match(name))
        };
        let before = named.len();
        let matching = record.entries.iter().filter(|entry| names(entry));
        named.extend(matching.map(|entry| entry.name.clone()));
        if named.len() == before {
            let known = record.entries.iter().map(|entry| entry.name.as_str());
            return Err(wrong(format!("no entry is called that, {}", errors::remedy(text, known))));
        }
    }
    Ok(named)
}
