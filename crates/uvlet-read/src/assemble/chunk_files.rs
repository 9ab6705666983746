//! Which file a chunk's id means, over all scripts of a build.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use uvlet_record::{File, FileId, Kind};

use crate::formats::{
    file_names::FileName,
    format::{Chunks, DynamicCall, Opener},
};

/// Bytes below which a script that only a runtime shows in is taken for that alone.
const RUNTIME: u64 = 16_000;

/// Files by chunk id, over all scripts of a build.
#[derive(Debug, Default)]
pub struct ChunkFiles {
    files: BTreeMap<String, Vec<FileId>>,
    /// What keys fetch that are no chunks.
    keyed: BTreeMap<String, Keyed>,
    /// Scripts that register a module, where it is known that one is opened.
    holders: HashMap<String, Vec<FileId>>,
    /// Scripts that hold only a runtime.
    pub runtimes: Vec<FileId>,
}

/// What a key fetches.
#[derive(Debug, Default)]
pub struct Keyed {
    /// Files of the build.
    pub files: Vec<FileId>,
    /// Names of no file, which an import map may tie to one.
    pub others: Vec<String>,
    /// The id of the module that is then used.
    pub opens: Option<String>,
}

impl ChunkFiles {
    /// Ties ids to files: by what scripts register, and by the names that the runtime makes. `asked`
    /// are the ids that any script asks for.
    pub fn find<'i>(
        files: &[File],
        scripts: &[Option<&Chunks>],
        asked: impl Iterator<Item = &'i DynamicCall>,
    ) -> Self {
        let mut chunks = Self::default();
        let mut ids: BTreeSet<&str> = BTreeSet::new();
        let mut opened: BTreeSet<&str> = BTreeSet::new();
        for call in asked {
            ids.extend(call.requests());
            opened.extend(call.opens.as_deref());
        }
        let openers = scripts.iter().flatten().flat_map(|script| &script.openers);
        opened.extend(openers.filter_map(|opener| opener.opens.as_deref()));
        for id in opened {
            let holds = |script: &Option<&Chunks>| script.is_some_and(|s| s.modules.contains(id));
            let holders = (0..).map(FileId::new).zip(scripts).filter(|(_, script)| holds(script));
            chunks.holders.insert(id.to_owned(), holders.map(|(file, _)| file).collect());
        }
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
        let file_at = |path: &str, is_it: &dyn Fn(Kind) -> bool| {
            let name = path.rsplit('/').next().unwrap_or(path);
            let ends = |at: &&usize| {
                let file = &files[**at];
                let before = file.path.strip_suffix(path);
                is_it(file.kind) && before.is_some_and(|b| b.is_empty() || b.ends_with('/'))
            };
            by_name.get(name)?.iter().find(ends).map(|&at| FileId::new(at))
        };
        let file_of = |path: &str, kind: Kind| file_at(path, &|found| found == kind);
        let is_code = |kind: Kind| matches!(kind, Kind::Script | Kind::Style);
        let openers = || scripts.iter().flatten().flat_map(|script| &script.openers);
        let of_key: HashMap<&str, &[String]> =
            openers().map(|opener| (opener.key.as_str(), opener.files.as_slice())).collect();
        for Opener { key, files, opens } in openers() {
            let paths = files.iter().flat_map(|path| match of_key.get(path.as_str()) {
                Some(paths) => paths,
                None => std::slice::from_ref(path),
            });
            let keyed = chunks.keyed.entry(key.clone()).or_default();
            keyed.opens = keyed.opens.take().or_else(|| opens.clone());
            for path in paths {
                match file_at(path, &is_code) {
                    Some(file) => keyed.files.push(file),
                    None => keyed.others.push(path.clone()),
                }
            }
        }
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

    /// Puts first, of the files that a load fetches, the one that holds the module that is opened.
    pub fn lead_with(&self, opens: Option<&str>, files: &mut [FileId]) {
        let holders = opens.and_then(|id| self.holders.get(id)).into_iter().flatten();
        let lead = holders.filter_map(|id| files.iter().position(|file| file == id)).next();
        if let Some(at) = lead {
            files[..=at].rotate_right(1);
        }
    }

    /// What a key fetches, if it is one.
    pub fn keyed(&self, key: &str) -> Option<&Keyed> {
        self.keyed.get(key)
    }

    /// The files of a chunk.
    pub fn files(&self, id: &str) -> &[FileId] {
        self.files.get(id).map_or(&[], Vec::as_slice)
    }
}
