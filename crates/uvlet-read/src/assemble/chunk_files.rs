//! Which file a chunk's id means, over all scripts of a build.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use uvlet_record::{File, FileId, Kind};

use crate::formats::{Chunks, FileName};

/// Bytes below which a script that only a runtime shows in is taken for that alone.
const RUNTIME: u64 = 16_000;

/// Files by chunk id, over all scripts of a build.
#[derive(Debug, Default)]
pub struct ChunkFiles {
    files: BTreeMap<String, Vec<FileId>>,
    /// Scripts that hold only a runtime.
    pub runtimes: Vec<FileId>,
}

impl ChunkFiles {
    /// Ties ids to files: by what scripts register, and by the names that the runtime makes. `asked`
    /// are the ids that any script asks for.
    pub fn find<'i>(
        files: &[File],
        scripts: &[Option<&Chunks>],
        asked: impl Iterator<Item = &'i str>,
    ) -> Self {
        let mut chunks = Self::default();
        let mut ids: BTreeSet<&str> = asked.collect();
        for (at, script) in scripts.iter().enumerate() {
            let Some(script) = script else { continue };
            for id in &script.ids {
                chunks.add(id, FileId::new(at));
            }
            ids.extend(script.ids.iter().chain(&script.startup).map(String::as_str));
            let names = script.scripts.iter().chain(&script.styles);
            ids.extend(names.flat_map(FileName::ids));
            let is_bare = !script.has_table && files[at].emitted < RUNTIME;
            if script.runtime && !script.starts && !script.registers && is_bare {
                chunks.runtimes.push(FileId::new(at));
            }
        }
        let mut by_name: HashMap<&str, Vec<usize>> = HashMap::new();
        for (at, file) in files.iter().enumerate() {
            let name = file.path.rsplit('/').next().unwrap_or(&file.path);
            by_name.entry(name).or_default().push(at);
        }
        let file_of = |path: &str, kind: Kind| {
            let name = path.rsplit('/').next().unwrap_or(path);
            let ends = |at: &&usize| {
                let file = &files[**at];
                let before = file.path.strip_suffix(path);
                file.kind == kind && before.is_some_and(|b| b.is_empty() || b.ends_with('/'))
            };
            by_name.get(name)?.iter().find(ends).map(|&at| FileId::new(at))
        };
        for script in scripts.iter().flatten() {
            for &id in &ids {
                let path = script.scripts.as_ref().and_then(|name| name.of_chunk(id));
                let is_styled = script.styled.is_empty() || script.styled.contains(id);
                let style = script.styles.as_ref().filter(|_| is_styled);
                let style = style.and_then(|name| name.of_chunk(id));
                let found = [(path, Kind::Script), (style, Kind::Style)];
                for (path, kind) in found {
                    if let Some(file) = path.and_then(|path| file_of(&path, kind)) {
                        chunks.add(id, file);
                    }
                }
            }
        }
        chunks
    }

    fn add(&mut self, id: &str, file: FileId) {
        let files = self.files.entry(id.to_owned()).or_default();
        if !files.contains(&file) {
            files.push(file);
        }
    }

    /// The files of a chunk.
    pub fn files(&self, id: &str) -> &[FileId] {
        self.files.get(id).map_or(&[], Vec::as_slice)
    }
}
