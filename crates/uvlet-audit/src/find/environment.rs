//! Code that is not for visitors: development editions of libraries, switches that the build did not
//! set, stand-ins for what Node.js has, packages for servers.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, FileId, Kind, Mode, ModuleId};

use crate::{
    find::{
        context::Ground,
        finding::{Bound, Found, counted},
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

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let cells = cells_of_modules(record, &ground.apart);
    let mut found = Vec::new();
    let of_package = |id: &ModuleId| record.package_of(*id).filter(|package| !package.own);
    let mut editions: BTreeMap<&str, Vec<ModuleId>> = BTreeMap::new();
    let mut stand_ins: BTreeMap<&str, Vec<ModuleId>> = BTreeMap::new();
    let mut servers: BTreeMap<&str, Vec<ModuleId>> = BTreeMap::new();
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
    for (name, ids) in editions {
        found.push(Found {
            title: format!("{name} is there in its development edition"),
            names: names(&ids),
            cells: owned(&ids).into_iter().collect(),
            bound: Bound::AtMost,
            by_entry: None,
            cause: asked(ground, &ids),
            advice: "build with NODE_ENV set to production, and with the `production` condition for packages".to_owned(),
..Found::default()
});
    }
    for (name, ids) in stand_ins {
        found.push(Found {
            title: format!("{name} stands in for what Node.js has"),
            names: names(&ids),
            cells: owned(&ids).into_iter().collect(),
            bound: Bound::AtMost,
            by_entry: None,
            cause: asked(ground, &ids),
            advice: "take what browsers have, or a package that is made for browsers, where it is asked for".to_owned(),
..Found::default()
});
    }
    for (name, ids) in servers {
        found.push(Found {
            title: format!("{name} is a package for servers"),
            names: names(&ids),
            cells: owned(&ids).into_iter().collect(),
            bound: Bound::AtMost,
            by_entry: None,
            cause: asked(ground, &ids),
            advice: "keep the code that asks for it out of what browsers load".to_owned(),
            ..Found::default()
        });
    }
    found.extend(switches(ground));
    found
}

/// `react.development.js`. A folder of that name is no sign: some packages offer nothing else.
fn is_development(path: &str) -> bool {
    let inside = path.rsplit("node_modules/").next().unwrap_or(path);
    inside.contains(".development.")
}

fn asked(ground: &Ground<'_>, ids: &[ModuleId]) -> String {
    let record = ground.record();
    let askers = ids.iter().flat_map(|&id| ground.network.askers(id)).map(|edge| edge.from);
    let outside = askers.filter(|id| record.module(*id).package != record.module(ids[0]).package);
    match outside.min_by_key(|&id| (record.module(id).third_party, &record.module(id).path)) {
        Some(id) => format!("{} asks for it", record.module(id).path),
        None => "what asks for it is not known".to_owned(),
    }
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
    Some(Found {
        title: format!(
            "process.env.NODE_ENV is asked for at {} as code runs",
            counted(total, "place")
        ),
        cause: format!("the build did not replace it, first in {first}"),
        names: places.into_iter().map(|(path, _)| path).collect(),
        cells: crate::parts::cells::CellSet::default(),
        bound: Bound::AtMost,
        by_entry: None,
        advice: "let the bundler replace `process.env.NODE_ENV` by \"production\": what it guards then leaves"
            .to_owned(),
..Found::default()
})
}

/// In a comparison, and not in a text.
fn is_asked(text: &[u8], at: usize) -> bool {
    let after = text[at + SWITCH.len()..].iter().position(|byte| !byte.is_ascii_whitespace());
    let after = after.map(|skip| &text[at + SWITCH.len() + skip..]).unwrap_or_default();
    let before = text[..at].iter().rev().find(|byte| !byte.is_ascii_whitespace());
    after.starts_with(b"==") || after.starts_with(b"!=") || before == Some(&b'=')
}
