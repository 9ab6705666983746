//! `uvlet survey`.

use uvlet_audit::{lens::Lens, survey::survey};
use uvlet_view::{csv, markdown, table};

use super::{Opened, Wanted, as_json, measures, open, screen, settings};
use crate::{
    cli::{Format, Survey},
    failure::{Failure, Status},
    output,
};

pub fn run(arguments: &Survey) -> Result<Status, Failure> {
    let show = &arguments.show;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { record, measures, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        texts: false,
    })?;
    let answer = survey(&Lens::new(&record));
    let text = match show.format {
        Format::Json => as_json("survey", &record, &record.notices, &answer)?,
        Format::Csv => csv::survey(&answer, &record),
        Format::Markdown => {
            let screen = screen(show, &measures);
            markdown::survey(&answer, &record, &screen) + &markdown::notices(&record.notices)
        }
        Format::Table => {
            let screen = screen(show, &measures);
            table::survey(&answer, &record, &screen) + &table::notices(&record.notices, &screen)
        }
    };
    output::write(&text, show.output.as_deref(), show.color)?;
    Ok(Status::Held)
}
