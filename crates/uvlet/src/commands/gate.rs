//! `uvlet gate`.

use std::{io, path::PathBuf};

use jiff::{Timestamp, civil::Date, tz::TimeZone};
use uvlet_audit::{
    compare,
    gate::{About, Aids, Scope, Verdict, gate},
    nearest::remedy,
};
use uvlet_record::{SavedTexts, Texts, sizes::Measure};
use uvlet_view::{
    csv, junit, markdown, sarif,
    table::{self, Shown},
};

use super::{
    Measures, Opened, Wanted, advice, as_json, following, open, screen, settings, with_groups,
};
use crate::{
    cli::{self, Form, Format, Listed},
    config::{self, Config, ConfigError, FILE},
    failure::{Failure, Status},
    output, wording,
};

pub fn run(arguments: &cli::Gate) -> Result<Status, Failure> {
    let config = settings(&arguments.build)?;
    let mut config = config.ok_or_else(|| ConfigError::Missing(PathBuf::from(FILE)))?;
    if config.budgets.is_empty() {
        return Err(ConfigError::NoBudget(config.path).into());
    }
    keep_only(&mut config, &arguments.only)?;
    for tried in &arguments.tried {
        try_limit(&mut config, tried)
            .map_err(|message| Failure::Usage(format!("--try {tried}: {message}")))?;
    }
    let show = &arguments.show;
    let judged: Vec<Measure> = config.budgets.iter().map(|budget| budget.measure).collect();
    let Opened { path, record, texts, .. } = open(Wanted {
        build: &arguments.build,
        config: Some(&config),
        measures: Measures { list: judged.clone(), all: false },
        format: show.format,
        sources: config.budgets.iter().any(|budget| budget.scope.asks_for_edges()),
    })?;
    let base = base(arguments, &config)?;
    if let Some(base) = &base {
        compare::check(&base.record, &record, &judged)?;
    }
    let base_lens =
        base.as_ref().map(|base| with_groups(&base.record, Some(&config))).transpose()?;
    let no_texts = SavedTexts::default();
    let aids = Aids {
        texts: &*texts,
        languages: &config.languages,
        texts_of_base: base.as_ref().map_or(&no_texts as &dyn Texts, |base| &*base.texts),
        base: base_lens.as_ref(),
        waivers: &config.waivers,
        today: today(arguments.today),
    };
    let answer =
        gate(&with_groups(&record, Some(&config))?, &config.budgets, config.strictness, aids)
            .map_err(|error| Failure::Gate { config: config.path.clone(), error })?;
    let notices = wording::notices(&[record.notices.clone(), answer.notices.clone()].concat());
    let shown = match arguments.listed {
        Listed::All => Shown::All,
        Listed::Telling => Shown::Telling,
    };
    let screen = screen(show, &[config.measure]);
    let formed = |form: Form| -> Result<String, Failure> {
        Ok(match form {
            Form::Json => as_json("gate", &record, &notices, &answer)?,
            Form::Csv => csv::gate(&answer, &record),
            Form::Markdown => {
                markdown::gate(&answer, &record, &screen, shown) + &markdown::notices(&notices)
            }
            Form::Junit => junit::gate(&answer, &record, &screen)
                .map_err(|error| Failure::Output(io::Error::other(error)))?,
            Form::Sarif => {
                sarif::gate(&answer, &record, &screen, &config.path.display().to_string())
            }
        })
    };
    // What cannot be written keeps no other file from being written.
    let mut all_written = true;
    for (form, path) in &arguments.write {
        let written = formed(*form).and_then(|text| output::replace(path, text.as_bytes()));
        if let Err(failure) = written {
            output::complain(&failure);
            all_written = false;
        }
    }
    let text = match show.format {
        Format::Json => formed(Form::Json)?,
        Format::Csv => formed(Form::Csv)?,
        Format::Markdown => formed(Form::Markdown)?,
        Format::Table => {
            table::gate(&answer, &record, &screen, shown)
                + &table::notices(&notices, &screen)
                + &following(advice::after_gate(&answer, &path), show)
        }
    };
    output::write(&text, show.output.as_deref(), show.color)?;
    Ok(match answer.verdict {
        Verdict::Broken => Status::Broken,
        _ if !all_written => Status::NoAnswer,
        Verdict::Undecided => Status::NoAnswer,
        Verdict::Warned | Verdict::Waived | Verdict::Unjudged | Verdict::Held => Status::Held,
    })
}

