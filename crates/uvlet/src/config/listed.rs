//! Every setting that counts, as it is written, and where that is.

use serde::Serialize;
use uvlet_audit::ask::gate::budget::Place;
use uvlet_record::sizes::Coding;

use super::{keys, reader::Table};

/// A setting that counts.
#[derive(Clone, Debug, Serialize)]
pub struct Setting {
    /// The app that it counts for, where there are several.
    pub app: Option<String>,
    /// Its key in full.
    pub key: String,
    /// Its value as TOML.
    pub value: String,
    /// Where it stands; of what no file says, nowhere.
    pub from: Option<Place>,
}

/// The settings of a table, and those that it leaves as they usually are.
pub fn all(table: &Table<'_>, app: Option<&str>) -> Vec<Setting> {
    let mut settings: Vec<Setting> = Vec::new();
    let app = app.map(str::to_owned);
    let build = keys::names(&keys::build());
    let written = table.leaves("").into_iter().filter(|(key, ..)| !key.starts_with("app."));
    for (key, value, place) in written {
        let word = key.split(['.', '[']).next().unwrap_or_default();
        // Keys of `[build]` stand in `[app.NAME]` itself.
        let key = match build.contains(&word) {
            true => format!("build.{key}"),
            false => key,
        };
        // What stands in an app's table itself counts more than what holds for all.
        settings.retain(|one| one.key != key || key.ends_with(']'));
        settings.push(Setting { app: app.clone(), key, value, from: Some(place) });
    }
    let off: Vec<String> = settings
        .iter()
        .filter(|one| one.value == "true")
        .filter_map(|one| one.key.strip_suffix(".off").map(|name| format!("{name}.")))
        .collect();
    settings.retain(|one| {
        one.key.ends_with(".off") || !off.iter().any(|budget| one.key.starts_with(budget))
    });
    let levels = Coding::ALL.map(|coding| (format!("level.{coding}"), coding.level().to_string()));
    let usual = [
        ("measure", "\"gzip\""),
        ("gate.allow_development", "false"),
        ("gate.allow_estimated", "false"),
        ("gate.allow_unattributed", "\"0 B\""),
        ("gate.judged_at_least", "\"95%\""),
    ];
    let usual = usual.map(|(key, value)| (key.to_owned(), value.to_owned()));
    for (key, value) in usual.into_iter().chain(levels) {
        if !settings.iter().any(|one| one.key == key) {
            settings.push(Setting { app: app.clone(), key, value, from: None });
        }
    }
    settings
}
