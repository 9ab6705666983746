//! `uvlet compare`.

pub mod arguments;
mod tried;

use arguments::Arguments;
use uvlet_audit::{
    ask::compare::{compare, sides::Half},
    lens::Lens,
    parts::cells::CellSet,
    select::{evaluate, selector::Selector},
};
use uvlet_record::{Record, sizes::Measure};
use uvlet_view::{answers::Compared, table::Rows, words::errors};

use crate::{
    advice,
    args::build::Build,
    config,
    failure::{Failure, Status},
    kept,
    reading::{Opened, Wanted, measures, open, settings, with_groups},
    show::{Around, Setting, following, screen, show},
    wording,
};

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
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
        Some(path) if arguments.last || arguments.tries => {
            Build { path: Some(path.clone()), ..arguments.build.clone() }
        }
        _ => arguments.build.clone(),
    };
    if arguments.tries || !arguments.more.is_empty() {
        return tried::run(arguments, &later, config);
    }
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
    let rows = Rows { by: arguments.by, min, top: (arguments.top > 0).then_some(arguments.top) };
    let record: &Record = &after.record;
    let setting = Setting { command: "compare", record, notices: &notices, screen: &screen };
    self::show(&Compared { answer: &answer, rows: &rows }, &setting, show, || {
        let next = advice::next("propose", &after.path, "").filter(|_| after.path.is_dir());
        Around { before: None, after: following(next, &show.page) }
    })?;
    kept::keep(&later, &after.path, &after.record);
    Ok(Status::Held)
}

/// The earlier build; what the arguments say of the later one is said of that alone.
fn earlier(arguments: &Arguments, later: &Build, after: &Opened) -> Result<Build, Failure> {
    let plain = Build { description: None, label: None, mark: None, ..later.clone() };
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
