//! Follows names through files on disk that only hand on what others give.

use std::{
    collections::{BTreeSet, HashMap, HashSet},
    sync::{Arc, Mutex},
};

use uvlet_record::ModuleId;
use uvlet_script::requests::{Kind, Request};

use super::super::{
    resolve::{Meant, folder},
    sources::{self, SourceFacts},
};
use crate::{
    assemble::edges::vanished::requests::{Givers, Vanished},
    project::read_file,
};

/// Bytes of a source that is read.
const LONGEST: u64 = 16 << 20;

/// Files that a name is followed through.
const DEEPEST: usize = 32;

/// Files on disk that were read.
#[derive(Default)]
pub struct Files(Mutex<HashMap<String, Option<Arc<SourceFacts>>>>);

/// What a file that left no byte leads to.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Step {
    /// Where the file lies.
    pub from: String,
    /// As it asks for it; none where that is not known.
    pub request: Option<String>,
    /// The names that it takes.
    pub names: Option<Vec<String>>,
    pub to: Target,
}

/// What is led to.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Target {
    Module(ModuleId),
    /// Another file that left no byte.
    File(String),
}

/// A walk through files that left no byte.
pub struct Walk<'w, 'a> {
    pub vanished: &'w Vanished<'a>,
    pub files: &'w Files,
    /// Modules by the names that they give.
    pub givers: &'w Givers<'w>,
    /// What is found: modules, and the names that they are taken by.
    pub found: BTreeSet<(ModuleId, Option<String>)>,
    /// What the files lead to.
    pub steps: BTreeSet<Step>,
    /// Files that give names themselves, and so are built of others.
    pub built: BTreeSet<String>,
    seen: HashSet<(String, String)>,
}

impl<'w, 'a> Walk<'w, 'a> {
    pub fn new(vanished: &'w Vanished<'a>, files: &'w Files, givers: &'w Givers<'w>) -> Self {
        let (found, steps, seen) = (BTreeSet::new(), BTreeSet::new(), HashSet::new());
        Self { vanished, files, givers, found, steps, built: BTreeSet::new(), seen }
    }

    fn read(&self, location: &str) -> Option<Arc<SourceFacts>> {
        let mut known = self.files.0.lock().ok()?;
        if let Some(known) = known.get(location) {
            return known.clone();
        }
        let read = || {
            let path = self.vanished.resolver.disk(location)?;
            let text = String::from_utf8(read_file(&path, LONGEST)?).ok()?;
            let facts = sources::facts(location, &text);
            // What is no ES module vanishes only where nothing can reach it.
            facts.requests.is_module.then(|| Arc::new(facts))
        };
        let facts = read();
        known.insert(location.to_owned(), facts.clone());
        facts
    }

    fn step(&mut self, location: &str, ask: &Request, to: Target) {
        let (request, names) = (Some(ask.specifier.clone()), ask.names.clone());
        self.steps.insert(Step { from: location.to_owned(), request, names, to });
    }

    fn meant(&self, location: &str, ask: &Request) -> Meant {
        let package = self.vanished.resolver.package_around(location);
        self.vanished.resolver.resolve_in(folder(location), package, ask)
    }

    /// Follows a name that a file gives; `taken` is what the asking module calls it. Whether it was
    /// found.
    pub fn name(&mut self, location: &str, name: &str, taken: &str, depth: usize) -> bool {
        if depth > DEEPEST || !self.seen.insert((location.to_owned(), name.to_owned())) {
            return false;
        }
        let Some(facts) = self.read(location) else { return false };
        let requests = &facts.requests;
        if let Some(give) = requests.gives.iter().find(|give| give.name == name) {
            let Some((ask, inside)) = &give.from else {
                self.of_sources(location, name, taken);
                self.built.insert(location.to_owned());
                return true;
            };
            self.hand_on(location, &requests.asks[*ask], inside.as_deref(), taken, depth);
            return true;
        }
        requests.gives_all_of.iter().any(|&ask| {
            let ask = &requests.asks[ask];
            let meant = self.meant(location, ask);
            if let Meant::Module(id) = meant {
                let gives = self.gives(id, name, &mut HashSet::new());
                if gives {
                    self.step(location, ask, Target::Module(id));
                    self.found.insert((id, Some(taken.to_owned())));
                }
                return gives;
            }
            let Some(next) = meant.vanished_file() else { return false };
            let gives = self.name(next, name, taken, depth + 1);
            if gives {
                self.step(location, ask, Target::File(next.to_owned()));
            }
            gives
        })
    }

