//! The build as the page embeds it: files, entries, owners and what each piece costs, packed.

use std::collections::BTreeMap;

use base64::prelude::{BASE64_STANDARD, Engine};
use serde_json::{Value, json};
use uvlet_audit::{
    ask::why::{Chain, Moment, Why},
    lens::Lens,
    parts::cells::CellSet,
    select::{
        overlap,
        words::{self, Named, Plain},
    },
};
use uvlet_record::{
    Basis, CellId, FileId, FileSet, Kind, ModuleId, Owner, PackageId, Record, sizes::Measure,
};

use crate::{json::spelt, table::why::verb, words::places::twice};

/// Owners that are no modules.
const GLUE: i64 = -1;
const ASSET: i64 = -2;
const NOBODY: i64 = -3;

/// JSON that can stand in a script element: nothing in it ends the element.
pub fn embedded(
    lens: &Lens<'_>,
    measure: Measure,
    also: &[Measure],
    whys: &[(PackageId, Why)],
    shell: &str,
) -> String {
    let record = lens.record;
    let (files, chunks) = files(lens);
    let twice = twice(record.packages.iter().map(|one| one.name.as_str()));
    let packages: Vec<Value> = record
        .packages
        .iter()
        .map(|one| {
            let place = twice.contains(&*one.name).then_some(one.place.as_str());
            json!({"name": one.name, "version": one.version, "own": one.own, "place": place})
        })
        .collect();
    let also: Vec<Value> = also
        .iter()
        .map(|&measure| {
            let units: Vec<u64> =
                record.cells.iter().map(|cell| cell.amount.units(measure)).collect();
            json!({"name": measure.name(), "perByte": per_byte(measure), "units": units})
        })
        .collect();
    let why: BTreeMap<usize, Value> =
        whys.iter().map(|(id, why)| (id.at(), said(why, measure))).collect();
    let words = |takes: bool| -> Vec<&str> {
        words::all().filter(|word| word.argument.is_some() == takes).map(|word| word.text).collect()
    };
    let data = json!({
        "words": {"alone": words(false), "taking": words(true), "joins": words::JOINS,
                  "kinds": Kind::ALL.map(Kind::name)},
        "sets": told(lens),
        "perByte": per_byte(measure), "bases": BASES.map(Basis::name), "also": also,
        "files": files, "chunks": chunks, "entries": entries(lens), "packages": packages,
        "modules": modules(record), "cells": cells(record, measure), "why": why, "shell": shell,
    });
    // An element ends at `</`, and a comment begins at `<!`.
    spelt(&data.to_string()).replace('<', "\\u003c")
}

/// Files, and the names of the chunks that they are of.
fn files<'r>(lens: &Lens<'r>) -> (Vec<Value>, Vec<&'r str>) {
    let record = lens.record;
    let mut chunks: Vec<&str> = Vec::new();
    let mut places: BTreeMap<&str, usize> = BTreeMap::new();
    let files = record.files.iter().enumerate().map(|(at, file)| {
        let chunk = lens.chunk_of(FileId::new(at)).map(|chunk| {
            *places.entry(chunk.name.as_str()).or_insert_with(|| {
                chunks.push(&chunk.name);
                chunks.len() - 1
            })
        });
        let source = file.source.map(|id| record.module(id).path.as_str());
        let source = source.or_else(|| file.kind.is_asset().then_some(file.path.as_str()));
        json!({"path": file.path, "kind": file.kind.name(), "chunk": chunk, "source": source})
    });
    (files.collect(), chunks)
}

/// Entries, with the files that they load.
fn entries(lens: &Lens<'_>) -> Vec<Value> {
    let record = lens.record;
    let ids = |ids: &[FileId]| ids.iter().map(|id| id.at()).collect::<Vec<_>>();
    // A bit per file: thousands of pages may reach each other.
    let bits = |files: &FileSet| {
        let mut bytes = vec![0_u8; record.files.len().div_ceil(8)];
        files.iter().map(FileId::at).for_each(|at| bytes[at / 8] |= 1 << (at % 8));
        BASE64_STANDARD.encode(bytes)
    };
    let entries = record.entries.iter().zip(&lens.reach).map(|(entry, reach)| {
        let names: Vec<&String> = [&entry.name].into_iter().chain(&entry.aliases).collect();
        json!({"names": names, "startup": ids(&reach.startup), "atOnce": bits(&reach.at_once),
               "deferred": bits(&reach.deferred)})
    });
    entries.collect()
}

/// Modules, of whose paths each begins like the one before it.
fn modules(record: &Record) -> Vec<Value> {
    let mut before = "";
    let modules = record.modules.iter().enumerate().map(|(at, module)| {
        let path = module.path.as_str();
        let shared = shared(before, path);
        before = path;
        let package = module.package.map_or(-1, |id| i64::try_from(id.at()).unwrap_or(-1));
        let third = record.is_third_party(Owner::Module(ModuleId::new(at)));
        let units = path[..shared].encode_utf16().count();
        json!([units, &path[shared..], package, u8::from(third)])
    });
    modules.collect()
}

/// Cells, four numbers each: file, owner, units, basis.
fn cells(record: &Record, measure: Measure) -> Vec<Value> {
    let mut cells: Vec<Value> = Vec::with_capacity(record.cells.len() * 4);
    for cell in &record.cells {
        let owner = match cell.owner {
            Owner::Module(id) => i64::try_from(id.at()).unwrap_or(NOBODY),
            Owner::Glue => GLUE,
            Owner::Asset => ASSET,
            Owner::Unattributed => NOBODY,
        };
        cells.extend([
            json!(cell.file.at()),
            json!(owner),
            json!(cell.amount.units(measure)),
            json!(place_of(cell.basis)),
        ]);
    }
    cells
}

