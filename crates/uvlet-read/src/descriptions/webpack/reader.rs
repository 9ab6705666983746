//! What one build's stats say, put together.

use std::{
    borrow::Cow,
    collections::{BTreeMap, HashMap, HashSet},
};

use foldhash::fast::RandomState;
use uvlet_record::{EdgeKind, ModuleFormat, Target, TargetBasis};

use super::{
    json::{Asset, Group, Json, Module, id_text, is_own_build, whole},
    lacks::Lacks,
    names::{
        edge_kind, external_name, group, group_of, is_merged, name_of, owned, parsed, path_in,
        plain, used,
    },
};
use crate::{
    descriptions::{
        described::{
            Capabilities, Described, DescribedEdge, DescribedEntry, DescribedFile, DescribedId,
            DescribedLoad, DescribedModule, Slot,
        },
        description::is_script,
    },
    files::marks::is_node_builtin,
};

#[derive(Default)]
pub(super) struct Reader<'a> {
    json: &'a str,
    pub(super) described: Described,
    /// The folder that names of modules are relative to.
    context: &'a str,
    /// Modules by name; asked for once per reason, of which there may be a hundred thousand.
    modules: HashMap<Cow<'a, str>, DescribedId, RandomState>,
    /// Files by path.
    files: HashMap<String, usize>,
    /// Edges from the asking module's name, until all modules are known.
    edges: Vec<Wanted<'a>>,
    /// Slots that are known already: file, first module, number of modules.
    slots: HashSet<(usize, Option<DescribedId>, usize)>,
    lacks: Lacks,
    plugin_scripts: bool,
    /// Files that are copies of modules, by the modules' names.
    copies: Vec<(usize, String)>,
}

/// An edge whose asking module is known by name only.
struct Wanted<'a> {
    from: Cow<'a, str>,
    to: DescribedId,
    kind: EdgeKind,
    request: Option<Cow<'a, str>>,
}

/// A group of files that arrive together: the module that asks, and its request.
type Asked<'a> = (&'a str, &'a str);

impl<'a> Reader<'a> {
    /// Of these stats, whose names are relative to a folder.
    pub(super) fn new(json: &'a str, context: &'a str) -> Self {
        Self { json, context, ..Self::default() }
    }

    /// Reads one compilation. A plugin's, inside another, has ids of its own for its chunks and
    /// begins nothing.
    pub(super) fn compilation(&mut self, stats: &'a Json<'a>, is_plugin: bool) {
        let mut of_chunk: HashMap<String, Vec<String>> = HashMap::new();
        self.assets(stats.assets.as_deref().unwrap_or_default(), &mut of_chunk);
        for chunk in stats.chunks.iter().flatten() {
            let id = chunk.id.and_then(id_text);
            let files: Vec<String> =
                chunk.files.iter().flatten().map(|file| plain(&file.0)).collect();
            for path in &files {
                let at = self.file(path);
                let file = &mut self.described.files[at];
                file.ids.extend(id.clone().filter(|_| !is_plugin));
                file.name =
                    file.name.take().or_else(|| chunk.names.iter().flatten().next().map(owned));
                if is_script(path) {
                    file.styles.extend(files.iter().filter(|file| !is_script(file)).cloned());
                    file.names
                        .extend(chunk.auxiliary_files.iter().flatten().map(|file| plain(&file.0)));
                }
            }
            if let Some(id) = id {
                of_chunk.insert(id, files);
            }
        }
        self.modules(stats.modules.as_deref().unwrap_or_default(), &of_chunk);
        // Where no runtime module is listed, it is these that were filtered.
        if self.lacks.has_runtime {
            self.lacks.hidden += stats.filtered_modules.unwrap_or(0);
        }
        if !is_plugin {
            self.entries(stats, &of_chunk);
        }
        self.dynamic_loads(stats);
        for plugin in stats.children.iter().flatten().filter(|child| !is_own_build(stats, child)) {
            // Who asks for its scripts is said nowhere.
            self.plugin_scripts |= plugin
                .assets
                .iter()
                .flatten()
                .any(|asset| asset.name.as_ref().is_some_and(|name| is_script(&name.0)));
            self.compilation(plugin, true);
        }
    }

