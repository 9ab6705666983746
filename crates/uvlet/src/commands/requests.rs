//! `uvlet requests`.

use std::{collections::BTreeMap, path::PathBuf};

use clap::Args;
use uvlet_audit::{
    ask::requests::{levels::level, requests},
    lens::Lens,
};
use uvlet_read::{Coder, har};
use uvlet_record::{FileId, sizes::Coding};
use uvlet_view::answers::Requested;

use crate::{
    args::{build::Build, measures::MeasureChoice, show::Show},
    failure::{Failure, Status},
    reading::{Opened, Wanted, measures, open, settings, with_groups},
    show::{Around, Setting, screen, show},
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    /// A network log, as browsers export it (HAR 1.2).
    #[arg(value_name = "LOG")]
    pub log: PathBuf,
    /// Exit with 1 where a page asked for something else than was foretold of its startup.
    #[arg(long)]
    pub must_match: bool,
    #[command(flatten)]
    pub measure: MeasureChoice,
    #[command(flatten)]
    pub show: Show,
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let show = &arguments.show;
    let log = har::read(&arguments.log)
        .map_err(|error| Failure::Usage(format!("{}: {error}", arguments.log.display())))?;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { record, measures, texts, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: false,
    })?;
    let lens: Lens<'_> = with_groups(&record, config)?;
    let size_at = |text: &[u8], coding: Coding, level: u32| {
        let coder = Coder { levels: BTreeMap::from([(coding, level)]), ..Coder::default() };
        coder.encode(text, coding).ok().map(|stream| stream.len() as u64)
    };
    let level_of =
        |files: &[(FileId, u64)], coding: Coding| level(&*texts, files, coding, &size_at);
    let answer = requests(&lens, &log, measures[0], &level_of);
    let notices = wording::notices(&record.notices);
    let screen = screen(&show.page, &measures);
    let setting =
        Setting { command: "requests", record: &record, notices: &notices, screen: &screen };
    self::show(&Requested { answer: &answer }, &setting, show, Around::default)?;
    match arguments.must_match && !answer.is_as_foretold() {
        true => Ok(Status::Broken),
        false => Ok(Status::Held),
    }
}
