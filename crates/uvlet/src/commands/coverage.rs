//! `uvlet coverage`.

use clap::Args;
use uvlet_audit::{
    ask::coverage::{CoveredBy, coverage},
    parts::recordings::TiedRecordings,
    select::{evaluate, selector::Selector},
};
use uvlet_read::TracedCosts;
use uvlet_view::{answers::Covered, words::errors};

use crate::{
    args::{build::Build, measures::MeasureChoice, show::Show, word::word},
    failure::{Failure, Status},
    reading::{Opened, Wanted, measures, open, settings, with_groups},
    recordings,
    show::{Around, Setting, screen, show},
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    /// Recordings, as LABEL=FILE or FILE; the first is that of the load.
    #[arg(value_name = "RECORDING", required = true, num_args = 1..)]
    pub recordings: Vec<String>,
    /// What a row stands for.
    #[arg(long, value_parser = word::<CoveredBy>(), default_value = "package")]
    pub by: CoveredBy,
    /// Look at what a selector names alone.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// How many rows to list; 0 lists all.
    #[arg(long, value_name = "N", default_value_t = 20)]
    pub top: usize,
    #[command(flatten)]
    pub measure: MeasureChoice,
    #[command(flatten)]
    pub show: Show,
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let show = &arguments.show;
    let within = arguments.within.as_deref().unwrap_or("everything").parse::<Selector>()?;
    let read = recordings::read(&arguments.recordings)?;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { record, measures, texts, coder, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: arguments.by == CoveredBy::Function,
    })?;
    let lens = with_groups(&record, config)?;
    let selection = evaluate::select(&within, &lens)?;
    if let Some(lack) = selection.lack() {
        let message = errors::lack(&lack);
        let selector = within.text().to_owned();
        return Err(Failure::In { selector, message });
    }
    let costs = TracedCosts::new(&record, &*texts, &coder);
    let recorded = TiedRecordings::new(&record, &read, &*texts);
    recordings::check_build(&recorded.ran, &read)?;
    let (by, within) = (arguments.by, &selection.cells);
    let answer = coverage(&lens, &recorded, &*texts, Some(&costs), by, within, measures[0]);
    let notices = wording::notices(&record.notices);
    let top = (arguments.top > 0).then_some(arguments.top);
    let screen = screen(&show.page, &measures);
    let setting =
        Setting { command: "coverage", record: &record, notices: &notices, screen: &screen };
    self::show(&Covered { answer: &answer, top }, &setting, show, Around::default)?;
    Ok(Status::Held)
}
