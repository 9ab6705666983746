//! Puts an answer where it is wanted, in the form that it is wanted in.

use uvlet_record::{Record, sizes::Measure};
use uvlet_view::{Notice, answers::Answer, form::Form, json, markdown, screen::Screen, table};

use crate::{
    args::show::{Page, Show},
    failure::Failure,
    output,
};

/// What stands around a table, for a person.
#[derive(Default)]
pub struct Around {
    /// Between the table and the notices.
    pub before: Option<String>,
    /// After the notices.
    pub after: String,
}

/// What an answer is of, and how it is laid out.
pub struct Setting<'a> {
    pub command: &'a str,
    pub record: &'a Record,
    pub notices: &'a [Notice],
    pub screen: &'a Screen,
}

/// Shows an answer.
pub fn show(
    answer: &impl Answer,
    setting: &Setting<'_>,
    show: &Show,
    around: impl FnOnce() -> Around,
) -> Result<(), Failure> {
    let text = formed(answer, setting, show.format, around)?;
    output::write(&text, show.page.output.as_deref(), show.page.color)
}

/// An answer in a form; those that it does not have are refused as the command line is read.
pub fn formed(
    answer: &impl Answer,
    setting: &Setting<'_>,
    form: Form,
    around: impl FnOnce() -> Around,
) -> Result<String, Failure> {
    let Setting { command, record, notices, screen } = *setting;
    let text = match form {
        Form::Table => {
            let Around { before, after } = around();
            let table = answer.table(record, screen);
            Some(table + &before.unwrap_or_default() + &table::notices(notices, screen) + &after)
        }
        Form::Json => {
            let version = env!("CARGO_PKG_VERSION");
            let text = json::answer(command, version, record, notices, &answer.json());
            Some(text.map_err(|error| Failure::Output(error.into()))?)
        }
        Form::Markdown => Some(answer.markdown(record, screen) + &markdown::notices(notices)),
        Form::Csv => answer.csv(record),
        Form::Junit => answer.junit(screen),
        Form::Sarif => answer.sarif(screen),
    };
    text.ok_or_else(|| Failure::Usage(format!("{command} has no form {}", form.name())))
}

/// How wide tables are, and how sizes read.
pub fn screen(page: &Page, measures: &[Measure]) -> Screen {
    let width = page.width.unwrap_or_else(|| output::width(page.output.as_deref()));
    let (&measure, also) = measures.split_first().unwrap_or((&Measure::Emitted, &[]));
    Screen { width, units: page.units, measure, also: also.to_owned(), brief: page.brief }
}

/// What to ask next, for a person who sees the answer.
pub fn following(next: Option<String>, page: &Page) -> String {
    let next = next.filter(|_| output::is_seen(page.output.as_deref()) && !page.brief);
    next.map(|next| format!("\n{next}\n")).unwrap_or_default()
}
