//! From code that runs to all that it uses, over all scripts.

use std::collections::{BTreeSet, HashMap, HashSet};

use uvlet_record::{Edge, EdgeBasis, FileId, ModuleId, Record};
use uvlet_script::declarations::{NodeKind, Use};

use crate::find::liveness::follow::Followed;

/// A node: the script's place in the list, and its own.
pub type Id = (usize, usize);

/// The scripts, and how their names hang together.
pub struct Graph<'f> {
    scripts: &'f [Followed],
    /// What an import leads to.
    targets: HashMap<Id, Target>,
    /// Members of namespace objects.
    members: HashMap<Id, Vec<Id>>,
    keys: HashMap<(Id, &'f str), Id>,
    /// Used by what is not seen.
    open: Vec<(usize, Use)>,
    /// Own modules that run for what they do: an entry begins with them, or nobody takes a name of them.
    started: HashSet<ModuleId>,
}

/// What an import leads to.
#[derive(Clone)]
enum Target {
    /// One export.
    One(usize, Use),
    /// All exports of a script.
    Whole(usize),
}

/// What was reached.
pub struct Reached {
    by_script: Vec<Vec<bool>>,
}

impl Reached {
    pub fn has(&self, script: usize, node: usize) -> bool {
        self.by_script[script][node]
    }
}

impl<'f> Graph<'f> {
    pub fn new(record: &Record, scripts: &'f [Followed], open: &BTreeSet<FileId>) -> Self {
        let at: HashMap<FileId, usize> =
            scripts.iter().enumerate().map(|(at, one)| (one.file, at)).collect();
        let mut graph = Self {
            scripts,
            targets: HashMap::new(),
            members: HashMap::new(),
            keys: HashMap::new(),
            open: Vec::new(),
            started: started(record),
        };
        let mut whole: BTreeSet<usize> =
            open.iter().filter_map(|file| at.get(file).copied()).collect();
        for (script, one) in scripts.iter().enumerate() {
            let target = |request: &str| {
                resolve(record, one.file, request).and_then(|file| at.get(&file).copied())
            };
            for (node, known) in one.declared.nodes.iter().enumerate() {
                match &known.kind {
                    NodeKind::Import { request, name } => {
                        let Some(to) = target(request) else { continue };
                        let found = match name {
                            None => Some(Target::Whole(to)),
                            Some(name) => {
                                export(&scripts[to], name).map(|used| Target::One(to, used))
                            }
                        };
                        match found {
                            Some(found) => {
                                graph.targets.insert((script, node), found);
                            }
                            // It comes from what the other hands on.
                            None => {
                                whole.insert(to);
                            }
                        }
                    }
                    NodeKind::Member { of, key } => {
                        graph.members.entry((script, *of)).or_default().push((script, node));
                        graph.keys.insert(((script, *of), key), (script, node));
                    }
                    NodeKind::Function
                    | NodeKind::Class
                    | NodeKind::Variable
                    | NodeKind::Statement => {}
                }
            }
            for request in &one.declared.hands_on {
                whole.extend(target(request));
                // What others take from it may come from there.
                whole.insert(script);
            }
        }
        for script in whole {
            graph.all_exports(script);
        }
        for (script, one) in scripts.iter().enumerate() {
            for &(object, helper) in &one.declared.made_by {
                if !graph.is_definer((script, helper)) {
                    graph.open.push((script, Use::All(object)));
                }
            }
        }
        graph
    }

    fn all_exports(&mut self, script: usize) {
        let exports = self.scripts[script].declared.exports.iter();
        self.open.extend(exports.map(|(_, used)| (script, whole(used))));
    }

    /// Whether an imported helper gives an object getters, and does nothing else.
    fn is_definer(&self, helper: Id) -> bool {
        let Some(Target::One(script, Use::Node(node))) = self.targets.get(&helper) else {
            return false;
        };
        self.scripts[*script].declared.nodes[*node].is_definer
    }

    /// The module and source name of a node; of a mere name, those of what it names.
    pub fn named(&self, script: usize, node: usize) -> Option<(ModuleId, String)> {
        let mut id = (script, node);
        // A chain of names is short; a circle of them ends, too.
        for _ in 0..8 {
            let one = &self.scripts[id.0];
            id = match &one.declared.nodes[id.1].kind {
                NodeKind::Import { .. } => match self.targets.get(&id)? {
                    Target::One(to, Use::Node(node) | Use::All(node)) => (*to, *node),
                    _ => return None,
                },
                NodeKind::Member { of, .. } => match one.declared.values.get(&id.1) {
                    Some(value) => (id.0, *value),
                    None => (id.0, *of),
                },
                _ => return one.heads[id.1].clone(),
            };
        }
        None
    }

