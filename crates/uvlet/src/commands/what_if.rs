//! `uvlet what-if`.

use uvlet_audit::{
    ask::{
        plan_text,
        suggest::{self, Means},
        what_if::{Asked, what_if},
    },
    select::selector::Selector,
};
use uvlet_record::sizes::Coding;
use uvlet_view::{json, markdown, table, words::errors};

use super::{
    Opened, Wanted, as_json, attribute::at_levels_of, coverage, look, maps, marked, marks_named,
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
    let steps = &arguments.steps;
    if arguments.suggest != steps.is_empty() && arguments.visits.is_empty() {
        let said = match arguments.suggest {
            true => "--suggest tries steps by itself: leave them out, or leave it out",
            false => {
                "nothing is changed; name a step, as in --defer src/dialog.js, or try --suggest"
            }
        };
        return Err(Failure::Usage(said.to_owned()));
    }
    let within = arguments.within.as_deref().map(str::parse::<Selector>).transpose()?;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { path, record, measures, texts, coder } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: true,
    })?;
    let recordings = coverage::read(&arguments.recorded.coverage)?;
    coverage::ran_in(&record, &*texts, &recordings)?;
    let is_marked = marks_named(&steps.selectors(), config);
    let (record, marks) = marked(record, &*texts, &coder, marks_wanted(&is_marked, &recordings));
    let lens = look(&record, config, marks)?;
    let codings: Vec<Coding> = record.encoders.keys().copied().collect();
    let coder = at_levels_of(&record, coder);
    let notices = wording::notices(&record.notices);
    let screen = screen(&show.page, &measures);
    let text = if arguments.suggest {
        let measure = measures[0];
        let means = Means { texts: &*texts, sizer: &coder, codings: &codings, measure };
        let answer = suggest::suggest(&lens, means);
        let build = path.display().to_string();
        match show.format {
            Format::Json => {
                as_json("what-if", &record, &notices, &json::what_if::Suggestions::from(&answer))?
            }
            Format::Markdown => {
                markdown::suggestions(&answer, &screen) + &markdown::notices(&notices)
            }
            Format::Table | Format::Csv => {
                let maps = maps::missing(&record, &path).map(|way| format!("\n{way}"));
                table::suggestions(&answer, &build, &record, &screen)
                    + &maps.unwrap_or_default()
                    + &table::notices(&notices, &screen)
            }
        }
    } else {
        let steps = steps.find(&lens)?;
        let asked = Asked { visits: &arguments.visits, within: within.as_ref() };
        let answer = what_if(&lens, &steps, asked, &*texts, &coder, &codings)
            .map_err(|error| Failure::Usage(errors::what_if(&error)))?;
        match (arguments.as_config, show.format) {
            (true, _) => table::plan_text(&plan_text::plan_text(&record, &steps), &record),
            (false, Format::Json) => {
                as_json("what-if", &record, &notices, &json::what_if::WhatIf::from(&answer))?
            }
            (false, Format::Markdown) => {
                markdown::what_if(&answer, &record, &screen) + &markdown::notices(&notices)
            }
            (false, Format::Table | Format::Csv) => {
                table::what_if(&answer, &record, &screen) + &table::notices(&notices, &screen)
            }
        }
    };
    output::write(&text, show.page.output.as_deref(), show.page.color)?;
    Ok(Status::Held)
}
