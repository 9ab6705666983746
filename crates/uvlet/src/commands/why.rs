//! `uvlet why`.

use clap::Args;
use uvlet_audit::{
    ask::{declaration::why_declaration, why},
    select::subject::Subject,
};
use uvlet_read::TracedCosts;
use uvlet_record::Record;
use uvlet_view::{
    answers::{Declared, Explained},
    table::Breadth,
    words::errors,
};

use crate::{
    advice,
    args::{build::Build, measures::MeasureChoice, show::Show},
    failure::{Failure, Status},
    reading::{Opened, Wanted, measures, open, settings, with_groups},
    show::{Around, Setting, following, screen, show},
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    /// A package, a module, a selector, or a declaration as PATH#NAME.
    #[arg(value_name = "TARGET")]
    pub subject: String,
    /// Begin at this entry only. May be given several times.
    #[arg(long, value_name = "ENTRY")]
    pub from: Vec<String>,
    /// Show every chain, every module that asks for it, and the files that it lies in.
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
    let Opened { path, record, measures, texts, coder } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: true,
    })?;
    let lens = with_groups(&record, config)?;
    if let Some((module, name)) = declared(&arguments.subject, &record) {
        let costs = TracedCosts::new(&record, &*texts, &coder);
        let answer =
            why_declaration(&lens, module, name, &*texts, Some(&costs)).map_err(|error| {
                let why = errors::declaration(&error);
                Failure::Usage(format!("{}: {why}", arguments.subject))
            })?;
        let notices = wording::notices(&record.notices);
        let screen = screen(&show.page, &measures);
        let setting =
            Setting { command: "why", record: &record, notices: &notices, screen: &screen };
        self::show(&Declared { answer: &answer }, &setting, show, Around::default)?;
        return Ok(Status::Held);
    }
    let subject = Subject::find(&arguments.subject, &lens)
        .map_err(|error| Failure::Usage(errors::subject(&error)))?;
    let wanted = why::Wanted { from: entries(&arguments.from, &record)? };
    let mut answer = why::why(&lens, &subject, &wanted);
    answer.description = why::description(&lens, &subject, &*texts);
    let notices = wording::notices(&record.notices);
    let breadth = if arguments.all { Breadth::All } else { Breadth::Some };
    let screen = screen(&show.page, &measures);
    let setting = Setting { command: "why", record: &record, notices: &notices, screen: &screen };
    self::show(&Explained { answer: &answer, breadth }, &setting, show, || {
        let next = advice::next("waste", &path, "");
        Around { before: None, after: following(next, &show.page) }
    })?;
    Ok(Status::Held)
}

/// `path#name`; a path may itself hold the sign.
fn declared<'t>(text: &'t str, record: &Record) -> Option<(&'t str, &'t str)> {
    let (module, name) = text.rsplit_once('#').filter(|(module, _)| !module.is_empty())?;
    let is_path = record.modules.iter().any(|one| one.path == text);
    let is_selector = text.contains('(');
    (!is_path && !is_selector && !name.is_empty()).then_some((module, name))
}

/// The entries that chains begin at, by their own names.
fn entries(asked: &[String], record: &Record) -> Result<Vec<String>, Failure> {
    let mut names = Vec::new();
    for text in asked {
        let is_it = |name: &String| name == text;
        let found = record
            .entries
            .iter()
            .filter(|entry| is_it(&entry.name) || entry.aliases.iter().any(is_it));
        let before = names.len();
        names.extend(found.map(|entry| entry.name.clone()));
        if names.len() == before {
            let known = record.entries.iter().map(|entry| entry.name.as_str());
            let remedy = errors::remedy(text, known);
            return Err(Failure::Usage(format!(
                "--from {text}: no entry is called that, {remedy}"
            )));
        }
    }
    Ok(names)
}
