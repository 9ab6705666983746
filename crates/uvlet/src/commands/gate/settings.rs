//! Every setting that counts, with where it comes from.

use super::arguments::Arguments;
use serde_json::{Value, json};
use uvlet_view::form::Form;
use uvlet_view::plain;

use crate::{
    config::{Config, listed::Setting},
    failure::{Failure, Status},
    output,
};

pub fn show(apps: &[Config], arguments: &Arguments) -> Result<Status, Failure> {
    let text = match arguments.format {
        Form::Table => apps.iter().map(table).collect(),
        Form::Json => {
            let settings = apps.iter().flat_map(|config| &config.listed).map(row);
            let about =
                json!({"schema": 1, "version": env!("CARGO_PKG_VERSION"), "command": "gate"});
            let answer = json!({"uvlet": about, "settings": settings.collect::<Vec<_>>()});
            uvlet_view::json::spelt(&format!("{answer:#}\n"))
        }
        _ => {
            let said = "--show-settings answers as a table or as json".to_owned();
            return Err(Failure::Usage(said));
        }
    };
    output::write(&text, arguments.page.output.as_deref(), arguments.page.color)?;
    Ok(Status::Held)
}

fn row(setting: &Setting) -> Value {
    let Setting { app, key, value, from } = setting;
    let (file, line, column) = match from {
        Some(place) => (json!(place.file), json!(place.line), json!(place.column)),
        None => (Value::Null, Value::Null, Value::Null),
    };
    json!({"app": app, "key": key, "value": value, "file": file, "line": line, "column": column})
}

fn table(config: &Config) -> String {
    let lines: Vec<(String, String)> = config
        .listed
        .iter()
        .map(|Setting { key, value, from, .. }| {
            let from = match from {
                Some(place) => format!("{}:{}", place.file, place.line),
                None if is_tried(config, key) => "--try".to_owned(),
                None => "unless said otherwise".to_owned(),
            };
            (plain(&format!("{key} = {value}")).into_owned(), plain(&from).into_owned())
        })
        .collect();
    // One value of great length does not push every place out of sight.
    const WIDEST: usize = 64;
    let widths = lines.iter().map(|(setting, _)| setting.chars().count());
    let width = widths.filter(|width| *width <= WIDEST).max().unwrap_or(0);
    let mut text = match &config.app {
        Some(app) => format!("{} of {}:\n", plain(app), plain(&config.path.display().to_string())),
        None => String::new(),
    };
    for (setting, from) in lines {
        text.push_str(&format!("{setting:<width$}  {from}\n"));
    }
    text
}

/// What no file says is usual, or was tried.
fn is_tried(config: &Config, key: &str) -> bool {
    key.starts_with("budget.") && config.listed.iter().any(|setting| setting.key == key)
}
