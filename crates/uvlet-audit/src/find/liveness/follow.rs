//! Scripts with what they declare, and what somebody may use who is not followed.

use std::collections::BTreeSet;

use rayon::iter::{IntoParallelRefIterator, ParallelIterator};
use uvlet_record::{FileId, Kind, LoadKind, ModuleId, Record, Segment, Texts};
use uvlet_script::declarations::{Declared, Effect, NodeKind, declared};

use crate::find::liveness::sources::Sources;

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

/// A script with what it declares.
pub(crate) struct Followed {
    pub(crate) file: FileId,
    pub(crate) declared: Declared,
    /// Per node: the module and source name at its head, where a segment begins exactly there.
    pub(crate) heads: Vec<Option<(ModuleId, String)>>,
    /// Per node: what its evaluation may do.
    pub(crate) effects: Vec<Option<Effect>>,
    /// Per node: a comment was believed.
    pub(crate) believed: Vec<bool>,
}

/// Reads the scripts of a build; and the files that somebody may use who is not followed.
pub(crate) fn follow_all(record: &Record, texts: &dyn Texts) -> (Vec<Followed>, BTreeSet<FileId>) {
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

pub(crate) fn what(kind: &NodeKind) -> Option<What> {
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