/// Sets that the page does not work out by itself, by word and name: files, or steps from one cell to
/// the next.
fn told(lens: &Lens<'_>) -> Vec<Value> {
    let record = lens.record;
    let steps = |cells: &CellSet| -> Vec<usize> {
        let mut before = 0;
        let step = |id: CellId| id.at() - std::mem::replace(&mut before, id.at());
        cells.iter().map(step).collect()
    };
    let mut told = Vec::new();
    let mut tell = |word: &str, names: &[&str], cells: &CellSet| {
        told.push(json!({"word": word, "names": names, "cells": steps(cells)}));
    };
    tell(Plain::Repeats.name(), &[], &overlap::repeats(lens));
    for (mark, word) in [
        (&lens.marks.leftovers, Plain::Leftovers.name()),
        (&lens.marks.never_ran, Plain::NeverRan.name()),
    ] {
        if let Some(marked) = mark {
            tell(word, &[], &marked.cells);
        }
    }
    let unreached = overlap::unreached(lens);
    for (at, entry) in record.entries.iter().enumerate() {
        let names: Vec<&str> =
            [&entry.name].into_iter().chain(&entry.aliases).map(String::as_str).collect();
        tell(Named::Repeats.name(), &names, &overlap::repeats_of(lens, at));
        if let Some(cells) = unreached.get(&at) {
            tell(Named::Unreached.name(), &names, cells);
        }
    }
    for group in &lens.groups {
        tell(Named::Group.name(), &[&group.name], &group.sets.cells);
    }
    for visit in &lens.visits {
        let files = lens.reach[visit.entry].startup.iter().chain(&visit.adds);
        let files: Vec<usize> = files.map(|file| file.at()).collect();
        told.push(json!({"word": Named::Route.name(), "names": [visit.route], "files": files}));
    }
    told
}

/// Bases from the best on, as the page numbers them.
const BASES: [Basis; 4] = [Basis::Mapped, Basis::Reported, Basis::Located, Basis::Estimated];

fn place_of(basis: Basis) -> usize {
    BASES.iter().position(|one| *one == basis).unwrap_or(0)
}

fn per_byte(measure: Measure) -> u8 {
    if measure == Measure::Emitted { 1 } else { 8 }
}

/// Bytes that two paths begin with, on a boundary of both.
fn shared(a: &str, b: &str) -> usize {
    let same = a.bytes().zip(b.bytes()).take_while(|(a, b)| a == b).count();
    (0..=same).rev().find(|&at| a.is_char_boundary(at) && b.is_char_boundary(at)).unwrap_or(0)
}

/// The chain of a package, and what would start with less without it.
fn said(why: &Why, measure: Measure) -> Value {
    let chain = told_chain(why);
    let steps = chain.map(|chain| steps(chain.steps.as_slice())).unwrap_or_default();
    let leaves: Vec<Value> = why
        .at_startup
        .iter()
        .filter(|row| row.sizes.get(measure) > 0)
        .map(|row| json!([row.entry, row.sizes.get(measure)]))
        .collect();
    let first = why.importers.first().map(|importer| importer.module.as_str());
    json!({
        "entry": chain.map(|chain| chain.entry.as_str()),
        "when": chain.map(|chain| match chain.when {
            Moment::Startup => "startup",
            Moment::Deferred => "deferred",
        }),
        "chain": steps, "leaves": leaves, "first": first,
    })
}

/// The chain that is shown: of the entry that gains most without it, else the first that is known.
pub fn told_chain(why: &Why) -> Option<&Chain> {
    let known = || why.chains.iter().filter(|chain| !chain.steps.is_empty());
    let most = why.at_startup.first();
    let of_most = most.and_then(|most| known().find(|chain| chain.entry == most.entry));
    of_most.or_else(|| known().next())
}

/// Each step with how it asks for the next one.
pub fn steps(steps: &[uvlet_audit::ask::why::Step]) -> Vec<(String, String)> {
    let asks = |at: usize| -> String {
        let Some(next) = steps.get(at + 1) else { return String::new() };
        next.by.map(|kind| verb(kind).to_owned()).unwrap_or_default()
    };
    steps.iter().enumerate().map(|(at, step)| (step.module.clone(), asks(at))).collect()
}

#[cfg(test)]
mod tests {
    use std::fs;

    use super::*;
    use uvlet_audit::select::groups::with_groups;

    /// The page's own test selects in what this writes, so that both read one file.
    #[test]
    fn the_cases_of_selectors_hold_what_the_page_embeds() {
        let path = concat!(env!("CARGO_MANIFEST_DIR"), "/../uvlet-audit/src/select/cases.json");
        let mut cases: Value = serde_json::from_str(&fs::read_to_string(path).unwrap()).unwrap();
        let record: Record = serde_json::from_value(cases["record"].clone()).unwrap();
        let groups: BTreeMap<String, String> =
            serde_json::from_value(cases["groups"].clone()).unwrap();
        let groups: Vec<_> =
            groups.into_iter().map(|(name, text)| (name, text.parse().unwrap())).collect();
        let lens = with_groups(Lens::new(&record), &groups).unwrap();
        let text = embedded(&lens, Measure::Emitted, &[], &[], "tiny");
        let page: Value = serde_json::from_str(&text).unwrap();
        if std::env::var_os("UVLET_WRITE_CASES").is_some() {
            let text = fs::read_to_string(path).unwrap();
            let begins = text.find("  \"page\": ").unwrap();
            let ends = begins + text[begins..].find('\n').unwrap() + 1;
            fs::write(path, format!("{}  \"page\": {page},\n{}", &text[..begins], &text[ends..]))
                .unwrap();
            cases["page"] = page.clone();
        }
        assert_eq!(cases["page"], page);
    }
}
