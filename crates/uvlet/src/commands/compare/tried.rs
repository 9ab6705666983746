//! `uvlet compare --tries`, and of more than two builds: a line each.

use uvlet_audit::{ask::tries::tries, lens::Lens};
use uvlet_record::sizes::Measure;
use uvlet_view::answers::Tried;

use super::arguments::Arguments;
use crate::{
    args::build::Build,
    config::Config,
    failure::{Failure, Status},
    kept,
    reading::{Opened, Wanted, measures, open},
    show::{Around, Setting, screen, show},
    wording,
};

pub fn run(arguments: &Arguments, now: &Build, config: Option<&Config>) -> Result<Status, Failure> {
    let read = |build: &Build| {
        let measures = measures(&arguments.measure, config);
        open(Wanted { build, config, measures, format: arguments.show.format, sources: false })
    };
    let plain = Build { description: None, label: None, mark: None, ..now.clone() };
    let at = |path| Build { path: Some(path), ..plain.clone() };
    let mut builds: Vec<(String, Opened)> = Vec::new();
    let last = match arguments.more.split_last() {
        Some((last, between)) => {
            let earlier = arguments.before.iter().chain(now.path.iter()).chain(between);
            for path in earlier {
                builds.push((path.display().to_string(), read(&at(path.clone()))?));
            }
            (last.display().to_string(), read(&at(last.clone()))?)
        }
        None => {
            let opened = read(now)?;
            let measure = opened.measures.first().copied().unwrap_or(Measure::Emitted);
            for one in kept::tries(now, &opened.path, &opened.record, measure).into_iter().rev() {
                let label = one.label();
                // One that was kept at another level of an encoder is not compared.
                if let Ok(opened) = read(&at(one.path)) {
                    builds.push((label, opened));
                }
            }
            kept::keep(now, &opened.path, &opened.record);
            ("now".to_owned(), opened)
        }
    };
    builds.push(last);
    let lenses: Vec<(String, Lens<'_>)> =
        builds.iter().map(|(label, one)| (label.clone(), Lens::new(&one.record))).collect();
    let Some((_, last)) = builds.last() else { return Ok(Status::Held) };
    let measure = last.measures.first().copied().unwrap_or(Measure::Emitted);
    let answer = tries(&lenses, measure)?;
    let notices = wording::notices(&last.record.notices);
    let screen = screen(&arguments.show.page, &last.measures);
    let record = &last.record;
    let setting = Setting { command: "compare", record, notices: &notices, screen: &screen };
    show(&Tried { answer: &answer }, &setting, &arguments.show, Around::default)?;
    Ok(Status::Held)
}
