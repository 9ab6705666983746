//! Takes a script without a source map apart: which stretch of it is which module, as far as the
//! bundler's description and the code tell.
//!
//! A table of module functions is keyed by the ids that the description names; a function's span is
//! its module's. What follows the table is the runtime, and behind it an entry module may stand bare,
//! without a function. Modules that were merged into one function are told apart by the
//! [`words`](crate::formats::merged) of their sources.

use std::{
    cell::Cell,
    collections::{HashMap, HashSet},
    ops::Range,
};

use uvlet_record::{Basis, EdgeKind, ModuleFormat, Used};
use uvlet_script::{Dialect, Script, Span, span::range, words::Words};

use crate::{
    descriptions::described::{Described, DescribedFile, DescribedId, DescribedModule, Slot},
    formats::{
        merged::{self, Hint, Share},
        registry::{bare::bare_units, table::Table},
    },
};

/// A stretch of the script, to the beginning of the next.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct ModuleSpan {
    /// First byte.
    pub start: usize,
    /// The module among those that the bundler names; none for the bundler's own code.
    pub module: Option<DescribedId>,
    /// How it was found.
    pub basis: Basis,
}

/// Gives the source text of a module, where there is one.
pub type SourceOf<'t> = dyn Fn(DescribedId) -> Option<String> + Sync + 't;

/// A script taken apart.
#[derive(Debug, Default)]
pub struct Spans {
    /// Stretches that cover it.
    pub list: Vec<ModuleSpan>,
    /// Merged modules in it could be told apart by their sizes only.
    pub by_size: bool,
}

/// What the description says of the script and its modules.
#[derive(Clone, Copy)]
pub struct Contents<'d> {
    pub described: &'d Described,
    pub file: &'d DescribedFile,
    pub source_of: &'d SourceOf<'d>,
}

/// Takes a script with a module table apart; `None` where it holds no module that the bundler names
/// for it.
pub fn of_table(script: &Script<'_>, contents: Contents<'_>) -> Option<Spans> {
    let Contents { described, file, .. } = contents;
    if file.slots.is_empty() {
        return None;
    }
    let slots = file.slots.iter().enumerate();
    let by_id: HashMap<&str, usize> =
        slots.filter_map(|(at, slot)| Some((slot.id.as_deref()?, at))).collect();
    // A CommonJS module's own `require` calls are its code, an ES module's imports are made by the
    // bundler.
    let edges = described.edges.iter().filter(|edge| edge.kind == EdgeKind::Require);
    let requiring: HashSet<DescribedId> = edges.map(|edge| edge.from).collect();
    let keeps = |slot: usize| file.slots[slot].modules.iter().any(|id| requiring.contains(id));
    let table = Table::find(script, &by_id, &keeps);
    // Words are looked for only where nothing else tells modules apart.
    let are_merged = file.slots.iter().any(|slot| slot.modules.len() > 1 || slot.id.is_none());
    let words = if are_merged { Words::of(script) } else { Words::default() };
    let chunk = Chunk { text: script.text, contents, words, by_size: Cell::new(false) };
    let mut stretches: Vec<Stretch> = Vec::new();
    let mut is_placed = vec![false; file.slots.len()];
    for row in &table.rows {
        is_placed[row.known] = true;
        chunk.stretch(row.body, &row.units, &file.slots[row.known].modules, &mut stretches);
    }
    // Modules that stand in no table stand bare, behind the runtime.
    let bare = file.slots.iter().zip(&is_placed).filter(|(_, is_placed)| !**is_placed);
    let bare: Vec<&Slot> = bare.map(|(slot, _)| slot).collect();
    if !bare.is_empty() {
        let units = bare_units(&script.program, table.place);
        let modules: Vec<DescribedId> =
            bare.iter().flat_map(|slot| slot.modules.iter().copied()).collect();
        if let (Some(first), Some(last)) = (units.first(), units.last()) {
            let body = Span::new(first.start, last.end);
            chunk.stretch(body, &units, &modules, &mut stretches);
        }
    }
    if stretches.is_empty() {
        return None;
    }
    stretches.sort_by_key(|stretch| stretch.range.start);
    Some(Spans { list: filled(&stretches, script.text.len()), by_size: chunk.by_size.get() })
}