    /// A file that gives a name itself, and is none of the build's, may be built of sources that are: the
    /// one of its package that gives the name.
    fn of_sources(&mut self, location: &str, name: &str, taken: &str) {
        let around = self.vanished.resolver.package_around(location);
        let givers = self.givers.get(name).into_iter().flatten().copied();
        let package = |id: ModuleId| self.vanished.record.module(id).package;
        let mut givers = givers.filter(|id| around.is_some() && package(*id) == around);
        if let (Some(only), None) = (givers.next(), givers.next()) {
            let (from, names) = (location.to_owned(), Some(vec![name.to_owned()]));
            self.steps.insert(Step { from, request: None, names, to: Target::Module(only) });
            self.found.insert((only, Some(taken.to_owned())));
        }
    }

    /// Whether a module of the build gives a name, by itself or from others.
    fn gives(&self, id: ModuleId, name: &str, seen: &mut HashSet<ModuleId>) -> bool {
        let Some(Some(facts)) = self.vanished.facts.get(id.at()) else { return true };
        let requests = &facts.requests;
        if !requests.is_module || requests.gives.iter().any(|give| give.name == name) {
            return true;
        }
        seen.insert(id)
            && requests.gives_all_of.iter().any(|&ask| {
                match self.vanished.resolver.resolve(id, &requests.asks[ask]) {
                    Meant::Module(next) => self.gives(next, name, seen),
                    _ => false,
                }
            })
    }

    fn hand_on(
        &mut self,
        location: &str,
        ask: &Request,
        name: Option<&str>,
        taken: &str,
        depth: usize,
    ) {
        let meant = self.meant(location, ask);
        if let Meant::Module(id) = meant {
            self.step(location, ask, Target::Module(id));
            self.found.insert((id, Some(taken.to_owned())));
        }
        let Some(next) = meant.vanished_file() else { return };
        self.step(location, ask, Target::File(next.to_owned()));
        match name {
            Some(name) => {
                self.name(next, name, taken, depth + 1);
                self.effects(next, depth + 1);
            }
            None => self.all(next, depth + 1),
        }
    }

    /// What a file asks for only for what it does.
    pub fn effects(&mut self, location: &str, depth: usize) {
        let Some(facts) = self.read(location).filter(|_| depth <= DEEPEST) else { return };
        let is_effect = |ask: &&Request| {
            ask.kind == Kind::Import && ask.names.as_ref().is_some_and(Vec::is_empty)
        };
        for ask in facts.requests.asks.iter().filter(is_effect) {
            if let Meant::Module(id) = self.meant(location, ask) {
                self.step(location, ask, Target::Module(id));
                self.found.insert((id, None));
            }
        }
    }

    /// Everything that a file hands on.
    pub fn all(&mut self, location: &str, depth: usize) {
        if depth > DEEPEST || !self.seen.insert((location.to_owned(), String::new())) {
            return;
        }
        let Some(facts) = self.read(location) else { return };
        let statically =
            |ask: &&Request| matches!(ask.kind, Kind::Import | Kind::Reexport | Kind::Require);
        for ask in facts.requests.asks.iter().filter(statically) {
            let meant = self.meant(location, ask);
            if let Meant::Module(id) = meant {
                self.step(location, ask, Target::Module(id));
                self.found.insert((id, None));
            }
            if let Some(next) = meant.vanished_file() {
                self.step(location, ask, Target::File(next.to_owned()));
                self.all(next, depth + 1);
            }
        }
    }
}
