//! `uvlet gate`.

pub(crate) mod arguments;
pub(crate) mod asked;
pub(crate) mod judged;
pub(crate) mod settings;

use std::path::PathBuf;

use arguments::Arguments;
use uvlet_audit::ask::gate::verdict::Verdict;
use uvlet_view::answers::Judged;

use crate::{
    advice,
    config::{ConfigError, FILE},
    failure::{Failure, Status},
    output, reading,
    show::{Around, Setting, following, formed, screen},
};

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let config = reading::settings(&arguments.build)?;
    let mut config = config.ok_or_else(|| ConfigError::Missing(PathBuf::from(FILE)))?;
    let path = config.path.clone();
    let mut apps = match config.apps.is_empty() {
        true => vec![config],
        false => std::mem::take(&mut config.apps),
    };
    asked::limits(&mut apps, &arguments.tried)?;
    if arguments.show_settings {
        return settings::show(&apps, arguments);
    }
    if apps.iter().all(|config| config.budgets.is_empty()) {
        return Err(ConfigError::NoBudget(path).into());
    }
    asked::only(&mut apps, &arguments.only)?;
    let judged = judged::all(arguments, &apps)?;
    let answer = &judged.gate;
    let measures: Vec<_> = apps.iter().map(|config| config.measure).take(1).collect();
    let screen = screen(&arguments.page, &measures);
    let shown =
        Judged { answer, label: &judged.label, shown: arguments.listed, entries: &judged.entries };
    let (notices, record) = (&judged.notices, &judged.record);
    let setting = Setting { command: "gate", record, notices, screen: &screen };
    // What cannot be written keeps no other file from being written.
    let mut all_written = true;
    for (form, path) in &arguments.write {
        let text = formed(&shown, &setting, *form, Around::default);
        let written = text.and_then(|text| output::replace(path, text.as_bytes()));
        if let Err(failure) = written {
            output::complain(&failure);
            all_written = false;
        }
    }
    if !arguments.quiet {
        let text = formed(&shown, &setting, arguments.format, || {
            let before = advice::owners_of_gate(answer, &judged.paths);
            let next = advice::after_gate(answer, &judged.paths);
            Around {
                before: before.map(|owners| format!("{owners}\n")),
                after: following(next, &arguments.page),
            }
        })?;
        output::write(&text, arguments.page.output.as_deref(), arguments.page.color)?;
    }
    Ok(match answer.verdict {
        Verdict::Broken => Status::Broken,
        _ if !all_written => Status::NoAnswer,
        Verdict::Undecided => Status::NoAnswer,
        Verdict::Warned | Verdict::Waived | Verdict::Unjudged | Verdict::Met => Status::Held,
    })
}
