//! `uvlet gate`.

use std::path::PathBuf;

use uvlet_audit::{
    gate::{Gate, Verdict, gate},
    lens::Lens,
};
use uvlet_record::Notice;
use uvlet_view::{csv, markdown, table};

use super::{Measures, Opened, Wanted, as_json, open, screen, settings};
use crate::{
    cli::{self, Format},
    config::{ConfigError, FILE},
    failure::{Failure, Status},
    output,
};

pub fn run(arguments: &cli::Gate) -> Result<Status, Failure> {
    let config = settings(&arguments.build)?;
    let config = config.ok_or_else(|| ConfigError::Missing(PathBuf::from(FILE)))?;
    if config.budgets.is_empty() {
        return Err(ConfigError::NoBudget(config.path).into());
    }
    let show = &arguments.show;
    let judged = config.budgets.iter().map(|budget| budget.measure).collect();
    let Opened { record, .. } = open(Wanted {
        build: &arguments.build,
        config: Some(&config),
        measures: Measures { list: judged, all: false },
        format: show.format,
        texts: false,
    })?;
    let answer = gate(&Lens::new(&record), &config.budgets, config.allow_development)
        .map_err(|error| Failure::Gate { config: config.path.clone(), error })?;
    let mut notices = record.notices.clone();
    notices.extend(unmatched(&answer));
    let text = match show.format {
        Format::Json => as_json("gate", &record, &notices, &answer)?,
        Format::Csv => csv::gate(&answer, &record),
        Format::Markdown => {
            let screen = screen(show, &[config.measure]);
            markdown::gate(&answer, &record, &screen) + &markdown::notices(&notices)
        }
        Format::Table => {
            let screen = screen(show, &[config.measure]);
            table::gate(&answer, &record, &screen) + &table::notices(&notices, &screen)
        }
    };
    output::write(&text, show.output.as_deref(), show.color)?;
    Ok(match answer.verdict {
        Verdict::Broken => Status::Broken,
        Verdict::Warned | Verdict::Held => Status::Held,
    })
}

/// A budget that forbids something counts 0 B of it, which a misspelt name does too.
fn unmatched(gate: &Gate) -> impl Iterator<Item = Notice> + '_ {
    gate.unmatched.iter().map(|(budget, name)| {
        let message = format!(
            "budget `{budget}` names `{name}`, which this build does not hold: it counts 0 B"
        );
        Notice::new("budget-unmatched", message, None)
    })
}
