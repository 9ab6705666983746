//! `uvlet coverage`.

use std::path::{Path, PathBuf};

use uvlet_audit::{
    ask::{
        attribute::By,
        coverage::{CoveredBy, coverage},
    },
    parts::recordings::{Ran, Unmatched, ran},
    select::{evaluate, selector::Selector},
};
use uvlet_read::{TracedCosts, recordings};
use uvlet_record::{Record, Recording, Texts};
use uvlet_view::{
    csv, json, markdown, table,
    words::{errors, remarks},
};

use super::{Opened, Wanted, as_json, measures, open, screen, settings, with_groups};
use crate::{
    cli::{Coverage, CoverageBy, Format},
    failure::{Failure, Status},
    output, wording,
};

pub fn run(arguments: &Coverage) -> Result<Status, Failure> {
    let show = &arguments.show;
    let within = arguments.within.as_deref().unwrap_or("everything").parse::<Selector>()?;
    let read = read(&arguments.recordings)?;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { record, measures, texts, coder, .. } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: arguments.by == CoverageBy::Function,
    })?;
    let lens = with_groups(&record, config)?;
    let selection = evaluate::select(&within, &lens)?;
    if let Some(lack) = selection.lack() {
        let message = errors::lack(&lack);
        let selector = within.text().to_owned();
        return Err(Failure::In { selector, message });
    }
    let by = match arguments.by {
        CoverageBy::Package => CoveredBy::Owner(By::Package),
        CoverageBy::Module => CoveredBy::Owner(By::Module),
        CoverageBy::Function => CoveredBy::Function,
    };
    let costs = TracedCosts::new(&record, &*texts, &coder);
    let answer = coverage(&lens, &read, &*texts, Some(&costs), by, &selection.cells, measures[0]);
    is_of_build(answer.files.is_empty(), &read, &answer.unmatched)?;
    let notices = wording::notices(&record.notices);
    let top = (arguments.top > 0).then_some(arguments.top);
    let screen = screen(&show.page, &measures);
    let text = match show.format {
        Format::Json => {
            as_json("coverage", &record, &notices, &json::coverage::Coverage::from(&answer))?
        }
        Format::Csv => csv::coverage(&answer, &record),
        Format::Markdown => {
            markdown::coverage(&answer, &record, &screen, top) + &markdown::notices(&notices)
        }
        Format::Table => {
            table::coverage(&answer, &record, &screen, top) + &table::notices(&notices, &screen)
        }
    };
    output::write(&text, show.page.output.as_deref(), show.page.color)?;
    Ok(Status::Held)
}

/// Refuses recordings of which nothing is of the build: whatever they told would be of another one.
fn is_of_build<'u>(
    is_unknown: bool,
    recordings: &[Recording],
    unmatched: impl IntoIterator<Item = &'u Unmatched>,
) -> Result<(), Failure> {
    if !is_unknown || recordings.is_empty() {
        return Ok(());
    }
    let labels: Vec<&str> = recordings.iter().map(|one| one.label.as_str()).collect();
    let why = unmatched.into_iter().next();
    let why = why
        .map(|one| format!("; {}: {}", one.url, remarks::unknown_script(one.reason)))
        .unwrap_or_default();
    Err(Failure::Usage(format!(
        "{}: no script or style in it is a file of this build{why}; record the build that you ask about",
        labels.join(", ")
    )))
}

/// What ran in recordings of a build; none without recordings.
pub(super) fn ran_in(
    record: &Record,
    texts: &dyn Texts,
    recordings: &[Recording],
) -> Result<Option<Ran>, Failure> {
    if recordings.is_empty() {
        return Ok(None);
    }
    let ran = ran(record, recordings, texts);
    is_of_build(ran.files.is_empty(), recordings, &ran.unmatched)?;
    Ok(Some(ran))
}

/// Recordings as they are named on a command line.
pub(super) fn read(named: &[String]) -> Result<Vec<Recording>, Failure> {
    let one = |text: &String| {
        let (label, path) = self::named(text);
        recordings::read(&path, &label)
            .map_err(|error| Failure::Usage(format!("{}: {error}", path.display())))
    };
    named.iter().map(one).collect()
}

/// `load=a.json`, else the file's own name.
fn named(text: &str) -> (String, PathBuf) {
    let whole = Path::new(text);
    match text.split_once('=') {
        Some((label, path)) if !label.is_empty() && !whole.exists() => {
            (label.to_owned(), path.into())
        }
        _ => {
            let label = whole.file_stem().unwrap_or(whole.as_os_str());
            (label.to_string_lossy().into_owned(), whole.to_owned())
        }
    }
}