/// Leaves the budgets of some names, and what is waived of them.
fn keep_only(config: &mut Config, names: &[String]) -> Result<(), Failure> {
    if names.is_empty() {
        return Ok(());
    }
    for name in names {
        if !config.budgets.iter().any(|budget| budget.name == *name) {
            let known = config.budgets.iter().map(|budget| budget.name.as_str());
            let remedy = remedy(name, known);
            let message = format!("--only {name}: no budget is called that, {remedy}");
            return Err(Failure::Usage(message));
        }
    }
    config.budgets.retain(|budget| names.contains(&budget.name));
    let budgets = &config.budgets;
    config.waivers.retain(|waiver| match &waiver.about {
        About::Budget { name, .. } => names.contains(name),
        About::Finding(_) => budgets.iter().any(|one| matches!(one.scope, Scope::Waste(_))),
    });
    Ok(())
}

/// Sets one limit of a budget as if the settings said it.
fn try_limit(config: &mut Config, tried: &str) -> Result<(), String> {
    const KEYS: [&str; 4] = ["at_most", "warn_above", "grow_at_most", "files_at_most"];
    let written = || "write it like `start.at_most=150 kB`".to_owned();
    let (place, value) = tried.split_once('=').ok_or_else(written)?;
    let (name, key) = place.trim().rsplit_once('.').ok_or_else(written)?;
    let value = value.trim();
    let known: Vec<String> = config.budgets.iter().map(|budget| budget.name.clone()).collect();
    let Some(budget) = config.budgets.iter_mut().find(|budget| budget.name == name) else {
        let remedy = remedy(name, known.iter().map(String::as_str));
        return Err(format!("no budget is called `{name}`, {remedy}"));
    };
    if matches!(budget.scope, Scope::Absent(_)) {
        return Err(format!("`{name}` forbids something, and takes no limit"));
    }
    match key {
        "at_most" => budget.at_most = Some(config::size(value)?),
        "warn_above" => budget.warn_above = Some(config::size(value)?),
        "grow_at_most" => budget.grow_at_most = Some(config::growth(value)?),
        "files_at_most" => {
            let number = value.parse().map_err(|_| "takes a whole number of files".to_owned())?;
            budget.files_at_most = Some(number);
        }
        _ => return Err(format!("no limit is called `{key}`, {}", remedy(key, KEYS.into_iter()))),
    }
    Ok(())
}

/// The day that waivers are held against: the one that was named, else today in UTC.
pub(super) fn today(named: Option<Date>) -> Date {
    named.unwrap_or_else(|| Timestamp::now().to_zoned(TimeZone::UTC).date())
}

/// The build that growth is held against.
fn base(arguments: &cli::Gate, config: &Config) -> Result<Option<Opened>, Failure> {
    let Some(against) = &arguments.against else { return Ok(None) };
    if arguments.against_optional && !against.exists() {
        return Ok(None);
    }
    let build = cli::Build {
        path: Some(against.clone()),
        description: None,
        label: None,
        ..arguments.build.clone()
    };
    let judged = config.budgets.iter().map(|budget| budget.measure).collect();
    let opened = open(Wanted {
        build: &build,
        config: Some(config),
        measures: Measures { list: judged, all: false },
        format: Format::Table,
        sources: config.budgets.iter().any(|budget| budget.scope.asks_for_edges()),
    })?;
    Ok(Some(opened))
}
