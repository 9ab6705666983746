//! webpack-style stats JSON, of webpack 5 and Rspack: entries, chunks, modules and why each is
//! there.
//!
//! What an entry can load later comes from the `origins` of chunks (which module calls `import()`),
//! never from `children`: a shared chunk lists the children of every group that it is in. Modules
//! go by their `name`; one that others were merged into stands for itself and for the whole.

pub(crate) mod json;
pub(crate) mod lacks;
pub(crate) mod names;
mod reader;

use json::{Json, has_output, is_own_build};
use names::{context, owned};
use reader::Reader;
use uvlet_record::{AsideKind, Bundler};

use super::{
    described::Described,
    description::{Description, DescriptionError, damaged},
    outline::Outline,
};

/// The stats.
pub struct Stats;

impl Description for Stats {
    fn kind(&self) -> AsideKind {
        AsideKind::Stats
    }

    fn is(&self, outline: &Outline) -> bool {
        let has_assets = outline.has_list("assets");
        let holds = outline.has_list("chunks")
            || outline.has_list("modules")
            || outline.has_object("entrypoints");
        let counts = outline.has_number("errorsCount") || outline.has_number("warningsCount");
        (has_assets && holds)
            || (outline.has_list("children") && counts)
            || outline.has_text("rspackVersion")
            || outline.has_object("assetsByChunkName")
    }

    fn richness(&self) -> u8 {
        2
    }

    /// Every build that the stats speak of: their own, and those of other compilers run with it.
    fn read(&self, json: &str) -> Result<Vec<Described>, DescriptionError> {
        let stats: Json<'_> = serde_json::from_str(json).map_err(|error| damaged(&error))?;
        let elsewhere = |child: &&Json<'_>| is_own_build(&stats, child);
        let builds = std::iter::once(&stats).filter(|stats| has_output(stats));
        let builds = builds.chain(stats.children.iter().flatten().filter(elsewhere));
        let mut all: Vec<Described> = builds.map(|build| one_build(json, build, &stats)).collect();
        if all.is_empty() {
            all.push(one_build(json, &stats, &stats));
        }
        Ok(all)
    }
}

fn one_build<'a>(json: &'a str, stats: &'a Json<'a>, top: &Json<'_>) -> Described {
    let context = context(stats.modules.as_deref().unwrap_or_default()).unwrap_or_default();
    let mut reader = Reader::new(json, context);
    let rspack = stats.rspack_version.as_ref().or(top.rspack_version.as_ref());
    reader.described.bundler =
        Some(if rspack.is_some() { Bundler::Rspack } else { Bundler::Webpack });
    let version = rspack.or(stats.version.as_ref()).or(top.version.as_ref());
    reader.described.version = version.map(owned);
    reader.compilation(stats, false);
    reader.finish(stats);
    reader.described
}

#[cfg(test)]
mod tests;
