//! Source maps that packages ship themselves, as far as they name sources.

use std::path::Path;

use serde::Deserialize;
use uvlet_record::path::resolve;

use crate::project::read_file;

/// Bytes of a map that are read.
const LONGEST: u64 = 64 << 20;

/// A source that a package's own map names.
pub struct ShippedSource {
    /// Its path from the map's folder, without what leads nowhere.
    pub written: String,
    /// UTF-8 bytes of its text, where the map holds it.
    pub bytes: Option<u64>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct OwnMap {
    #[serde(default)]
    source_root: Option<String>,
    sources: Vec<Option<String>>,
    #[serde(default)]
    sources_content: Vec<Option<String>>,
}

/// The sources that a map lists; none where it cannot be read.
pub fn sources(map: &Path) -> Vec<ShippedSource> {
    let map = read_file(map, LONGEST).and_then(|text| serde_json::from_slice::<OwnMap>(&text).ok());
    let Some(map) = map else { return Vec::new() };
    let root = map.source_root.map(|root| format!("{root}/")).unwrap_or_default();
    let source = |(at, source): (usize, &Option<String>)| {
        let text = map.sources_content.get(at).and_then(Option::as_ref);
        let written = resolve(&format!("{root}{}", source.as_deref()?));
        Some(ShippedSource { written, bytes: text.map(|text| text.len() as u64) })
    };
    map.sources.iter().enumerate().filter_map(source).collect()
}

/// `index` of `dist/client/index.js.map` and of `src/client/index.tsx`.
pub fn stem(path: &str) -> &str {
    let name = path.rsplit('/').next().unwrap_or(path);
    name.split('.').next().unwrap_or(name)
}