/// Tells the modules of a script apart that a bundler put one behind the other, by the words of their
/// sources; `None` where the sources of most are not at hand. Lengths are those before minification.
pub fn of_row(
    script: &Script<'_>,
    lengths: &[(DescribedId, u64)],
    contents: Contents<'_>,
) -> Option<Spans> {
    let modules: Vec<DescribedId> =
        lengths.iter().filter(|(_, length)| *length > 0).map(|(module, _)| *module).collect();
    let known = modules.iter().filter(|module| (contents.source_of)(**module).is_some()).count();
    if known * 2 < modules.len() || known == 0 {
        return None;
    }
    let span = |range: Range<usize>| {
        let place = |at: usize| u32::try_from(at).ok();
        Some(Span::new(place(range.start)?, place(range.end)?))
    };
    let units: Option<Vec<Span>> =
        script.statements().into_iter().map(|statement| span(statement.range)).collect();
    let words = Words::of(script);
    let chunk = Chunk { text: script.text, contents, words, by_size: Cell::new(false) };
    let mut stretches = Vec::new();
    chunk.in_order(&units?, &modules, &mut stretches);
    let list = filled(&stretches, script.text.len());
    (!stretches.is_empty()).then_some(Spans { list, by_size: false })
}

/// A stretch with an end.
struct Stretch {
    range: Range<usize>,
    module: DescribedId,
    basis: Basis,
}

/// Fills what is between the stretches with the bundler's own code.
fn filled(stretches: &[Stretch], length: usize) -> Vec<ModuleSpan> {
    let glue = |start| ModuleSpan { start, module: None, basis: Basis::Located };
    let mut spans = Vec::with_capacity(2 * stretches.len() + 1);
    let mut end = 0;
    for Stretch { range, module, basis } in stretches {
        if range.start < end {
            continue;
        }
        if range.start > end || (end == 0 && spans.is_empty() && range.start > 0) {
            spans.push(glue(end));
        }
        spans.push(ModuleSpan { start: range.start, module: Some(*module), basis: *basis });
        end = range.end;
    }
    if end < length || spans.is_empty() {
        spans.push(glue(end));
    }
    spans
}

struct Chunk<'c> {
    text: &'c str,
    contents: Contents<'c>,
    words: Words,
    by_size: Cell<bool>,
}

