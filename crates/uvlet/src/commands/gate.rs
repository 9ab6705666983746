//! `uvlet gate`.

pub(crate) mod asked;
pub(crate) mod judged;
pub(crate) mod settings;

use std::path::PathBuf;

use jiff::{Timestamp, civil::Date, tz::TimeZone};
use uvlet_audit::ask::gate::verdict::Verdict;
use uvlet_view::{
    csv, json, junit, markdown, sarif,
    table::{self, Shown},
};

use super::{advice, as_json, following, screen, settings as configured};
use crate::{
    cli::{self, Form, GateFormat, Listed},
    config::{ConfigError, FILE},
    failure::{Failure, Status},
    output,
};

pub fn run(arguments: &cli::Gate) -> Result<Status, Failure> {
    let config = configured(&arguments.build)?;
    let mut config = config.ok_or_else(|| ConfigError::Missing(PathBuf::from(FILE)))?;
    let path = config.path.clone();
    let mut apps = match config.apps.is_empty() {
        true => vec![config],
        false => std::mem::take(&mut config.apps),
    };
    asked::limits(&mut apps, &arguments.tried)?;
    if arguments.show_settings {
        return settings::show(&apps, arguments);
    }
    if apps.iter().all(|config| config.budgets.is_empty()) {
        return Err(ConfigError::NoBudget(path).into());
    }
    asked::only(&mut apps, &arguments.only)?;
    let judged = judged::all(arguments, &apps)?;
    let answer = &judged.gate;
    let shown = match arguments.listed {
        Listed::All => Shown::All,
        Listed::Telling => Shown::Telling,
        Listed::Broken => Shown::Broken,
    };
    let measures: Vec<_> = apps.iter().map(|config| config.measure).take(1).collect();
    let screen = screen(&arguments.page, &measures);
    let label = judged.label.as_str();
    let (notices, record) = (&judged.notices, &judged.record);
    let formed = |form: Form| -> Result<String, Failure> {
        Ok(match form {
            Form::Json => as_json("gate", record, notices, &json::gate::Gate::from(answer))?,
            Form::Csv => csv::gate(answer, record),
            Form::Markdown => {
                let folds = markdown::folds(&judged.entries, &screen);
                let text = markdown::gate(answer, label, record, &screen, shown);
                text + &folds + &markdown::notices(notices)
            }
            Form::Junit => junit::gate(answer, label, &screen),
            Form::Sarif => sarif::gate(answer, label, &screen),
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
    if !arguments.quiet {
        let text = match arguments.format {
            GateFormat::Table => {
                let owners = advice::owners_of_gate(answer, &judged.paths);
                table::gate(answer, label, record, &screen, shown)
                    + &owners.map(|owners| format!("{owners}\n")).unwrap_or_default()
                    + &table::notices(notices, &screen)
                    + &following(advice::after_gate(answer, &judged.paths), &arguments.page)
            }
            GateFormat::Json => formed(Form::Json)?,
            GateFormat::Csv => formed(Form::Csv)?,
            GateFormat::Markdown => formed(Form::Markdown)?,
            GateFormat::Junit => formed(Form::Junit)?,
            GateFormat::Sarif => formed(Form::Sarif)?,
        };
        output::write(&text, arguments.page.output.as_deref(), arguments.page.color)?;
    }
    Ok(match answer.verdict {
        Verdict::Broken => Status::Broken,
        _ if !all_written => Status::NoAnswer,
        Verdict::Undecided => Status::NoAnswer,
        Verdict::Warned | Verdict::Waived | Verdict::Unjudged | Verdict::Held => Status::Held,
    })
}

/// The day that waivers are held against: the one that was named, else today in UTC.
pub(super) fn today(named: Option<Date>) -> Date {
    named.unwrap_or_else(|| Timestamp::now().to_zoned(TimeZone::UTC).date())
}
