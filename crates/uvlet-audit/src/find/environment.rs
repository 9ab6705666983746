//! Code that is not for visitors: development editions of libraries, switches that the build did not
//! set, stand-ins for what Node.js has, packages for servers.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, FileId, Kind, Mode, ModuleId};

use crate::{
    find::{
        about::{About, Environment, Package},
        context::Ground,
        finding::{Bound, Found},
    },
    select::overlap::cells_of_modules,
};

/// Packages that stand in for modules of Node.js.
const STAND_INS: [&str; 20] = [
    "assert",
    "browserify-zlib",
    "buffer",
    "console-browserify",
    "constants-browserify",
    "crypto-browserify",
    "domain-browser",
    "https-browserify",
    "os-browserify",
    "path-browserify",
    "process",
    "punycode",
    "querystring-es3",
    "readable-stream",
    "stream-browserify",
    "stream-http",
    "timers-browserify",
    "tty-browserify",
    "vm-browserify",
    "node-stdlib-browser",
];

/// Packages that answer requests or talk to databases.
const SERVERS: [&str; 16] = [
    "express",
    "koa",
    "fastify",
    "body-parser",
    "pg",
    "mysql",
    "mysql2",
    "mongodb",
    "mongoose",
    "redis",
    "ioredis",
    "nodemailer",
    "jsonwebtoken",
    "bcrypt",
    "bcryptjs",
    "@vue/server-renderer",
];

/// A variable that builds set.
const SWITCH: &[u8] = b"process.env.NODE_ENV";

/// Modules by the package that they are of.
type Editions<'r> = BTreeMap<&'r str, Vec<ModuleId>>;

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let cells = cells_of_modules(record, &ground.apart);
    let mut found = Vec::new();
    let of_package = |id: &ModuleId| record.package_of(*id).filter(|package| !package.own);
    let mut editions: Editions<'_> = BTreeMap::new();
    let mut stand_ins: Editions<'_> = BTreeMap::new();
    let mut servers: Editions<'_> = BTreeMap::new();
    for id in cells.keys() {
        let Some(package) = of_package(id) else { continue };
        let (path, name) = (record.module(*id).path.as_str(), package.name.as_str());
        let list = if is_development(path) {
            &mut editions
        } else if STAND_INS.contains(&name) {
            &mut stand_ins
        } else if SERVERS.contains(&name) || path.contains("/react-dom/cjs/react-dom-server") {
            &mut servers
        } else {
            continue;
        };
        list.entry(name).or_default().push(*id);
    }
    let owned = |ids: &[ModuleId]| -> Vec<CellId> {
        ids.iter().flat_map(|id| cells[id].iter().copied()).collect()
    };
    let names = |ids: &[ModuleId]| -> BTreeSet<String> {
        ids.iter().map(|&id| record.module(id).path.clone()).collect()
    };
    type Name = fn(Package) -> Environment;
    let groups: [(Editions<'_>, Name); 3] = [
        (editions, Environment::Development),
        (stand_ins, Environment::StandIn),
        (servers, Environment::Server),
    ];
    for (packages, environment) in groups {
        for (name, ids) in packages {
            let package = Package { name: name.to_owned(), asked_by: asked(ground, &ids) };
            let about = About::WrongEnvironment(environment(package));
            found.push(Found {
                names: names(&ids),
                cells: owned(&ids).into_iter().collect(),
                bound: Bound::AtMost,
                ..Found::of(about)
            });
        }
    }
    found.extend(switches(ground));
    found
}

/// `react.development.js`. A folder of that name is no sign: some packages offer nothing else.
fn is_development(path: &str) -> bool {
    let inside = path.rsplit("node_modules/").next().unwrap_or(path);
    inside.contains(".development.")
}

/// A module of another package that imports some of one.
fn asked(ground: &Ground<'_>, ids: &[ModuleId]) -> Option<String> {
    let record = ground.record();
    let askers = ids.iter().flat_map(|&id| ground.network.askers(id)).map(|edge| edge.from);
    let package = record.module(ids[0]).package;
    ground.first_of(askers.filter(|id| record.module(*id).package != package))
}

/// Scripts of a build for production that still ask how they were built.
fn switches(ground: &Ground<'_>) -> Option<Found> {
    let record = ground.record();
    if record.mode == Mode::Development {
        return None;
    }
    let scripts = (0..record.files.len()).map(FileId::new);
    let scripts = scripts.filter(|&id| record.file(id).kind == Kind::Script);
    let mut places: Vec<(String, usize)> = Vec::new();
    for id in scripts.filter(|id| !ground.apart.contains(id)) {
        let Some(text) = ground.texts.emitted(id) else { continue };
        let asks =
            memchr::memmem::find_iter(&text, SWITCH).filter(|&at| is_asked(&text, at)).count();
        if asks > 0 {
            places.push((record.file(id).path.clone(), asks));
        }
    }
    let total: usize = places.iter().map(|(_, asks)| asks).sum();
    let (first, _) = places.first()?;
    let about =
        About::WrongEnvironment(Environment::Switch { places: total, first: first.clone() });
    Some(Found {
        names: places.into_iter().map(|(path, _)| path).collect(),
        bound: Bound::AtMost,
        ..Found::of(about)
    })
}

/// In a comparison, and not in a text.
fn is_asked(text: &[u8], at: usize) -> bool {
    let after = text[at + SWITCH.len()..].iter().position(|byte| !byte.is_ascii_whitespace());
    let after = after.map(|skip| &text[at + SWITCH.len() + skip..]).unwrap_or_default();
    let before = text[..at].iter().rev().find(|byte| !byte.is_ascii_whitespace());
    after.starts_with(b"==") || after.starts_with(b"!=") || before == Some(&b'=')
}
