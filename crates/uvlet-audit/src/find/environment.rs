//! Code that is not for visitors: development editions of libraries, switches that the build did not
//! set, stand-ins for what Node.js has, packages for servers.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, FileId, Kind, Mode, ModuleId};

use crate::{
    find::{
        about::{About, Environment, Package},
        context::{Ground, module_at},
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

/// Where Node.js has the variables of its environment, which no browser has.
const ENVIRONMENT: &[u8] = b"process.env.";

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

/// Scripts of a build for production that still read how they were built, by the variable.
fn switches(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    if record.mode == Mode::Development {
        return Vec::new();
    }
    let scripts = (0..record.files.len()).map(FileId::new);
    let scripts = scripts.filter(|&id| record.file(id).kind == Kind::Script);
    let mut places: BTreeMap<String, Vec<(String, usize)>> = BTreeMap::new();
    for id in scripts.filter(|id| !ground.apart.contains(id)) {
        let Some(text) = ground.texts.emitted(id) else { continue };
        let mut reads: BTreeMap<&str, usize> = BTreeMap::new();
        for at in memchr::memmem::find_iter(&text, ENVIRONMENT) {
            let is_own = || {
                let module = module_at(record, id, at as u64);
                module.is_some_and(|module| !record.module(module).third_party)
            };
            let Some(variable) = variable(&text[at + ENVIRONMENT.len()..]) else { continue };
            let is_read = match variable {
                "NODE_ENV" => is_compared(&text, at, variable),
                // Libraries read many, and are ready for none to be there.
                _ => is_own() && is_read(&text, at),
            };
            if is_read {
                *reads.entry(variable).or_default() += 1;
            }
        }
        for (variable, reads) in reads {
            let of_variable = places.entry(variable.to_owned()).or_default();
            of_variable.push((record.file(id).path.clone(), reads));
        }
    }
    let found = places.into_iter().map(|(variable, places)| {
        let first = places.first().map_or_else(String::new, |(path, _)| path.clone());
        let total = places.iter().map(|(_, reads)| reads).sum();
        let environment = Environment::Switch { variable, places: total, first };
        Found {
            names: places.into_iter().map(|(path, _)| path).collect(),
            bound: Bound::AtMost,
            ..Found::of(About::WrongEnvironment(environment))
        }
    });
    found.collect()
}

/// The name of a variable that a text begins with.
fn variable(text: &[u8]) -> Option<&str> {
    let is_part = |byte: &u8| byte.is_ascii_alphanumeric() || *byte == b'_';
    let length = text.iter().take_while(|byte| is_part(byte)).count();
    let name = std::str::from_utf8(&text[..length]).ok()?;
    let is_name = length > 0 && !name.bytes().any(|byte| byte.is_ascii_lowercase());
    is_name.then_some(name)
}

/// In a comparison, and not in a text.
fn is_compared(text: &[u8], at: usize, variable: &str) -> bool {
    let end = at + ENVIRONMENT.len() + variable.len();
    let after = text[end..].iter().position(|byte| !byte.is_ascii_whitespace());
    let after = after.map(|skip| &text[end + skip..]).unwrap_or_default();
    let before = text[..at].iter().rev().find(|byte| !byte.is_ascii_whitespace());
    after.starts_with(b"==") || after.starts_with(b"!=") || before == Some(&b'=')
}

/// Neither in a text, nor part of a longer name, nor behind a look whether there is any environment.
fn is_read(text: &[u8], at: usize) -> bool {
    /// Bytes before a read that may ask whether it can be made.
    const NEAR: usize = 80;
    let before = text[..at].last().copied().unwrap_or(b' ');
    let is_whole = !before.is_ascii_alphanumeric() && !b"_$.'\"`".contains(&before);
    let near = &text[at.saturating_sub(NEAR)..at];
    is_whole && memchr::memmem::find(near, b"typeof process").is_none()
}
