//! Looks into every file once: digest, coded size, loads, and whose bytes they are.
//!
//! Files are independent, so they are examined in parallel. Compressing and reading a file are jobs
//! of their own and the costliest come first: one large script would else leave cores idle at the
//! end.

use std::{collections::HashSet, path::Path, str, sync::Mutex};

use rayon::iter::{ParallelBridge, ParallelIterator};
use sha2::{Digest, Sha256};
use uvlet_ledger::coding;
use uvlet_record::{Kind, Notice};

use crate::{
    emitted::{self, Emitted},
    folder::{self, Listed, Listing, Text},
    html::{self, Page},
    judge::Look,
    sourcemaps::{self, MapSources, Owned},
    styles::{self, Urls},
};

/// What one file holds.
#[derive(Debug, Default)]
pub struct Examined {
    /// Half of the SHA-256 of the bytes, in hexadecimal digits.
    pub digest: String,
    /// Bytes under gzip.
    pub gzip: u64,
    /// A script's loads.
    pub code: Option<Emitted>,
    /// How a script looks.
    pub look: Look,
    /// A style's URLs.
    pub urls: Urls,
    /// A page's asks.
    pub page: Option<Page>,
    /// Whose bytes they are, where a map says so.
    pub owned: Option<Owned>,
    /// Its text, if texts are kept.
    pub text: Option<String>,
    /// What went wrong.
    pub notices: Vec<Notice>,
}

/// Formats that are compressed already: servers send them as they are.
const COMPRESSED: [&str; 11] =
    ["woff2", "woff", "png", "jpg", "jpeg", "gif", "avif", "webp", "mp4", "webm", "zip"];

/// Compressing costs about twice as much as reading, byte by byte.
enum Job {
    Compress,
    Read,
}

/// Examines every counted file; results stand in the same order.
pub fn examine(
    listing: &Listing,
    maps: Option<&Path>,
    gzip_level: u32,
    texts: bool,
) -> Vec<Examined> {
    let names: HashSet<&str> = listing
        .counted
        .iter()
        .filter(|(_, kind)| kind.is_asset() || *kind == Kind::Style)
        .filter_map(|(file, _)| file.path.rsplit('/').next())
        .collect();
    let sources = MapSources { listing, maps, texts };
    let mut jobs = Vec::with_capacity(2 * listing.counted.len());
    for (at, (file, _)) in listing.counted.iter().enumerate() {
        jobs.push((file.bytes * 2, at, Job::Compress));
        jobs.push((file.bytes, at, Job::Read));
    }
    jobs.sort_by_key(|&(cost, at, _)| (std::cmp::Reverse(cost), at));
    let mut results: Vec<Mutex<Examined>> = Vec::new();
    results.resize_with(listing.counted.len(), Mutex::default);
    jobs.into_iter().par_bridge().for_each(|(_, at, job)| {
        let (file, kind) = &listing.counted[at];
        let mut part = Examined::default();
        match (Text::of(file), &job) {
            (Ok(text), Job::Compress) => part.gzip = gzip(file, &text, gzip_level),
            (Ok(text), Job::Read) => read(&mut part, file, *kind, &text, &sources, &names),
            (Err(error), _) => part.notices.push(folder::unreadable(&file.path, &error)),
        }
        // A poisoned lock means that another job of this file panicked, which ends the run anyway.
        if let Ok(mut result) = results[at].lock() {
            match job {
                Job::Compress => {
                    result.gzip = part.gzip;
                    result.notices.append(&mut part.notices);
                }
                Job::Read => {
                    part.notices.append(&mut result.notices);
                    *result = Examined { gzip: result.gzip, ..part };
                }
            }
        }
    });
    results.into_iter().filter_map(|result| result.into_inner().ok()).collect()
}

fn gzip(file: &Listed, text: &[u8], level: u32) -> u64 {
    let extension = file.path.rsplit('.').next().unwrap_or_default().to_ascii_lowercase();
    if COMPRESSED.contains(&extension.as_str()) {
        return text.len() as u64;
    }
    coding::gzip_size(text, level)
}

fn read(
    part: &mut Examined,
    file: &Listed,
    kind: Kind,
    bytes: &[u8],
    maps: &MapSources<'_>,
    names: &HashSet<&str>,
) {
    let digest = Sha256::digest(bytes);
    part.digest = digest.iter().take(16).map(|byte| format!("{byte:02x}")).collect();
    if !matches!(kind, Kind::Script | Kind::Style | Kind::Page) {
        return;
    }
    let text = match str::from_utf8(bytes) {
        Ok(text) => text,
        Err(error) => {
            let message =
                format!("is not UTF-8 at byte {}: what it loads is unknown", error.valid_up_to());
            part.notices.push(Notice::new("not-utf8", message, Some(&file.path)));
            return;
        }
    };
    part.text = maps.texts.then(|| text.to_owned());
    match kind {
        Kind::Page => part.page = Some(html::read(text)),
        Kind::Style => {
            part.urls = styles::urls(text);
            part.owned = sourcemaps::owned(file, bytes, Vec::new(), maps, &mut part.notices);
        }
        _ => {
            let mut statements = Vec::new();
            match emitted::read(text, &|name| names.contains(name)) {
                Ok(mut code) => {
                    part.look = Look::at(bytes, &code);
                    statements = std::mem::take(&mut code.statements);
                    part.code = Some(code);
                }
                Err(error) => {
                    let message = format!("{error}: what it loads is unknown");
                    part.notices.push(Notice::new("script-unparsed", message, Some(&file.path)));
                }
            }
            part.owned = sourcemaps::owned(file, bytes, statements, maps, &mut part.notices);
        }
    }
}
