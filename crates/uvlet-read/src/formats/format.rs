//! What a format is: it looks on while a script is walked, and takes note of what it knows.

use std::collections::{BTreeSet, HashSet};

use uvlet_record::Format;
use uvlet_script::{
    Script, Span,
    ast::{
        AssignmentExpression, CallExpression, ImportExpression, NewExpression, ObjectExpression,
        Program, VariableDeclarator,
    },
    at_once::{AtOnce, at_once},
    drawing::{Drawing, drawing},
};

use super::{
    file_names::FileName,
    routes::{Routed, routed},
};

/// A format that scripts are written in.
pub trait ScriptFormat {
    /// What it is called in records.
    fn format(&self) -> Format;

    /// Whether the script that was walked is of it.
    fn recognises(&self, script: &Script<'_>) -> bool;

    /// Looks at the whole before the walk.
    fn program(&mut self, _: &Program<'_>, _: &mut Found) {}

    /// Looks at a call.
    fn call(&mut self, _: &CallExpression<'_>, _: &mut Found) {}

    /// What a call fetches along with what is loaded in its arguments, as it names it.
    fn fetched_along(&self, _: &CallExpression<'_>) -> Option<Vec<String>> {
        None
    }

    /// Looks at an `import()`.
    fn import(&mut self, _: &ImportExpression<'_>, _: &mut Found) -> Walk {
        Walk::Inside
    }

    /// Whether it knows what an `import()` without a constant specifier fetches.
    fn knows_import(&self, _: &ImportExpression<'_>) -> bool {
        false
    }

    /// Looks at a `new`.
    fn construct(&mut self, _: &NewExpression<'_>, _: &mut Found) -> Walk {
        Walk::Inside
    }

    /// Looks at an assignment.
    fn assignment(&mut self, _: &AssignmentExpression<'_>, _: &mut Found) -> Walk {
        Walk::Inside
    }

    /// Looks at a variable.
    fn variable(&mut self, _: &VariableDeclarator<'_>, _: &mut Found) {}

    /// Looks at an object literal.
    fn object(&mut self, _: &ObjectExpression<'_>, _: &mut Found) {}

    /// What it knows of chunks goes there.
    fn finish(self: Box<Self>, _: &mut Chunks) {}
}

/// Whether what stands inside is still to be walked.
#[derive(Clone, Copy, PartialEq, Eq)]
pub enum Walk {
    Inside,
    On,
}

/// One `import()`, worker, or request for a chunk.
#[derive(Debug, PartialEq, Eq)]
pub struct DynamicCall {
    /// The specifier, or the chunk's id, as written.
    pub request: String,
    /// First byte of the call.
    pub at: u64,
    /// What is fetched along with it: files that a preload wrapper names, or further ids.
    pub along: Vec<String>,
    /// The id of the module that is then used.
    pub opens: Option<String>,
    /// The call is reached as the script runs.
    pub at_once: bool,
    /// The routes that it is for, as a router's table says.
    pub routes: Vec<String>,
    /// The key of the object property that holds it.
    pub key: Option<String>,
}

/// What is found in a script while it is walked.
#[derive(Debug, Default)]
pub struct Found {
    /// Specifiers of static loads in the order written, once each.
    pub loads: Vec<String>,
    loaded: HashSet<String>,
    /// What is asked for on demand, in the order written.
    pub imports: Vec<DynamicCall>,
    /// Places of `import()` calls whose specifier is put together as the code runs.
    pub unknown: Vec<u64>,
    /// URLs of worker scripts.
    pub workers: Vec<DynamicCall>,
    /// Chunks that are asked for on demand, by id.
    pub chunks: Vec<DynamicCall>,
    /// What is asked for on demand by keys that scripts tie to files, in the order written.
    pub keyed: Vec<DynamicCall>,
    /// Among these may be texts that only look like keys.
    pub keys_are_guessed: bool,
    /// URLs of other hosts that elements are given, in the order written.
    pub hosts: Vec<DynamicCall>,
    /// Names of files of the folder that stand in strings.
    pub assets: Vec<String>,
    /// What it draws first, where it has components that load.
    pub drawing: Option<Drawing>,
    /// Functions that are open around the place.
    pub(super) functions: usize,
    /// Conditions that are open around the place.
    pub(super) branches: usize,
}

impl Found {
    /// Takes note of a static load.
    pub fn load(&mut self, specifier: &str) {
        if self.loaded.insert(specifier.to_owned()) {
            self.loads.push(specifier.to_owned());
        }
    }

    /// A request that begins here.
    pub fn asked(&self, request: String, span: Span) -> DynamicCall {
        let at = u64::from(span.start);
        let at_once = self.functions == 0;
        let (along, routes) = (Vec::new(), Vec::new());
        DynamicCall { request, at, along, opens: None, at_once, routes, key: None }
    }

    /// It stands inside no function and no condition.
    pub fn is_sure_to_run(&self) -> bool {
        self.functions == 0 && self.branches == 0
    }

    pub fn is_in_function(&self) -> bool {
        self.functions > 0
    }

    /// Finds out which requests inside functions are made at once all the same.
    pub(super) fn mark_at_once(&mut self, script: &Script<'_>, has_tables: bool) {
        let place = |call: &DynamicCall| u32::try_from(call.at).ok();
        let lists = [&self.imports, &self.workers, &self.chunks, &self.keyed, &self.hosts]
            .into_iter()
            .flatten();
        let open: HashSet<u32> = lists.filter(|call| !call.at_once).filter_map(place).collect();
        if open.is_empty() {
            return;
        }
        let AtOnce { reached, wrapped } = at_once(&script.program, &open, has_tables);
        let lists = [&mut self.imports, &mut self.workers, &mut self.chunks];
        for call in lists.into_iter().chain([&mut self.keyed, &mut self.hosts]).flatten() {
            call.at_once |= place(call).is_some_and(|at| reached.contains(&at));
        }
        if wrapped.iter().any(|at| !reached.contains(at)) {
            self.drawing = Some(drawing(script, &open, has_tables));
        }
    }
}

impl DynamicCall {
    /// What is asked for at once: by ids, or one file by its name and what a wrapper names.
    pub fn requests(&self) -> impl Iterator<Item = &str> {
        std::iter::once(&self.request).chain(&self.along).map(String::as_str)
    }
}

impl Found {
    /// Finds out which routes requests are for.
    pub(super) fn mark_routes(&mut self, program: &Program<'_>) {
        let place = |call: &DynamicCall| u32::try_from(call.at).ok();
        let calls: HashSet<u32> =
            self.imports.iter().chain(&self.chunks).chain(&self.keyed).filter_map(place).collect();
        if calls.is_empty() {
            return;
        }
        let mut routed = routed(program, &calls);
        for call in self.imports.iter_mut().chain(&mut self.chunks).chain(&mut self.keyed) {
            if let Some(Routed { routes, key }) = place(call).and_then(|at| routed.remove(&at)) {
                (call.routes, call.key) = (routes, key);
            }
        }
    }
}

/// What a key fetches that is asked for on demand.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Opener {
    /// The id of a module, or of a file.
    pub key: String,
    /// Files, from the site's public path or by name, or other keys; there may be none to fetch.
    pub files: Vec<String>,
    /// The id of the module that is then used.
    pub opens: Option<String>,
}

/// What a script says of chunks, where it is part of a registry of modules.
#[derive(Debug, Default, Clone, PartialEq, Eq)]
pub struct Chunks {
    /// Ids of the chunks in this script.
    pub ids: Vec<String>,
    /// It registers a module table.
    pub registers: bool,
    /// Code of its own runs once it and the start-up chunks are there.
    pub starts: bool,
    /// Ids of chunks that must be there before its own code runs.
    pub startup: Vec<String>,
    /// The runtime stands in this script.
    pub runtime: bool,
    /// Modules stand in this script, whoever registers them.
    pub has_table: bool,
    /// How the runtime names the script of a chunk.
    pub scripts: Option<FileName>,
    /// How the runtime names the style of a chunk.
    pub styles: Option<FileName>,
    /// Ids of the chunks that have a style, where the runtime lists them.
    pub styled: BTreeSet<String>,
    /// Ids of the modules that it registers.
    pub modules: BTreeSet<String>,
    /// What keys fetch that any script may ask for.
    pub openers: Vec<Opener>,
}
