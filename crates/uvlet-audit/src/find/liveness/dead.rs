//! What of the emitted code nothing uses, and what is kept for an effect alone.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_record::{FileId, ModuleId, Record, Texts};
use uvlet_script::declarations::Effect;

use crate::find::liveness::{
    follow::{What, follow_all, what},
    reach::Graph,
};

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
