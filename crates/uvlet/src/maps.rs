//! How source maps get written, in the words of the framework or bundler that built: without them most
//! questions cannot be answered of most bytes.

use std::path::Path;

use uvlet_audit::bundlers::{FRAMEWORKS, Maps, Profile};
use uvlet_read::project;
use uvlet_record::{Bundler, Record};
use uvlet_view::words::maps as words;

/// Hundredths of the script bytes without an owner from which on maps are worth asking for.
const WORTH: u64 = 5;

/// What to do so that bytes get owners, where so many script bytes have none that it matters.
pub fn missing(record: &Record, build: &Path) -> Option<String> {
    if record.unattributed_percent() < WORTH {
        return None;
    }
    let ways: Vec<String> = ways(record, build)
        .iter()
        .map(|(name, way)| format!("  {name:<9} {}\n", words::way(*way)))
        .collect();
    Some(format!(
        "Source maps say whose bytes they are. Build again with them, then ask again:\n{}\
         Do not deploy the maps: delete the *.map files once they are measured; a budget\n\
         with total = \"kind(map)\" and at_most = \"0 B\" makes sure of it.\n",
        ways.concat()
    ))
}

/// By name: the setting or the command.
fn ways(record: &Record, build: &Path) -> Vec<(&'static str, Maps)> {
    let project = project::root_of(build);
    let named = record.framework.as_ref().map(|framework| framework.name.as_str());
    let is_it = |(package, name, _): &&(&str, &str, Maps)| match named {
        Some(named) => named == *name,
        None => project.as_deref().is_some_and(|project| project::depends_on(project, package)),
    };
    if let Some((_, name, way)) = FRAMEWORKS.iter().find(is_it) {
        return vec![(name, *way)];
    }
    let bundlers = match record.bundler {
        Some(bundler) => vec![bundler],
        None => project.as_deref().map(project::bundlers_of).unwrap_or_default(),
    };
    // Vite builds with Rollup or Rolldown, and is the one that is configured.
    let bundlers = match bundlers.contains(&Bundler::Vite) {
        true => vec![Bundler::Vite],
        false => bundlers,
    };
    let all = [Bundler::Vite, Bundler::Webpack, Bundler::Rspack, Bundler::Esbuild, Bundler::Rollup];
    let known = if bundlers.is_empty() { &all[..] } else { &bundlers[..] };
    known.iter().map(|bundler| (bundler.name(), Profile::of(Some(*bundler)).maps)).collect()
}
