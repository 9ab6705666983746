//! Every declaration that can be told apart in the emitted scripts: where it stands, and who uses it.

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_record::{FileId, Kind, Mode, ModuleId, Owner, Record, Texts};

use crate::{
    find::liveness::{
        follow::{What, follow_all, what},
        reach::Graph,
    },
    parts::marks::State,
};

/// A declaration in an emitted script.
#[derive(Clone, Debug)]
pub struct Declaration {
    /// The file.
    pub file: FileId,
    /// The module that it comes from.
    pub module: ModuleId,
    /// Its name in the source.
    pub name: String,
    /// Its bytes.
    pub ranges: Vec<Range<u64>>,
    /// Whether it is used.
    pub state: State,
    /// Who uses it.
    pub users: Vec<User>,
}

/// Who uses a declaration.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum User {
    /// Another declaration.
    Declaration {
        /// Its module.
        module: ModuleId,
        /// Its name in the source.
        name: String,
    },
    /// Code that runs as its module is evaluated, or code that is not followed.
    Runs,
}

/// What is told of the declarations of a build.
#[derive(Clone, Debug, Default)]
pub struct Declarations {
    /// Those of all scripts that can be followed.
    pub list: Vec<Declaration>,
    /// Modules of which it is not told which declarations are left.
    untold: BTreeSet<ModuleId>,
}

impl Declarations {
    /// How a name stands that no declaration of a module has.
    #[must_use]
    pub fn absence(&self, module: ModuleId) -> State {
        if self.untold.contains(&module) { State::NotTold } else { State::Removed }
    }
}

/// Modules with text in scripts that were not followed; in a development build, where modules may stand
/// in functions or texts of their own, those of which nothing was told apart, too.
fn untold(
    record: &Record,
    followed: &BTreeSet<FileId>,
    told: &[Declaration],
) -> BTreeSet<ModuleId> {
    let told: BTreeSet<ModuleId> = told.iter().map(|one| one.module).collect();
    let cells = record
        .cells
        .iter()
        .filter(|cell| cell.amount.emitted > 0 && record.file(cell.file).kind == Kind::Script);
    let modules = cells.filter_map(|cell| match cell.owner {
        Owner::Module(id) => Some((id, cell.file)),
        _ => None,
    });
    let is_apart = |id: ModuleId| record.mode != Mode::Development || told.contains(&id);
    let untold = modules.filter(|(id, file)| !followed.contains(file) || !is_apart(*id));
    untold.map(|(id, _)| id).collect()
}

/// The declarations of all scripts that can be followed.
#[must_use]
pub fn declarations(record: &Record, texts: &dyn Texts) -> Declarations {
    let (followed, open) = follow_all(record, texts);
    let graph = Graph::new(record, &followed, &open);
    let (reached, without_effects) = (graph.reach(true), graph.reach(false));
    let users = graph.users();
    let mut found = Vec::new();
    for (at, one) in followed.iter().enumerate() {
        let mut ranges: BTreeMap<usize, Vec<Range<u64>>> = BTreeMap::new();
        for (node, range) in one.declared.layout.cuts(&|_| true) {
            ranges.entry(node).or_default().push(range.start as u64..range.end as u64);
        }
        for (node, ranges) in ranges {
            let is_name = matches!(
                what(&one.declared.nodes[node].kind),
                None | Some(What::Import | What::Member)
            );
            let Some((module, name)) = one.heads[node].clone().filter(|_| !is_name) else {
                continue;
            };
            let state = match (reached.has(at, node), without_effects.has(at, node)) {
                (false, _) => State::Unused,
                (true, false) => State::ForEffect,
                (true, true) => State::Used,
            };
            let own = (module, name.clone());
            let of = users.get(&(at, node)).into_iter().flatten();
            let mut users: Vec<User> = of
                .filter_map(|user| match user {
                    None => Some(User::Runs),
                    Some((script, node)) => {
                        // A member of an object goes by the name of what it is.
                        let user = graph.named(*script, *node).filter(|user| *user != own)?;
                        Some(User::Declaration { module: user.0, name: user.1 })
                    }
                })
                .collect();
            users.sort();
            users.dedup();
            found.push(Declaration { file: one.file, module, name, ranges, state, users });
        }
    }
    let files = followed.iter().map(|one| one.file).collect();
    Declarations { untold: untold(record, &files, &found), list: found }
}
