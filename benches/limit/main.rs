//! The yardstick: only the work that no reader of a build can leave out, with the same libraries and as
//! many threads. It reads the files as the reader does (a copy that nobody else can change), reads the
//! stats once, walks the source maps, compresses what is shipped, and parses the scripts where there
//! are no stats. It answers nothing.
//!
//! `limit FOLDER [STATS]`

use std::{env, error::Error, fs, path::PathBuf, str};

use oxc_allocator::Allocator;
use oxc_parser::Parser;
use oxc_span::SourceType;
use rayon::iter::{ParallelBridge, ParallelIterator};
use serde::{Deserialize, de::IgnoredAny};
use uvlet_ledger::{
    coding::Coding,
    sourcemap::SourceMap,
    walk::{Shape, walk},
};
use walkdir::WalkDir;

/// Of stats, what every question needs: who is in which chunk, and who asks for whom.
#[derive(Deserialize)]
struct Stats<'a> {
    #[serde(borrow)]
    modules: Vec<Module<'a>>,
    #[serde(borrow)]
    assets: Vec<Asset<'a>>,
    chunks: IgnoredAny,
}

#[derive(Deserialize)]
struct Module<'a> {
    #[serde(borrow)]
    identifier: Option<std::borrow::Cow<'a, str>>,
    #[serde(borrow, default)]
    reasons: Vec<Reason<'a>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Reason<'a> {
    #[serde(borrow)]
    module_identifier: Option<std::borrow::Cow<'a, str>>,
}

#[derive(Deserialize)]
struct Asset<'a> {
    #[serde(borrow)]
    name: std::borrow::Cow<'a, str>,
}

/// One piece of work.
enum Job {
    Stats(PathBuf),
    Walk(PathBuf, PathBuf),
    Parse(PathBuf),
    Compress(PathBuf),
}

fn main() -> Result<(), Box<dyn Error>> {
    let mut arguments = env::args_os().skip(1).map(PathBuf::from);
    let folder = arguments.next().ok_or("name a folder")?;
    let stats = arguments.next();
    let mut jobs: Vec<(u64, Job)> = Vec::new();
    if let Some(stats) = &stats {
        jobs.push((stats.metadata()?.len() / 8, Job::Stats(stats.clone())));
    }
    for found in WalkDir::new(folder) {
        let path = found?.into_path();
        let bytes = path.metadata()?.len();
        match path.extension().and_then(|extension| extension.to_str()) {
            Some("js") => {
                let map = PathBuf::from(format!("{}.map", path.display()));
                if map.exists() {
                    jobs.push((map.metadata()?.len() / 8, Job::Walk(path.clone(), map)));
                }
                if stats.is_none() {
                    jobs.push((bytes, Job::Parse(path.clone())));
                }
                jobs.push((4 * bytes, Job::Compress(path)));
            }
            Some("css" | "html" | "svg") => jobs.push((4 * bytes, Job::Compress(path))),
            _ => {}
        }
    }
    jobs.sort_by_key(|(cost, _)| std::cmp::Reverse(*cost));
    let results = jobs.into_iter().par_bridge().map(|(_, job)| job.run().unwrap_or(0));
    match results.sum::<usize>() {
        0 => Err("there was nothing to do".into()),
        _ => Ok(()),
    }
}

impl Job {
    fn run(&self) -> Result<usize, Box<dyn Error>> {
        Ok(match self {
            Self::Stats(path) => {
                let text = fs::read(path)?;
                let stats: Stats<'_> = serde_json::from_slice(&text)?;
                let _ = &stats.chunks;
                let named = |module: &Module<'_>| {
                    let reasons = module.reasons.iter();
                    usize::from(module.identifier.is_some())
                        + reasons.filter(|reason| reason.module_identifier.is_some()).count()
                };
                let names: usize = stats.assets.iter().map(|asset| asset.name.len()).sum();
                names + stats.modules.iter().map(named).sum::<usize>()
            }
            Self::Walk(script, map) => {
                let (text, map) = (fs::read(script)?, fs::read(map)?);
                let map = SourceMap::parse(str::from_utf8(&map)?)?;
                walk(&text, &map, &Shape::default())?.spans.len()
            }
            Self::Parse(path) => {
                let text = fs::read(path)?;
                let allocator = Allocator::default();
                let source = str::from_utf8(&text)?;
                let parsed = Parser::new(&allocator, source, SourceType::unambiguous()).parse();
                parsed.program.body.len()
            }
            Self::Compress(path) => {
                let text = fs::read(path)?;
                Coding::Gzip.encode(&text, Coding::Gzip.level(), &|_| {})?.len()
            }
        })
    }
}
