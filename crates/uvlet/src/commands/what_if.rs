//! `uvlet what-if`.

use uvlet_audit::{
    selector::Selector,
    what_if::{Change, Step, WhatIfError, what_if},
    why::subject::Subject,
};
use uvlet_record::sizes::Coding;
use uvlet_view::{markdown, table};

use super::{
    Opened, Wanted, as_json, attribute::at_levels_of, coverage, look, marked, marks_named,
    marks_wanted, measures, open, screen, settings,
};
use crate::{
    cli::{Format, WhatIf},
    failure::{Failure, Status},
    output, wording,
};

pub fn run(arguments: &WhatIf) -> Result<Status, Failure> {
    let show = &arguments.show;
    if show.format == Format::Csv {
        let said = "what-if has no form for spreadsheets: --format json holds all of it";
        return Err(Failure::Usage(said.to_owned()));
    }
    let asked = [
        (Change::Defer, &arguments.defer),
        (Change::Without, &arguments.without),
        (Change::External, &arguments.external),
    ];
    if asked.iter().all(|(_, texts)| texts.is_empty()) {
        let said = "nothing is changed; name a step, as in --defer src/dialog.js";
        return Err(Failure::Usage(said.to_owned()));
    }
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { record, measures, texts, coder, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: true,
    })?;
    let recordings = coverage::read(&arguments.recorded.coverage)?;
    // Parts of a subject are words of a selector, if it is one.
    let said = asked.iter().flat_map(|(_, texts)| texts.iter());
    let said: Vec<Selector> = said.filter_map(|text| text.parse().ok()).collect();
    let is_marked = marks_named(&said, config);
    let (record, marks) = marked(record, &*texts, &coder, marks_wanted(&is_marked, &recordings));
    let lens = look(&record, config, marks)?;
    let mut steps = Vec::new();
    for (change, texts) in asked {
        for text in texts {
            let subject = Subject::find(text, &lens)
                .map_err(|error| Failure::Usage(format!("--{} {text}: {error}", change.name())))?;
            steps.push(Step::new(change, subject));
        }
    }
    let codings: Vec<Coding> = record.encoders.keys().copied().collect();
    let coder = at_levels_of(&record, coder);
    let answer = what_if(&lens, &steps, &[], &*texts, &coder, &codings)
        .map_err(|error: WhatIfError| Failure::Usage(error.to_string()))?;
    let notices = wording::notices(&record.notices);
    let screen = screen(&show.page, &measures);
    let text = match show.format {
        Format::Json => as_json("what-if", &record, &notices, &answer)?,
        Format::Markdown => {
            markdown::what_if(&answer, &record, &screen) + &markdown::notices(&notices)
        }
        Format::Table | Format::Csv => {
            table::what_if(&answer, &record, &screen) + &table::notices(&notices, &screen)
        }
    };
    output::write(&text, show.page.output.as_deref(), show.page.color)?;
    Ok(Status::Held)
}