    /// The declarations that a use leads to, past names.
    fn leads_to(&self, script: usize, used: &Use) -> Option<Id> {
        let mut id = match used {
            Use::Node(node) | Use::All(node) => (script, *node),
            Use::Member(member) => (script, *self.scripts[script].declared.values.get(member)?),
            Use::MemberOf(node, key) | Use::CalledOf(node, key) => {
                match self.targets.get(&(script, *node))? {
                    Target::Whole(to) => match export(&self.scripts[*to], key)? {
                        Use::Node(node) | Use::All(node) => (*to, node),
                        _ => return None,
                    },
                    Target::One(to, Use::Node(node) | Use::All(node)) => {
                        let member = self.keys.get(&((*to, *node), key.as_str()));
                        let value =
                            member.and_then(|(_, one)| self.scripts[*to].declared.values.get(one));
                        (*to, value.copied().unwrap_or(*node))
                    }
                    Target::One(..) => return None,
                }
            }
        };
        for _ in 0..8 {
            let Some(Target::One(to, Use::Node(node) | Use::All(node))) = self.targets.get(&id)
            else {
                break;
            };
            id = (*to, *node);
        }
        Some(id)
    }

    /// Per declaration, who uses it: other declarations, or (none) code that runs.
    pub fn users(&self) -> HashMap<Id, BTreeSet<Option<Id>>> {
        let mut users: HashMap<Id, BTreeSet<Option<Id>>> = HashMap::new();
        for (script, one) in self.scripts.iter().enumerate() {
            for used in &one.declared.roots {
                if let Some(id) = self.leads_to(script, used) {
                    users.entry(id).or_default().insert(None);
                }
            }
            for (node, known) in one.declared.nodes.iter().enumerate() {
                for used in &known.uses {
                    if let Some(id) = self.leads_to(script, used).filter(|id| *id != (script, node))
                    {
                        users.entry(id).or_default().insert(Some((script, node)));
                    }
                }
            }
        }
        for (script, used) in &self.open {
            if let Some(id) = self.leads_to(*script, used) {
                users.entry(id).or_default().insert(None);
            }
        }
        users
    }

    /// Reaches from code that runs; `with_effects` says that what may do something runs.
    pub fn reach(&self, with_effects: bool) -> Reached {
        let by_script =
            self.scripts.iter().map(|one| vec![false; one.declared.nodes.len()]).collect();
        let mut walk = Walk {
            graph: self,
            reached: Reached { by_script },
            seen: HashSet::new(),
            open: Vec::new(),
        };
        for (script, used) in &self.open {
            walk.used(*script, used);
        }
        for (script, one) in self.scripts.iter().enumerate() {
            for used in &one.declared.roots {
                walk.used(script, used);
            }
            for (node, known) in one.declared.nodes.iter().enumerate() {
                let is_declared =
                    !matches!(known.kind, NodeKind::Import { .. } | NodeKind::Member { .. });
                // What no segment names is not told apart with certainty.
                let is_unknown = one.heads[node].is_none();
                let is_started = || {
                    let head = one.heads[node].as_ref();
                    head.is_some_and(|(module, _)| self.started.contains(module))
                };
                let runs = one.effects[node].is_some() && (with_effects || is_started());
                if is_declared && (is_unknown || runs) {
                    walk.push((script, node), Depth::Itself);
                }
            }
        }
        walk.run();
        walk.reached
    }
}

/// Own modules that are evaluated for what they do. A call in a declaration there that nobody uses is what
/// the program is for, as in `const app = mount(App)`.
fn started(record: &Record) -> HashSet<ModuleId> {
    let roots = record.entries.iter().flat_map(|entry| entry.roots.iter().copied());
    let is_bare = |edge: &&Edge| {
        edge.basis != EdgeBasis::Inferred && edge.names.as_ref().is_some_and(Vec::is_empty)
    };
    let bare = record.edges.iter().filter(is_bare);
    let own = |id: &ModuleId| !record.module(*id).third_party;
    roots.chain(bare.map(|edge| edge.to)).filter(own).collect()
}

/// The same, of every member.
fn whole(used: &Use) -> Use {
    match used {
        Use::Node(node) => Use::All(*node),
        used => used.clone(),
    }
}

/// How far something is used.
#[derive(Clone, Copy, PartialEq, Eq, Hash)]
enum Depth {
    /// With all that it uses itself.
    Itself,
    /// With every member that can be read of it, too.
    Whole,
}

