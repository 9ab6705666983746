//! `uvlet survey`.

use uvlet_audit::{lens::Lens, survey::survey};
use uvlet_view::{csv, markdown, table};

use super::{as_json, measure, open, screen, taken};
use crate::{
    cli::{Format, Survey},
    failure::{Failure, Status},
    output,
};

pub fn run(arguments: &Survey) -> Result<Status, Failure> {
    let (config, record) = open(&arguments.build)?;
    let measure = measure(arguments.measure.measure, config.as_ref());
    taken(measure, &record)?;
    let answer = survey(&Lens::new(&record));
    let show = &arguments.show;
    let text = match show.format {
        Format::Json => as_json("survey", &record, &record.notices, &answer)?,
        Format::Csv => csv::survey(&answer),
        Format::Markdown => {
            let screen = screen(show, measure);
            markdown::survey(&answer, &record, &screen) + &markdown::notices(&record.notices)
        }
        Format::Table => {
            let screen = screen(show, measure);
            table::survey(&answer, &record, &screen) + &table::notices(&record.notices, &screen)
        }
    };
    output::write(&text, show.output.as_deref(), show.color)?;
    Ok(Status::Held)
}
