//! The keys of `uvlet.toml`: one declaration, from which the reader refuses others and the schema for
//! editors is made.

use serde_json::{Map, Value, json};
use strum::VariantArray;
use uvlet_audit::{
    ask::gate::limit::{LimitKind, Written},
    find::kind::Kind,
};
use uvlet_record::sizes::{Coding, Measure};

/// How a value is written.
enum Shape {
    Text,
    /// One, or several.
    OneOrMore,
    Texts,
    Flag,
    Size,
    Growth,
    Share,
    Count,
    Date,
    Selector,
    Measure,
    Kind,
    Level(Coding),
    /// A table with these keys.
    Table(fn() -> Vec<Key>),
    /// A table for each name.
    Named(fn() -> Vec<Key>),
    /// A text in the selector language for each name.
    NamedSelectors,
    /// Tables of which there may be several.
    Tables(fn() -> Vec<Key>),
}

/// One key.
pub struct Key {
    name: &'static str,
    shape: Shape,
    about: &'static str,
}

const fn key(name: &'static str, shape: Shape, about: &'static str) -> Key {
    Key { name, shape, about }
}

/// The names of keys.
pub fn names(keys: &[Key]) -> Vec<&'static str> {
    keys.iter().map(|key| key.name).collect()
}

/// What stands at the top of a file.
pub fn root() -> Vec<Key> {
    let mut keys = vec![
        key("extends", Shape::OneOrMore, "Settings that this file adds to, from its own place."),
        key("app", Shape::Named(app), "An app of a repository that has several."),
    ];
    keys.extend(sections());
    keys
}

/// What stands at the top of a file, and again in the table of an app.
fn sections() -> Vec<Key> {
    vec![
        key("measure", Shape::Measure, "What sizes are shown and judged in."),
        key(
            "languages",
            Shape::Texts,
            "Languages that the site speaks; waste finds data of others.",
        ),
        key("level", Shape::Table(level), "Levels of the encoders."),
        key("build", Shape::Table(build), "Which build is meant."),
        key("group", Shape::NamedSelectors, "Names for sets of bytes."),
        key("gate", Shape::Table(gate), "How strictly budgets are judged."),
        key("budget", Shape::Named(budget), "A limit on what the build may weigh."),
        key(
            "waiver",
            Shape::Tables(waiver),
            "An exception, with a ceiling, a reason and a last day.",
        ),
    ]
}

pub fn app() -> Vec<Key> {
    build().into_iter().chain(sections()).collect()
}

pub fn build() -> Vec<Key> {
    vec![
        key("folder", Shape::Text, "The folder that the bundler writes."),
        key(
            "description",
            Shape::Text,
            "What the bundler says of the build, if not in that folder.",
        ),
        key("base", Shape::Text, "URL under which the files will stand."),
        key("own", Shape::Texts, "Installed packages that count as own code."),
    ]
}

pub fn level() -> Vec<Key> {
    let about = "Level of this encoder.";
    Coding::ALL.map(|coding| key(coding.name(), Shape::Level(coding), about)).into()
}

pub fn gate() -> Vec<Key> {
    vec![
        key("allow_development", Shape::Flag, "A development build does not break the gate."),
        key("allow_estimated", Shape::Flag, "Estimates are taken as they stand."),
        key("allow_unattributed", Shape::Size, "Bytes without an owner that count as nobody's."),
        key("judged_at_least", Shape::Share, "Share of the bytes that waste must have checked."),
    ]
}

pub fn budget() -> Vec<Key> {
    let mut keys = vec![
        key("off", Shape::Flag, "Drops a budget that an extended file makes."),
        key("total", Shape::Selector, "All of this together."),
        key("each", Shape::Selector, "Each of these on its own."),
        key("absent", Shape::Selector, "This may not be there at all."),
        key("waste", Shape::Kind, "Findings of this kind, all together."),
        key("measure", Shape::Measure, "What this limit is in."),
    ];
    keys.extend(limits(LimitKind::set()));
    keys
}

pub fn waiver() -> Vec<Key> {
    let mut keys = vec![
        key("budget", Shape::Text, "The budget that is waived."),
        key("finding", Shape::Text, "The finding that is waived, by its id."),
        key("where", Shape::Selector, "Which of the things of an `each`."),
        key("reason", Shape::Text, "Why."),
        key("until", Shape::Date, "The last day, in UTC."),
    ];
    keys.extend(limits(LimitKind::waivable()));
    keys
}

fn limits(kinds: impl Iterator<Item = LimitKind>) -> impl Iterator<Item = Key> {
    kinds.map(|kind| {
        let shape = match kind.written() {
            Written::Growth => Shape::Growth,
            Written::Number => Shape::Count,
            Written::Size | Written::Never => Shape::Size,
        };
        key(kind.name(), shape, "A ceiling.")
    })
}

/// The JSON Schema of the file (draft 2020-12).
pub fn schema() -> Value {
    let mut schema = table(&root());
    let head = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Settings of Uvlet",
    });
    if let (Value::Object(schema), Value::Object(head)) = (&mut schema, head) {
        schema.extend(head);
    }
    schema
}

fn table(keys: &[Key]) -> Value {
    let property = |key: &Key| {
        let mut value = value(&key.shape);
        value["description"] = key.about.into();
        (key.name.to_owned(), value)
    };
    let properties: Map<String, Value> = keys.iter().map(property).collect();
    json!({ "type": "object", "properties": properties, "additionalProperties": false })
}

fn value(shape: &Shape) -> Value {
    const SIZE: &str = r"^\s*([0-9]+(\.[0-9]+)?\s*(B|kB|KB|MB|KiB|MiB)|0+)\s*$";
    const PERCENT: &str = r"^\s*[0-9]+(\.[0-9]{1,3})?\s*%\s*$";
    let pattern = |pattern: &str| json!({ "type": "string", "pattern": pattern });
    let words = |words: Vec<&str>| json!({ "enum": words });
    match shape {
        Shape::Text => json!({ "type": "string" }),
        Shape::OneOrMore => json!({ "anyOf": [value(&Shape::Text), value(&Shape::Texts)] }),
        Shape::Selector => json!({ "type": "string", "minLength": 1 }),
        Shape::Texts => json!({ "type": "array", "items": { "type": "string" } }),
        Shape::Flag => json!({ "type": "boolean" }),
        Shape::Size => pattern(SIZE),
        Shape::Share => pattern(PERCENT),
        Shape::Growth => json!({ "anyOf": [pattern(SIZE), pattern(PERCENT)] }),
        Shape::Count => json!({ "type": "integer", "minimum": 0 }),
        // Editors tell dates of TOML as they can: some as texts of this format.
        Shape::Date => json!({ "format": "date" }),
        Shape::Measure => words(Measure::ALL.map(Measure::name).into()),
        Shape::Kind => words(Kind::VARIANTS.iter().map(|kind| kind.name()).collect()),
        Shape::Level(coding) => {
            let levels = coding.levels();
            json!({ "type": "integer", "minimum": levels.start(), "maximum": levels.end() })
        }
        Shape::Table(keys) => table(&keys()),
        Shape::Named(keys) => json!({ "type": "object", "additionalProperties": table(&keys()) }),
        Shape::NamedSelectors => {
            json!({ "type": "object", "additionalProperties": value(&Shape::Selector) })
        }
        Shape::Tables(keys) => json!({ "type": "array", "items": table(&keys()) }),
    }
}
