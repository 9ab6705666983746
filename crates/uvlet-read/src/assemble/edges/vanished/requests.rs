//! Requests that lead to modules which left no byte.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use uvlet_record::{ModuleId, Record};
use uvlet_script::requests::Request;

use crate::assemble::edges::{
    placement::Placement,
    resolve::{Meant, Resolver},
    sources::SourceFacts,
};

/// Letters below which a name tells nothing.
pub(crate) const TELLING: usize = 3;

/// What requests are followed with.
pub struct Vanished<'a> {
    pub record: &'a Record,
    pub facts: &'a [Option<SourceFacts>],
    pub resolver: &'a Resolver<'a>,
    pub placement: &'a Placement,
}

/// Who asks for what, and what each request means.
pub(crate) type Asked<'a> = [(ModuleId, Vec<(&'a Request, Meant)>)];

/// Files that are built of modules of their packages, with the modules that lead to them.
pub(crate) type Built = BTreeMap<String, BTreeSet<ModuleId>>;

/// Modules by the names that they give themselves.
pub(crate) type Givers<'a> = HashMap<&'a str, Vec<ModuleId>>;

/// Whether a path, in small letters, holds every word of a name such as `BarChart`.
pub(crate) fn spells(path: &str, name: &str) -> bool {
    let mut words: Vec<String> = Vec::new();
    for letter in name.chars() {
        match words.last_mut() {
            Some(word) if !letter.is_ascii_uppercase() => word.push(letter),
            _ => words.push(letter.to_ascii_lowercase().to_string()),
        }
    }
    name.len() >= TELLING && words.iter().all(|word| path.contains(word.as_str()))
}
