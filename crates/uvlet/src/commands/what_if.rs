//! `uvlet what-if`.

use clap::Args;
use uvlet_audit::{
    ask::{
        plan_text,
        suggest::{self, Means},
        what_if::{Asked, what_if},
    },
    select::selector::Selector,
};
use uvlet_record::sizes::Coding;
use uvlet_view::{
    answers::{Predicted, Suggested},
    form::Form,
    table,
    words::errors,
};

use crate::{
    advice,
    args::{build::Build, measures::MeasureChoice, recorded::Recorded, show::Show, steps::Steps},
    failure::{Failure, Status},
    maps, output,
    reading::{
        Opened, Wanted, at_levels_of, look, marked, marks_named, marks_wanted, measures, open,
        settings,
    },
    recordings,
    show::{Around, Setting, following, screen, show},
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    #[command(flatten)]
    pub steps: Steps,
    /// Weigh only the bytes that this selector names.
    #[arg(long = "in", value_name = "SELECTOR", conflicts_with = "suggest")]
    pub within: Option<String>,
    /// Visits in this order, by entry or route: what does the second page add to the first?
    #[arg(long, value_name = "ENTRY", value_delimiter = ',')]
    pub visits: Vec<String>,
    /// Try by itself what the code offers, and show what wins most, with the command that repeats it.
    #[arg(long)]
    pub suggest: bool,
    /// Write the plan as lines of the bundler's configuration, as far as it can be said there.
    #[arg(long, conflicts_with = "suggest")]
    pub as_config: bool,
    #[command(flatten)]
    pub recorded: Recorded,
    #[command(flatten)]
    pub measure: MeasureChoice,
    #[command(flatten)]
    pub show: Show,
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let show = &arguments.show;
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
    if arguments.as_config && show.format != Form::Table {
        let said = "--as-config prints lines for the bundler's configuration and has no other form; drop --format";
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
    let recordings = recordings::read(&arguments.recorded.coverage)?;
    recordings::ran_in(&record, &*texts, &recordings)?;
    let is_marked = marks_named(&steps.selectors(), config);
    let (record, marks) = marked(record, &*texts, &coder, marks_wanted(&is_marked, &recordings));
    let lens = look(&record, config, marks)?;
    let codings: Vec<Coding> = record.encoders.keys().copied().collect();
    let coder = at_levels_of(&record, coder);
    let notices = wording::notices(&record.notices);
    let screen = screen(&show.page, &measures);
    let setting =
        Setting { command: "what-if", record: &record, notices: &notices, screen: &screen };
    if arguments.suggest {
        let measure = measures[0];
        let means = Means { texts: &*texts, sizer: &coder, codings: &codings, measure };
        let answer = suggest::suggest(&lens, means);
        let build = path.display().to_string();
        self::show(&Suggested { answer: &answer, build: &build }, &setting, show, || {
            let before = maps::missing(&record, &path).map(|way| format!("\n{way}"));
            let next = advice::after_change(&path).filter(|_| before.is_none());
            Around { before, after: following(next, &show.page) }
        })?;
        return Ok(Status::Held);
    }
    let steps = steps.find(&lens, &*texts)?;
    let asked = Asked { visits: &arguments.visits, within: within.as_ref() };
    let answer = what_if(&lens, &steps, asked, &*texts, &coder, &codings)
        .map_err(|error| Failure::Usage(errors::what_if(&error)))?;
    if arguments.as_config {
        let text = table::plan_text(&plan_text::plan_text(&record, &steps), &record);
        output::write(&text, show.page.output.as_deref(), show.page.color)?;
    } else {
        self::show(&Predicted { answer: &answer }, &setting, show, || {
            let after = following(advice::after_change(&path), &show.page);
            Around { before: None, after }
        })?;
    }
    Ok(Status::Held)
}
