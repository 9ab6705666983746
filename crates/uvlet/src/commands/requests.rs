//! `uvlet requests`.

use std::{collections::BTreeMap, path::PathBuf};

use clap::Args;
use uvlet_audit::{ask::requests::requests, lens::Lens};
use uvlet_read::{Coder, har};
use uvlet_record::{FileId, Texts, sizes::Coding};
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

/// Levels that servers are set to, the usual one first.
const GZIP: [u32; 5] = [6, 9, 5, 4, 1];
const BR: [u32; 6] = [4, 5, 11, 6, 3, 1];
const ZSTD: [u32; 4] = [3, 19, 10, 1];

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
    let level_of = |files: &[(FileId, u64)], coding: Coding| level(&*texts, files, coding);
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

/// The level of a coding whose sizes for some files are the nearest to what was sent.
fn level(texts: &dyn Texts, files: &[(FileId, u64)], coding: Coding) -> Option<u32> {
    let known = files.iter().map(|(id, sent)| Some((texts.emitted(*id)?, *sent)));
    let known: Vec<_> = known.collect::<Option<_>>()?;
    let levels = match coding {
        Coding::Gzip => &GZIP[..],
        Coding::Br => &BR[..],
        Coding::Zstd => &ZSTD[..],
    };
    let off = |level: u32| -> Option<u64> {
        let coder = Coder { levels: BTreeMap::from([(coding, level)]), ..Coder::default() };
        let size = |text: &[u8]| coder.encode(text, coding).ok().map(|stream| stream.len() as u64);
        known.iter().map(|(text, sent)| Some(size(text)?.abs_diff(*sent))).sum()
    };
    // Of levels that are as near the usual one, which stands first.
    let found = levels.iter().filter_map(|&level| Some((off(level)?, level)));
    let (off, level) = found.min_by_key(|(off, _)| *off)?;
    let sent: u64 = known.iter().map(|(_, sent)| sent).sum();
    // Further off than that it is another encoder, or another text.
    (off * 20 <= sent).then_some(level)
}
