//! What of the emitted code nothing uses.
//!
//! The emitted text is the base: its declarations with their scopes, by exact names; sources say which
//! calls are marked as free of effects. What cannot be followed is live: names that no segment of a map
//! points at, scripts that do not parse or run code from texts, exports of what is loaded on demand.
//! Each rule errs on the side of keeping.

mod declarations;
mod reach;
mod sources;

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{FileId, Kind, LoadKind, ModuleId, Record, Segment, Texts};
use uvlet_script::declarations::{Declared, Effect, NodeKind, declared};

pub use declarations::{Declaration, Declarations, NOT_TOLD, REMOVED, State, User, declarations};
use reach::Graph;
pub(crate) use sources::Sources;

/// A declaration that nothing uses, or a name of one.
#[derive(Clone, Debug)]
pub struct Dead {
    /// The file.
    pub file: FileId,
    /// What it is; an import or a member of a namespace object is a mere name.
    pub what: What,
    /// Its name: the source's, where that is known.
    pub name: String,
    /// The module that it comes from; of a name, that of what it names.
    pub module: Option<ModuleId>,
    /// Its bytes, which can be cut out together with those of all others.
    pub ranges: Vec<Range<u64>>,
    /// A comment says that what it calls has no effect.
    pub is_believed: bool,
}

/// What a dead node is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum What {
    /// A function.
    Function,
    /// A class.
    Class,
    /// A variable.
    Variable,
    /// A member of the object that stands for a module.
    Member,
    /// The name of an import.
    Import,
}

/// A declaration that nobody uses and that stays since its evaluation, or that of another one that uses
/// it, may do something.
#[derive(Clone, Debug)]
pub struct Kept {
    /// The declaration.
    pub declaration: Dead,
    /// What may happen, where it is its own evaluation.
    pub effect: Option<Effect>,
}

/// What is known of a build.
#[derive(Clone, Debug, Default)]
pub struct Liveness {
    /// What nothing uses, by file.
    pub dead: Vec<Dead>,
    /// What is kept for an effect alone.
    pub kept: Vec<Kept>,
    /// Scripts in which it would have been found.
    pub followed: BTreeSet<FileId>,
}

/// A script with what it declares.
struct Followed {
    file: FileId,
    declared: Declared,
    /// Per node: the module and source name at its head, where a segment begins exactly there.
    heads: Vec<Option<(ModuleId, String)>>,
    /// Per node: what its evaluation may do.
    effects: Vec<Option<Effect>>,
    /// Per node: a comment was believed.
    believed: Vec<bool>,
}

/// Reads the scripts of a build; and the files that somebody may use who is not followed.
fn follow_all(record: &Record, texts: &dyn Texts) -> (Vec<Followed>, BTreeSet<FileId>) {
    let sources = Sources::new(texts);
    let scripts: Vec<FileId> = (0..record.files.len())
        .map(FileId::new)
        .filter(|&id| record.file(id).kind == Kind::Script)
        .collect();
    let followed: Vec<Option<Followed>> =
        scripts.par_iter().map(|&file| follow(record, texts, &sources, file)).collect();
    // What such a script takes from others is not known.
    let open: BTreeSet<FileId> = scripts
        .iter()
        .zip(&followed)
        .filter(|(_, followed)| followed.is_none())
        .flat_map(|(file, _)| record.file(*file).loads.iter().copied())
        .chain(opened(record, texts))
        .collect();
    (followed.into_iter().flatten().collect(), open)
}

/// Follows the scripts of a build.
#[must_use]
pub fn liveness(record: &Record, texts: &dyn Texts) -> Liveness {
    let (followed, open) = follow_all(record, texts);
    let graph = Graph::new(record, &followed, &open);
    let reached = graph.reach(true);
    let without_effects = graph.reach(false);
    let mut liveness =
        Liveness { followed: followed.iter().map(|one| one.file).collect(), ..Liveness::default() };
    for (at, one) in followed.iter().enumerate() {
        let is_dead = |node: usize| !reached.has(at, node);
        let mut cuts: BTreeMap<usize, Vec<Range<u64>>> = BTreeMap::new();
        for (node, range) in one.declared.layout.cuts(&is_dead) {
            cuts.entry(node).or_default().push(range.start as u64..range.end as u64);
        }
        for (node, ranges) in cuts {
            let Some(what) = what(&one.declared.nodes[node].kind) else { continue };
            let (module, name) = match graph.named(at, node) {
                Some((module, name)) => (Some(module), name),
                None => (None, one.declared.nodes[node].name.clone()),
            };
            let is_believed = one.believed[node];
            liveness.dead.push(Dead { file: one.file, what, name, module, ranges, is_believed });
        }
        let is_kept = |node: usize| !without_effects.has(at, node);
        let mut cuts: BTreeMap<usize, Vec<Range<u64>>> = BTreeMap::new();
        for (node, range) in one.declared.layout.cuts(&is_kept) {
            if !is_dead(node) {
                cuts.entry(node).or_default().push(range.start as u64..range.end as u64);
            }
        }
        for (node, ranges) in cuts {
            let Some(what) = what(&one.declared.nodes[node].kind) else { continue };
            let Some((module, name)) = one.heads[node].clone() else { continue };
            let module = Some(module);
            let declaration =
                Dead { file: one.file, what, name, module, ranges, is_believed: false };
            liveness.kept.push(Kept { declaration, effect: one.effects[node] });
        }
    }
    liveness
}

