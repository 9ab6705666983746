//! A generated build as webpack writes one: chunks with tables of module functions, their maps, and
//! stats of which two thirds say who asks for whom.

use std::{
    fs::{self, File},
    io::{self, BufWriter, Write},
    path::Path,
};

use serde_json::{Value, json};

use crate::{Module, table};

/// Chunks of one part of the site, in bytes: 4 MB, a third of it in one chunk.
const CHUNKS: [usize; 10] =
    [1_300_000, 800_000, 600_000, 450_000, 300_000, 200_000, 150_000, 100_000, 60_000, 40_000];
/// Modules that ask for each module.
const REASONS: usize = 23;

/// Writes a build of `factor` parts into a new folder, and its stats beside it as `stats.json`. One
/// part has 4 MB of scripts, 18 MB of maps and 50 MB of stats.
///
/// # Errors
/// When something cannot be written.
pub fn generate(folder: &Path, factor: usize) -> io::Result<()> {
    let dist = folder.join("dist");
    fs::create_dir_all(&dist)?;
    let mut chunks: Vec<(String, Vec<Module>)> = Vec::new();
    let mut page = String::new();
    for part in 0..factor {
        for (at, &bytes) in CHUNKS.iter().enumerate() {
            let id = part * CHUNKS.len() + at;
            let chunk = table(bytes, id);
            let name = format!("part{id}.js");
            fs::write(dist.join(&name), &chunk.text)?;
            fs::write(dist.join(format!("{name}.map")), &chunk.map)?;
            page.push_str(&format!("<script defer src={name}></script>\n"));
            chunks.push((name, chunk.modules));
        }
    }
    fs::write(dist.join("index.html"), page)?;
    stats(BufWriter::new(File::create(folder.join("stats.json"))?), &dist, &chunks)
}

fn stats(mut out: impl Write, dist: &Path, chunks: &[(String, Vec<Module>)]) -> io::Result<()> {
    let names: Vec<&str> = chunks.iter().map(|(name, _)| name.as_str()).collect();
    let mut assets = Vec::new();
    for (id, name) in names.iter().enumerate() {
        let size = fs::metadata(dist.join(name))?.len();
        assets.push(json!({ "type": "asset", "name": name, "size": size, "chunks": [id] }));
    }
    let entry: Vec<Value> = names.iter().map(|name| json!({ "name": name })).collect();
    let ids: Vec<usize> = (0..chunks.len()).collect();
    let entrypoints =
        json!({ "main": { "name": "main", "chunks": ids, "assets": entry, "children": {} } });
    write!(out, "{{\"version\":\"5.0.0\",\"assets\":{},", json!(assets))?;
    write!(out, "\"entrypoints\":{entrypoints},\"chunks\":[")?;
    let all: Vec<&Module> = chunks.iter().flat_map(|(_, modules)| modules).collect();
    let mut first = 0;
    for (id, (name, modules)) in chunks.iter().enumerate() {
        let files = json!([name]);
        let comma = if id > 0 { "," } else { "" };
        write!(
            out,
            "{comma}{{\"id\":{id},\"files\":{files},\"names\":[],\"origins\":[],\"modules\":["
        )?;
        for at in 0..modules.len() {
            write!(out, "{}{}", if at > 0 { "," } else { "" }, described(&all, first + at, id))?;
        }
        first += modules.len();
        write!(out, "]}}")?;
    }
    write!(out, "],\"modules\":[")?;
    let mut at = 0;
    for (id, (_, modules)) in chunks.iter().enumerate() {
        for _ in modules {
            write!(out, "{}{}", if at > 0 { "," } else { "" }, described(&all, at, id))?;
            at += 1;
        }
    }
    write!(out, "]}}")?;
    out.flush()
}

fn described(all: &[&Module], at: usize, chunk: usize) -> Value {
    let module = all[at];
    let reasons = (0..REASONS).map(|n| {
        let from = all[(at * 31 + n * 97) % all.len()];
        json!({
            "moduleIdentifier": from.identifier, "module": from.name, "moduleName": from.name,
            "resolvedModuleIdentifier": from.identifier, "resolvedModule": from.name,
            "type": "harmony import specifier", "active": true, "explanation": "",
            "userRequest": format!("../lib/file{at}.js"), "loc": format!("{n}:15-{}", n + 40),
            "moduleId": from.id, "resolvedModuleId": from.id,
        })
    });
    json!({
        "type": "module", "moduleType": "javascript/esm", "identifier": module.identifier,
        "name": module.name, "id": module.id, "size": module.bytes, "chunks": [chunk],
        "usedExports": ["default"], "providedExports": ["default", "tide", "quay"],
        "optimizationBailout": [], "depth": 3, "reasons": reasons.collect::<Vec<_>>(),
    })
}