struct Walk<'g, 'f> {
    graph: &'g Graph<'f>,
    reached: Reached,
    seen: HashSet<(Id, Depth)>,
    open: Vec<(Id, Depth)>,
}

impl Walk<'_, '_> {
    fn push(&mut self, id: Id, depth: Depth) {
        self.name(id);
        if self.seen.insert((id, depth)) {
            self.open.push((id, depth));
        }
    }

    /// Something whose name is there, and no more.
    fn name(&mut self, id: Id) {
        self.reached.by_script[id.0][id.1] = true;
    }

    fn run(&mut self) {
        while let Some((id, depth)) = self.open.pop() {
            let graph = self.graph;
            for used in &graph.scripts[id.0].declared.nodes[id.1].uses {
                self.used(id.0, used);
            }
            match graph.targets.get(&id) {
                // A name that is imported stands for all of what it names.
                Some(Target::One(to, used)) => self.used(*to, &whole(used)),
                Some(Target::Whole(to)) => {
                    for (_, used) in &graph.scripts[*to].declared.exports {
                        self.used(*to, &whole(used));
                    }
                }
                None => {}
            }
            if depth == Depth::Whole {
                for member in graph.members.get(&id).into_iter().flatten() {
                    self.push(*member, Depth::Itself);
                }
            }
        }
    }

    fn used(&mut self, script: usize, used: &Use) {
        match used {
            Use::Node(node) => self.push((script, *node), Depth::Itself),
            Use::Member(member) => {
                match self.graph.scripts[script].declared.values.contains_key(member) {
                    true => self.name((script, *member)),
                    false => self.push((script, *member), Depth::Itself),
                }
            }
            Use::All(node) => self.push((script, *node), Depth::Whole),
            Use::MemberOf(node, key) => self.member_of((script, *node), key, false),
            Use::CalledOf(node, key) => self.member_of((script, *node), key, true),
        }
    }

    /// One member of what is imported. What is called with the object as `this`, and looks at it, may
    /// read all the others.
    fn member_of(&mut self, import: Id, key: &str, is_called: bool) {
        let graph = self.graph;
        let without_this =
            |script: usize, node: usize| graph.scripts[script].declared.nodes[node].is_without_this;
        match graph.targets.get(&import) {
            Some(Target::Whole(to)) => match export(&graph.scripts[*to], key) {
                Some(Use::Node(node)) if !is_called || without_this(*to, node) => {
                    self.name(import);
                    self.push((*to, node), Depth::Whole);
                }
                _ => self.push(import, Depth::Whole),
            },
            Some(Target::One(to, Use::Node(node))) if graph.members.contains_key(&(*to, *node)) => {
                let object = (*to, *node);
                let member = graph.keys.get(&(object, key)).copied();
                let value = member
                    .and_then(|(_, one)| graph.scripts[*to].declared.values.get(&one).copied());
                if is_called && !value.is_some_and(|value| without_this(*to, value)) {
                    self.push(import, Depth::Whole);
                    return;
                }
                self.name(import);
                self.push(object, Depth::Itself);
                if let Some(member) = member {
                    self.push(member, Depth::Itself);
                }
            }
            _ => self.push(import, Depth::Whole),
        }
    }
}

/// What a script exports under a name.
fn export(script: &Followed, name: &str) -> Option<Use> {
    script.declared.exports.iter().find(|(known, _)| known == name).map(|(_, used)| used.clone())
}

/// The file that an import leads to.
fn resolve(record: &Record, from: FileId, request: &str) -> Option<FileId> {
    let request = request.split(['?', '#']).next().unwrap_or(request);
    let last = request.rsplit('/').next().unwrap_or(request);
    let mut found = record.file(from).loads.iter().copied().filter(|&file| {
        let path = record.file(file).path.as_str();
        path == last || path.strip_suffix(last).is_some_and(|before| before.ends_with('/'))
    });
    let first = found.next()?;
    if found.next().is_none() {
        return Some(first);
    }
    // Of several files of one name, the one that the path leads to.
    let folder = record.file(from).path.rsplit_once('/').map_or("", |(folder, _)| folder);
    let mut parts: Vec<&str> = folder.split('/').filter(|part| !part.is_empty()).collect();
    for part in request.split('/') {
        match part {
            "." | "" => {}
            ".." => {
                parts.pop();
            }
            part => parts.push(part),
        }
    }
    let path = parts.join("/");
    let mut loads = record.file(from).loads.iter().copied();
    loads.find(|&file| record.file(file).path == path)
}