impl Chunk<'_> {
    /// The stretches of one function's body, or of bare code.
    fn stretch(
        &self,
        body: Span,
        units: &[Span],
        modules: &[DescribedId],
        stretches: &mut Vec<Stretch>,
    ) {
        let whole = range(body);
        match modules {
            [] => {}
            [_] => {
                let whole = |unit: &Span| {
                    let range = range(*unit);
                    Share { start: range.start, end: range.end, owner: 0 }
                };
                let shares: Vec<Share> = units.iter().map(whole).collect();
                self.place(&shares, modules, Basis::Located, stretches);
            }
            modules => match self.by_headings(&whole, modules) {
                Some(mut parts) => stretches.append(&mut parts),
                None => self.aligned(units, modules, stretches),
            },
        }
    }

    /// Code that was not minified says in a comment above each merged module which one it is:
    /// `;// ./src/a.js`, in older versions `// CONCATENATED MODULE: ./src/a.js`.
    fn by_headings(&self, whole: &Range<usize>, modules: &[DescribedId]) -> Option<Vec<Stretch>> {
        let by_name: HashMap<&str, DescribedId> =
            modules.iter().map(|&module| (self.module(module).raw.as_str(), module)).collect();
        let text = &self.text[whole.clone()];
        let mut starts: Vec<(usize, Option<DescribedId>)> = Vec::new();
        for (at, _) in text.match_indices("// ") {
            let line_start = text[..at].rfind('\n').map_or(0, |at| at + 1);
            let line = text[at + 3..].split('\n').next().unwrap_or_default();
            let name = line.trim().trim_start_matches("CONCATENATED MODULE: ");
            let is_heading = text[line_start..at].trim().trim_end_matches(';').is_empty();
            let module = by_name.get(name).copied();
            // Imports and exports that the bundler writes have headings too.
            let is_link = ["EXTERNAL MODULE:", "NAMESPACE OBJECT:", "EXPORTS"]
                .iter()
                .any(|w| name.starts_with(w));
            if is_heading && (is_link || module.is_some()) {
                starts.push((whole.start + line_start, module));
            }
        }
        let named = starts.iter().filter(|(_, module)| module.is_some()).count();
        if named * 2 < modules.len() {
            return None;
        }
        let ends = starts.iter().skip(1).map(|&(start, _)| start).chain([whole.end]);
        let parts = starts.iter().zip(ends).filter_map(|(&(start, module), end)| {
            Some(Stretch { range: start..end, module: module?, basis: Basis::Located })
        });
        Some(parts.filter(|part| !part.range.is_empty()).collect())
    }

    /// CommonJS modules that were merged stand in wrappers before all others, the last to be
    /// evaluated first.
    fn aligned(&self, units: &[Span], modules: &[DescribedId], stretches: &mut Vec<Stretch>) {
        let (wrapped, bare): (Vec<Span>, Vec<Span>) =
            units.iter().partition(|unit| is_wrapped(&self.text[range(**unit)]));
        let (mut commonjs, others): (Vec<DescribedId>, Vec<DescribedId>) =
            modules.iter().partition(|&&id| self.module(id).format == Some(ModuleFormat::CommonJs));
        if wrapped.is_empty() || commonjs.is_empty() || others.is_empty() {
            return self.in_order(units, modules, stretches);
        }
        commonjs.reverse();
        self.in_order(&wrapped, &commonjs, stretches);
        self.in_order(&bare, &others, stretches);
    }

    fn module(&self, id: DescribedId) -> &DescribedModule {
        self.contents.described.module(id)
    }

    fn in_order(&self, spans: &[Span], modules: &[DescribedId], stretches: &mut Vec<Stretch>) {
        let units: Vec<Range<usize>> = spans.iter().map(|span| range(*span)).collect();
        let hints: Vec<Hint> = modules
            .iter()
            .map(|&id| hint(self.module(id), (self.contents.source_of)(id)))
            .collect();
        if hints.len() > 1 && hints.iter().all(Hint::is_mere_size) {
            self.by_size.set(true);
        }
        let shares = merged::align(&units, &self.words, &hints);
        self.place(&shares, modules, Basis::Estimated, stretches);
    }

    /// Makes stretches of shares. A joint between two is their module's, where it is the same.
    fn place(
        &self,
        shares: &[Share],
        modules: &[DescribedId],
        basis: Basis,
        stretches: &mut Vec<Stretch>,
    ) {
        let mut first = 0;
        for (at, share) in shares.iter().enumerate() {
            let joined = shares.get(at + 1).is_some_and(|next| {
                next.owner == share.owner && is_joint(&self.text[share.end..next.start])
            });
            if joined {
                continue;
            }
            let range = shares[first].start..share.end;
            stretches.push(Stretch { range, module: modules[share.owner], basis });
            first = at + 1;
        }
    }
}

/// `a=n.cw((e,t)=>{…})`, a module with its own `module` and `exports` inside a merged function.
fn is_wrapped(text: &str) -> bool {
    let value = text.split_once('=').map_or("", |(_, value)| value.trim_start());
    let object = value.trim_start_matches(|c: char| c.is_alphanumeric() || c == '_' || c == '$');
    object.starts_with(".cw(")
}

/// Whether only punctuation, space or comments stand there, and no link that was left out.
fn is_joint(text: &str) -> bool {
    let rest = text.trim_matches(|c: char| c.is_whitespace() || c == ';' || c == ',');
    rest.is_empty() || rest.starts_with("//") || rest.starts_with("/*")
}

/// What is known of a module beforehand: from its source where it is at hand.
fn hint(module: &DescribedModule, source: Option<String>) -> Hint {
    let kept = kept_share(module);
    let of_source = |text: String| {
        uvlet_script::read(&text, Dialect::Source, |script| Hint::of_source(script, kept)).ok()
    };
    let size = || Hint::of_size(module.bytes.unwrap_or(0), kept);
    source.and_then(of_source).unwrap_or_else(size)
}

/// Thousandths of a module that are likely kept: of many exports, those that are used and what they
/// share.
fn kept_share(module: &DescribedModule) -> u64 {
    let (Some(provides), Some(Used::Names(used))) = (&module.provides, &module.used) else {
        return 1000;
    };
    // What exports nothing that is used is there for what it does, and so as a whole.
    if provides.is_empty() || used.is_empty() {
        return 1000;
    }
    (1000 * used.len() as u64 / provides.len() as u64).clamp(100, 1000)
}

#[cfg(test)]
mod tests;