fn what(kind: &NodeKind) -> Option<What> {
    Some(match kind {
        NodeKind::Function => What::Function,
        NodeKind::Class => What::Class,
        NodeKind::Variable | NodeKind::Statement => What::Variable,
        NodeKind::Member { .. } => What::Member,
        NodeKind::Import { .. } => What::Import,
    })
}

/// Reads a script; none that cannot be followed.
fn follow(
    record: &Record,
    texts: &dyn Texts,
    sources: &Sources<'_>,
    id: FileId,
) -> Option<Followed> {
    let file = record.file(id);
    let text = texts.emitted(id)?;
    let text = std::str::from_utf8(&text).ok().filter(|text| text.len() as u64 == file.emitted)?;
    let is_module = file.format == uvlet_record::Format::Es;
    let declared = declared(text, is_module).ok().filter(|declared| !declared.is_opaque)?;
    let origins = texts.origins(id).unwrap_or_default();
    let mut heads = Vec::with_capacity(declared.nodes.len());
    let mut effects = Vec::with_capacity(declared.nodes.len());
    let mut believed = Vec::with_capacity(declared.nodes.len());
    for node in &declared.nodes {
        let place = segment_at(&origins, node.head as u64).and_then(|segment| segment.origin);
        if node.kind == NodeKind::Statement {
            // All that is left of a variable whose name nobody takes; any other statement just runs.
            let left = place.and_then(|place| Some((place.module, sources.around(place)?)));
            effects.push(node.effect);
            believed.push(false);
            heads.push(left);
            continue;
        }
        let source = place.and_then(|place| sources.declaration(place));
        let is_free =
            source.as_ref().is_some_and(|source| source.is_believed && source.effect.is_none());
        effects.push(node.effect.filter(|_| !is_free));
        believed.push(node.is_believed || (node.effect.is_some() && is_free));
        heads.push(place.map(|place| {
            let name = source.map_or_else(|| node.name.clone(), |source| source.name);
            (place.module, name)
        }));
    }
    Some(Followed { file: id, declared, heads, effects, believed })
}

/// The segment that begins exactly there.
pub(crate) fn segment_at(origins: &[Segment], start: u64) -> Option<&Segment> {
    let at = origins.partition_point(|segment| segment.start < start);
    origins.get(at).filter(|segment| segment.start == start)
}

/// Files whose exports somebody may use who is not followed: what is loaded on demand, what pages
/// import by code of their own, and entries without a page.
fn opened(record: &Record, texts: &dyn Texts) -> Vec<FileId> {
    let mut opened: Vec<FileId> = record
        .dynamic_loads
        .iter()
        .filter(|load| load.kind == LoadKind::Import)
        .flat_map(|load| load.files.iter().copied())
        .collect();
    let pages = (0..record.files.len()).map(FileId::new);
    let pages: Vec<FileId> = pages.filter(|&id| record.file(id).kind == Kind::Page).collect();
    // The word in a page's text is taken for code, too.
    let imports = |id: &FileId| {
        let Some(text) = texts.emitted(*id) else { return true };
        memchr::memmem::find_iter(&text, b"import").any(|at| {
            matches!(text.get(at + 6), Some(b' ' | b'{' | b'(' | b'"' | b'\'' | b'*' | b'\n'))
        })
    };
    let all_pages = pages.iter().any(imports);
    for entry in &record.entries {
        if all_pages || entry.pages.is_empty() {
            opened.extend(entry.requested.iter().copied());
        }
    }
    opened
}
