//! `uvlet requests`.

use std::collections::BTreeMap;

use uvlet_audit::{ask::requests::requests, lens::Lens};
use uvlet_read::{Coder, har};
use uvlet_record::{FileId, Texts, sizes::Coding};
use uvlet_view::{json, markdown, table};

use super::{Opened, Wanted, as_json, measures, open, screen, settings, with_groups};
use crate::{
    cli::{Format, Requests},
    failure::{Failure, Status},
    output, wording,
};

/// Levels that servers are set to, the usual one first.
const GZIP: [u32; 5] = [6, 9, 5, 4, 1];
const BR: [u32; 6] = [4, 5, 11, 6, 3, 1];
const ZSTD: [u32; 4] = [3, 19, 10, 1];

pub fn run(arguments: &Requests) -> Result<Status, Failure> {
    let show = &arguments.show;
    if show.format == Format::Csv {
        let said = "requests has no form for spreadsheets: --format json holds all of it";
        return Err(Failure::Usage(said.to_owned()));
    }
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
    let text = match show.format {
        Format::Json => {
            as_json("requests", &record, &notices, &json::requests::Requests::from(&answer))?
        }
        Format::Markdown => markdown::requests(&answer, &screen) + &markdown::notices(&notices),
        Format::Table | Format::Csv => {
            table::requests(&answer, &record, &screen) + &table::notices(&notices, &screen)
        }
    };
    output::write(&text, show.page.output.as_deref(), show.page.color)?;
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