    fn assets(&mut self, assets: &'a [Asset<'a>], of_chunk: &mut HashMap<String, Vec<String>>) {
        for asset in assets {
            if let Some(members) = &asset.children {
                self.assets(members, of_chunk);
            } else if let Some(name) = &asset.name {
                let path = plain(&name.0);
                let at = self.file(&path);
                #[expect(
                    clippy::cast_possible_truncation,
                    clippy::cast_sign_loss,
                    reason = "sizes are whole numbers"
                )]
                let bytes = asset.size.map(|size| size as u64);
                self.described.files[at].bytes = bytes;
                let info = asset.info.as_ref();
                if let Some(source) = info.and_then(|info| info.source_filename.as_ref()) {
                    self.copies.push((at, format!("./{}", source.0)));
                }
                for id in asset.chunks.iter().flatten().filter_map(|id| id_text(id)) {
                    of_chunk.entry(id).or_default().push(path.clone());
                }
            }
        }
    }

    fn file(&mut self, path: &str) -> usize {
        if let Some(&at) = self.files.get(path) {
            return at;
        }
        self.described
            .files
            .push(DescribedFile { path: path.to_owned(), ..DescribedFile::default() });
        self.files.insert(path.to_owned(), self.described.files.len() - 1);
        self.described.files.len() - 1
    }

    fn modules(&mut self, modules: &'a [Module<'a>], of_chunk: &HashMap<String, Vec<String>>) {
        for module in modules {
            if self.is_left_out(module) {
                continue;
            }
            if let Some(members) = group(module) {
                self.modules(members, of_chunk);
                continue;
            }
            if module.module_type.as_ref().is_some_and(|kind| kind.0 == "runtime") {
                self.runtime(module);
                continue;
            }
            let Some(at) = self.module(module) else {
                self.lacks.unnamed = true;
                continue;
            };
            let mut inner: Vec<(Option<i64>, DescribedId)> = Vec::new();
            self.merged(module.modules.as_deref().unwrap_or_default(), &mut inner);
            self.lacks.hidden += module.filtered_modules.unwrap_or(0);
            let name = module.name.as_ref().map_or("", |name| &name.0);
            self.lacks.merged |= inner.is_empty() && name != whole(name) && is_merged(module);
            for &(_, part) in inner.iter().filter(|(_, part)| *part != at) {
                self.described.modules[part.0].merged_into.get_or_insert(at);
            }
            // In the order of evaluation where it is known, which is the order in the text.
            if inner.iter().all(|(order, _)| order.is_some()) {
                inner.sort_by_key(|&(order, _)| order);
            }
            let parts = if inner.is_empty() {
                vec![at]
            } else {
                inner.into_iter().map(|(_, part)| part).collect()
            };
            let slot = Slot { id: module.id.and_then(id_text), modules: parts };
            let style = module.module_type.as_ref().is_some_and(|kind| kind.0.starts_with("css"));
            let chunks = module.chunks.iter().flatten().filter_map(|id| id_text(id));
            for path in chunks.filter_map(|id| of_chunk.get(&id)).flatten() {
                let Some(&file) = self.files.get(path) else { continue };
                // A slot is known by where it is and what it begins with.
                let key = (file, slot.modules.first().copied(), slot.modules.len());
                if is_script(path) != style && self.slots.insert(key) {
                    self.described.files[file].slots.push(slot.clone());
                }
            }
        }
    }

    /// Counts what a group leaves out; whether it is nothing but such a count.
    fn is_left_out(&mut self, module: &Module<'_>) -> bool {
        let count = module.filtered_children.unwrap_or(0);
        let is_orphans = module.r#type.as_ref().is_some_and(|kind| kind.0 == "orphan modules");
        self.lacks.orphans |= is_orphans && count > 0;
        self.lacks.hidden += if is_orphans { 0 } else { count };
        count > 0 && module.children.is_none() && module.name.is_none()
    }

    /// Modules merged into one, at any depth.
    fn merged(&mut self, modules: &'a [Module<'a>], inner: &mut Vec<(Option<i64>, DescribedId)>) {
        for module in modules {
            if self.is_left_out(module) {
                continue;
            }
            if let Some(members) = group(module) {
                self.merged(members, inner);
            } else if let Some(nested) = &module.modules {
                self.merged(nested, inner);
            } else if let Some(at) = self.module(module) {
                inner.push((module.post_order_index, at));
            }
        }
    }

    /// Why a module is there: who asks for it.
    fn reasons(&mut self, at: DescribedId, module: &'a Module<'a>, is_style: bool) {
        self.lacks.reasons |= module.reasons.is_none();
        self.lacks.some_reason |= module.reasons.is_some();
        for reason in module.reasons.iter().flat_map(|reasons| &reasons.0) {
            if reason.r#type.0.starts_with("cjs") {
                self.described.modules[at.0].format = Some(ModuleFormat::CommonJs);
            }
            let Some(kind) = edge_kind(&reason.r#type.0, is_style) else { continue };
            let Some(from) = &reason.from else { continue };
            let identifier = reason.identifier.as_ref();
            let member = identifier.and_then(|identifier| self.member(&identifier.0));
            let from = match (member, &from.0) {
                (Some(member), _) => Cow::Owned(member),
                (None, Cow::Borrowed(name)) => Cow::Borrowed(whole(name)),
                (None, Cow::Owned(name)) => Cow::Owned(whole(name).to_owned()),
            };
            let request = reason.request.as_ref().map(|request| request.0.clone());
            self.edges.push(Wanted { from, to: at, kind, request });
        }
    }

    /// A module's own name: a part of a whole may be called by the name of that.
    fn own_name(&self, module: &'a Module<'a>) -> Option<Cow<'a, str>> {
        let stands_for_several =
            module.name.as_ref().is_some_and(|name| whole(&name.0) != name.0) && !is_merged(module);
        let identifier = module.identifier.as_ref().filter(|_| stands_for_several);
        let member = identifier.and_then(|identifier| self.member(&identifier.0));
        member.map(Cow::Owned).or_else(|| name_of(module).map(Cow::Borrowed))
    }

    /// The name of a part of a whole, by its identifier.
    fn member(&self, identifier: &str) -> Option<String> {
        let path = path_in(identifier).filter(|_| !self.context.is_empty())?;
        Some(format!("./{}", path.strip_prefix(self.context)?))
    }

    /// Takes note of a module; one that was met before gains what was not known then.
    fn module(&mut self, module: &'a Module<'a>) -> Option<DescribedId> {
        let name = self.own_name(module)?;
        let next = DescribedId(self.described.modules.len());
        let at = *self.modules.entry(name.clone()).or_insert(next);
        if at == next {
            let external = name.starts_with("external ");
            let raw = if external { external_name(&name).to_owned() } else { name.into_owned() };
            self.described.modules.push(DescribedModule {
                raw,
                external,
                ..DescribedModule::default()
            });
        }
        let is_merged = is_merged(module);
        let text = module.source.filter(|_| !is_merged).map(|raw| {
            let start = raw.get().as_ptr() as usize - self.json.as_ptr() as usize;
            start..start + raw.get().len()
        });
        let described = &mut self.described.modules[at.0];
        if !is_merged {
            #[expect(
                clippy::cast_possible_truncation,
                clippy::cast_sign_loss,
                reason = "sizes are whole numbers"
            )]
            let size = module.size.map(|size| size as u64);
            described.bytes = described.bytes.or(size);
            described.text = described.text.take().or(text);
        }
        described.provides = described.provides.take().or_else(|| parsed(module.provided_exports));
        described.used = described.used.take().or_else(|| used(module.used_exports));
        if described.bailouts.is_empty() {
            described.bailouts = parsed(module.optimization_bailout).unwrap_or_default();
        }
        let kind = module.module_type.as_ref().map_or("", |kind| &*kind.0);
        let is_style = kind.starts_with("css");
        let plain = match kind {
            "json" => Some(ModuleFormat::Json),
            "javascript/esm" => Some(ModuleFormat::Es),
            _ if is_style => Some(ModuleFormat::Style),
            _ => None,
        };
        described.format = described.format.or(plain);
        self.reasons(at, module, is_style);
        Some(at)
    }

    /// The bundler's own code tells where it can run.
    fn runtime(&mut self, module: &Module<'_>) {
        self.lacks.has_runtime = true;
        let name = module.name.as_ref().map_or("", |name| &name.0);
        let target = match name.rsplit('/').next().unwrap_or(name) {
            "require chunk loading"
            | "readFile chunk loading"
            | "require_chunk_loading"
            | "readfile_chunk_loading" => Target::Server,
            "jsonp chunk loading" | "load script" | "jsonp_chunk_loading" | "load_script" => {
                Target::Browser
            }
            _ => return,
        };
        let basis = match target {
            Target::Server => TargetBasis::ReadsFiles,
            _ => TargetBasis::ScriptTags,
        };
        self.described.target.get_or_insert((target, basis));
    }

    fn entries(&mut self, stats: &'a Json<'a>, of_chunk: &HashMap<String, Vec<String>>) {
        // Only these begin something: `namedChunkGroups` holds named `import()`s too.
        let Some(groups) = &stats.entrypoints else { return };
        for (name, group) in &groups.0 {
            let roots = self.roots(stats, &name.0, group);
            let files: Vec<String> = match &group.assets {
                Some(assets) => assets.iter().map(|asset| plain(asset.name())).collect(),
                None => {
                    let chunks = group.chunks.iter().flatten().filter_map(|id| id_text(id));
                    chunks.filter_map(|id| of_chunk.get(&id).cloned()).flatten().collect()
                }
            };
            let files = files.into_iter().filter(|file| !file.ends_with(".map")).collect();
            self.described.entries.push(DescribedEntry { name: owned(name), files, roots });
        }
    }

    /// Modules that an entry starts with: those that say so with its name, else those in its chunks.
    fn roots(&self, stats: &'a Json<'a>, name: &str, group: &Group<'_>) -> Vec<DescribedId> {
        let chunks: Vec<String> =
            group.chunks.iter().flatten().filter_map(|id| id_text(id)).collect();
        let mut roots = Vec::new();
        let mut open: Vec<&Module<'_>> = stats.modules.iter().flatten().collect();
        while let Some(module) = open.pop() {
            if let Some(members) = group_of(module) {
                open.extend(members);
                continue;
            }
            let mut entries = module
                .reasons
                .iter()
                .flat_map(|reasons| &reasons.0)
                .filter(|reason| matches!(&*reason.r#type.0, "entry" | "single entry"))
                .peekable();
            if entries.peek().is_none() {
                continue;
            }
            let here = module.chunks.iter().flatten().filter_map(|id| id_text(id));
            let in_chunks = here.into_iter().any(|id| chunks.contains(&id));
            let is_root = entries.any(|reason| match &reason.entry {
                Some(entry) => entry.0 == name,
                None => in_chunks,
            });
            if is_root && let Some(&at) = name_of(module).and_then(|name| self.modules.get(name)) {
                roots.push(at);
            }
        }
        roots.sort_unstable();
        roots.dedup();
        roots
    }

    /// Chunks with the same origin arrive together.
    fn dynamic_loads(&mut self, stats: &'a Json<'a>) {
        let mut groups: BTreeMap<Asked<'a>, Vec<String>> = BTreeMap::new();
        for chunk in stats.chunks.iter().flatten() {
            for origin in chunk.origins.iter().flatten() {
                let Some(module) = origin.module_name.as_ref().filter(|name| !name.0.is_empty())
                else {
                    continue;
                };
                let request = origin.request.as_ref().or(origin.loc.as_ref());
                let key = (&*module.0, request.map_or("", |text| &*text.0));
                let files = groups.entry(key).or_default();
                files.extend(chunk.files.iter().flatten().map(|file| plain(&file.0)));
            }
        }
        for ((module, request), files) in groups {
            if let Some(&module) = self.modules.get(whole(module)) {
                let request = request.to_owned();
                self.described.loads.push(DescribedLoad { module, request, files });
            }
        }
    }

    pub(super) fn finish(&mut self, stats: &Json<'_>) {
        for Wanted { from, to, kind, request } in std::mem::take(&mut self.edges) {
            if let Some(&from) = self.modules.get(&from).filter(|&&from| from != to) {
                if kind == EdgeKind::Require {
                    self.described.modules[from.0].format = Some(ModuleFormat::CommonJs);
                }
                let request = request.map(Cow::into_owned);
                let edge = DescribedEdge { from, to, kind, request, names: None };
                self.described.edges.push(edge);
            }
        }
        for (file, module) in std::mem::take(&mut self.copies) {
            self.described.files[file].source = self.modules.get(module.as_str()).copied();
        }
        // A bundle of one file loads no chunk that would tell where it runs.
        let mut externals = self.described.modules.iter().filter(|module| module.external);
        if let Some(builtin) = externals.find(|module| is_node_builtin(&module.raw)) {
            let basis = TargetBasis::Imports { module: builtin.raw.clone() };
            self.described.target.get_or_insert((Target::Server, basis));
        }
        let mut chunks = stats.chunks.iter().flatten().peekable();
        let has_chunks = chunks.peek().is_some();
        let has_origins = has_chunks && chunks.all(|chunk| chunk.origins.is_some());
        self.described.can = Capabilities {
            says_loads: has_origins && stats.entrypoints.is_some() && !self.plugin_scripts,
            gives_names: true,
            has_tables: true,
        };
        self.described.errors =
            stats.errors_count.unwrap_or(stats.errors.as_ref().map_or(0, |e| e.len() as u64));
        self.lacks.assets = stats.assets.is_none();
        self.lacks.entries = stats.entrypoints.is_none();
        self.lacks.chunks = !has_chunks;
        self.lacks.origins = has_chunks && !has_origins;
        self.lacks.modules = self.described.modules.is_empty();
        self.described.lacks = self.lacks.list();
    }
}
