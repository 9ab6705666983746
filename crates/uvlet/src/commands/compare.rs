//! `uvlet compare`.

use uvlet_audit::{
    ask::compare::{compare, sides::Half},
    lens::Lens,
    parts::cells::CellSet,
    select::{evaluate, selector::Selector},
};
use uvlet_record::{Record, sizes::Measure};
use uvlet_view::{
    csv, json, markdown,
    table::{self, Rows},
    words::errors,
};

use super::{Opened, Wanted, as_json, kept, measures, open, screen, settings, with_groups};
use crate::{
    cli::{Build, Compare, CompareBy, Format},
    config,
    failure::{Failure, Status},
    output, wording,
};

pub fn run(arguments: &Compare) -> Result<Status, Failure> {
    let show = &arguments.show;
    let within = arguments.within.as_deref().unwrap_or("everything").parse::<Selector>()?;
    let min = arguments.min.as_deref().map(config::size).transpose();
    let min = min.map_err(|error| Failure::Usage(format!("--min: {error}")))?.unwrap_or(0);
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let read = |build: &Build| {
        let measures = measures(&arguments.measure, config);
        open(Wanted { build, config, measures, format: show.format, sources: true })
    };
    let later = match &arguments.before {
        // With `--last` the one argument is the later build.
        Some(path) if arguments.last => {
            Build { path: Some(path.clone()), ..arguments.build.clone() }
        }
        _ => arguments.build.clone(),
    };
    let after = read(&later)?;
    let before = read(&earlier(arguments, &later, &after)?)?;
    let lenses = [with_groups(&before.record, config)?, with_groups(&after.record, config)?];
    let [old, new] = &lenses;
    let halves = [half(old, &before, &within)?, half(new, &after, &within)?];
    // A name has to mean something in one of the builds at least.
    if let [(_, Some(missing)), (_, Some(_))] = &halves {
        return Err(Failure::In { selector: within.text().to_owned(), message: missing.clone() });
    }
    let languages = config.map(|config| config.languages.clone()).unwrap_or_default();
    let [(before_half, _), (after_half, _)] = &halves;
    let answer = compare(before_half, after_half, &languages, &after.measures)?;
    let notices = [before.record.notices.clone(), after.record.notices.clone()].concat();
    let notices = wording::notices(&notices);
    let screen = screen(&show.page, &after.measures);
    let rows = Rows {
        by: match arguments.by {
            CompareBy::Package => table::CompareBy::Package,
            CompareBy::Module => table::CompareBy::Module,
            CompareBy::Chunk => table::CompareBy::Chunk,
        },
        min,
        top: (arguments.top > 0).then_some(arguments.top),
    };
    let record: &Record = &after.record;
    let text = match show.format {
        Format::Json => {
            as_json("compare", record, &notices, &json::compare::Comparison::from(&answer))?
        }
        Format::Csv => csv::compare(&answer, record),
        Format::Markdown => {
            markdown::compare(&answer, record, &screen, &rows) + &markdown::notices(&notices)
        }
        Format::Table => {
            table::compare(&answer, record, &screen, &rows) + &table::notices(&notices, &screen)
        }
    };
    output::write(&text, show.page.output.as_deref(), show.page.color)?;
    kept::keep(&later, &after.path, &after.record);
    Ok(Status::Held)
}

/// The earlier build; what the arguments say of the later one is said of that alone.
fn earlier(arguments: &Compare, later: &Build, after: &Opened) -> Result<Build, Failure> {
    let plain = Build { description: None, label: None, ..later.clone() };
    if !arguments.last {
        return Ok(Build { path: arguments.before.clone(), ..plain });
    }
    let measure = after.measures.first().copied().unwrap_or(Measure::Emitted);
    let kept = kept::before(later, &after.path, &after.record, measure).ok_or_else(|| {
        Failure::Usage(format!(
            "--last: no other build of {} was looked at before in {measure}; name the earlier one",
            after.path.display()
        ))
    })?;
    let label = Some(format!("{} of {}", after.record.label, kept.said()));
    Ok(Build { path: Some(kept.path), label, ..plain })
}

/// What is looked at of a build, and what the selector names that it does not have.
fn half<'a>(
    lens: &'a Lens<'a>,
    opened: &'a Opened,
    within: &Selector,
) -> Result<(Half<'a>, Option<String>), Failure> {
    let selection = evaluate::select(within, lens)?;
    let missing = selection.lack().map(|lack| errors::lack(&lack));
    let cells: CellSet = selection.cells;
    Ok((Half { lens, texts: &*opened.texts, cells }, missing))
}
