//! Takes a webpack-like chunk without a source map apart: which stretch of it is which module.
//!
//! A chunk holds a table of module functions, `{KEY(e,t,n){…},…}`, keyed by the ids that the stats
//! name; a function's span is its module's. What follows the table is the runtime, and behind it an
//! entry module may stand bare, without a function. Modules that were merged into one function are
//! told apart by [`align`](crate::align).

mod bare;
mod table;
mod units;

use std::{
    cell::Cell,
    collections::{HashMap, HashSet},
    ops::Range,
};

use oxc_allocator::Allocator;
use oxc_ast_visit::Visit;
use oxc_parser::Parser;
use oxc_span::{SourceType, Span};
use uvlet_record::{Basis, EdgeKind};

use bare::bare_units;
use table::Finder;
pub use units::function_body;

use crate::{
    align::{self, Hint, Share, Unit},
    emitted::is_too_deep,
    told::{Slot, Told, ToldFile},
};

/// A stretch of the chunk, to the beginning of the next.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Body {
    /// First byte.
    pub start: usize,
    /// The module among those that the bundler names; none for the bundler's own code.
    pub module: Option<usize>,
    /// How it was found.
    pub basis: Basis,
}

/// Gives the source text of a module, where there is one.
pub type Texts<'t> = dyn Fn(usize) -> Option<String> + Sync + 't;

/// A chunk taken apart.
#[derive(Debug, Default)]
pub struct Parts {
    /// Stretches that cover it.
    pub bodies: Vec<Body>,
    /// Merged modules in it could be told apart by their sizes only.
    pub by_size: bool,
}

/// Takes a chunk apart; `None` where it holds no module that the bundler names for it.
pub fn take_apart(text: &str, file: &ToldFile, told: &Told, texts: &Texts<'_>) -> Option<Parts> {
    if file.slots.is_empty() || is_too_deep(text) {
        return None;
    }
    let allocator = Allocator::default();
    let parsed = Parser::new(&allocator, text, SourceType::unambiguous()).parse();
    if parsed.panicked {
        return None;
    }
    let by_id: HashMap<&str, &Slot> =
        file.slots.iter().filter_map(|slot| Some((slot.id.as_deref()?, slot))).collect();
    // A CommonJS module's own `require` calls are its code, an ES module's imports are made by the
    // bundler.
    let requires: HashSet<usize> = told
        .edges
        .iter()
        .filter(|edge| edge.kind == EdgeKind::Require)
        .map(|edge| edge.from)
        .collect();
    let mut finder = Finder { by_id: &by_id, requires: &requires, table: Vec::new(), found: None };
    finder.visit_program(&parsed.program);
    let table = finder.table;
    let chunk = Chunk { text, told, texts, by_size: Cell::new(false) };
    let mut stretches: Vec<Stretch> = Vec::new();
    for row in &table {
        chunk.stretch(row.body, &row.units, row.slot, &mut stretches);
    }
    // Modules that stand in no table stand bare, behind the runtime.
    let placed: HashSet<*const Slot> =
        table.iter().map(|row| std::ptr::from_ref(row.slot)).collect();
    let bare: Vec<&Slot> =
        file.slots.iter().filter(|slot| !placed.contains(&std::ptr::from_ref(*slot))).collect();
    if !bare.is_empty() {
        let units = bare_units(&parsed.program, finder.found);
        let modules = bare.iter().flat_map(|slot| slot.modules.iter().copied()).collect();
        if let (Some(first), Some(last)) = (units.first(), units.last()) {
            let body = Span::new(first.start, last.end);
            chunk.stretch(body, &units, &Slot { id: None, modules }, &mut stretches);
        }
    }
    if stretches.is_empty() {
        return None;
    }
    stretches.sort_by_key(|stretch| stretch.range.start);
    Some(Parts { bodies: filled(&stretches, text.len()), by_size: chunk.by_size.get() })
}

/// Tells the modules of a chunk apart that a bundler put one behind the other, by the words of their
/// sources; `None` where the sources of most are not at hand. Lengths are those before minification.
pub fn tell_apart(
    text: &str,
    statements: &[Range<usize>],
    lengths: &[(usize, u64)],
    told: &Told,
    texts: &Texts<'_>,
) -> Option<Vec<Body>> {
    let modules: Vec<usize> =
        lengths.iter().filter(|(_, length)| *length > 0).map(|(module, _)| *module).collect();
    let known = modules.iter().filter(|module| texts(**module).is_some()).count();
    if known * 2 < modules.len() || known == 0 {
        return None;
    }
    let span = |range: &Range<usize>| {
        let place = |at: usize| u32::try_from(at).unwrap_or(u32::MAX);
        Span::new(place(range.start), place(range.end))
    };
    let units: Vec<Span> = statements.iter().map(span).collect();
    let chunk = Chunk { text, told, texts, by_size: Cell::new(false) };
    let mut stretches = Vec::new();
    chunk.in_order(&units, &modules, &mut stretches);
    (!stretches.is_empty()).then(|| filled(&stretches, text.len()))
}

/// A stretch with an end.
struct Stretch {
    range: Range<usize>,
    module: usize,
    basis: Basis,
}

/// Fills what is between the stretches with the bundler's own code.
fn filled(stretches: &[Stretch], length: usize) -> Vec<Body> {
    let glue = |start| Body { start, module: None, basis: Basis::Located };
    let mut bodies = Vec::with_capacity(2 * stretches.len() + 1);
    let mut end = 0;
    for Stretch { range, module, basis } in stretches {
        if range.start < end {
            continue;
        }
        if range.start > end || (end == 0 && bodies.is_empty() && range.start > 0) {
            bodies.push(glue(end));
        }
        bodies.push(Body { start: range.start, module: Some(*module), basis: *basis });
        end = range.end;
    }
    if end < length || bodies.is_empty() {
        bodies.push(glue(end));
    }
    bodies
}

struct Chunk<'c> {
    text: &'c str,
    told: &'c Told,
    texts: &'c Texts<'c>,
    by_size: Cell<bool>,
}

impl Chunk<'_> {
    /// The stretches of one function's body, or of bare code.
    fn stretch(&self, body: Span, units: &[Span], slot: &Slot, stretches: &mut Vec<Stretch>) {
        let whole = range(body);
        match slot.modules.as_slice() {
            [] => {}
            [_] => {
                let whole = |unit: &Span| {
                    let range = range(*unit);
                    Share { start: range.start, end: range.end, owner: 0 }
                };
                let shares: Vec<Share> = units.iter().map(whole).collect();
                self.place(&shares, &slot.modules, Basis::Located, stretches);
            }
            modules => match self.by_headings(&whole, modules) {
                Some(mut parts) => stretches.append(&mut parts),
                None => self.aligned(units, modules, stretches),
            },
        }
    }

    /// Code that was not minified says in a comment above each merged module which one it is:
    /// `;// ./src/a.js`, in older versions `// CONCATENATED MODULE: ./src/a.js`.
    fn by_headings(&self, whole: &Range<usize>, modules: &[usize]) -> Option<Vec<Stretch>> {
        let by_name: HashMap<&str, usize> = modules
            .iter()
            .map(|&module| (self.told.modules[module].raw.as_str(), module))
            .collect();
        let text = &self.text[whole.clone()];
        let mut starts: Vec<(usize, Option<usize>)> = Vec::new();
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
    fn aligned(&self, units: &[Span], modules: &[usize], stretches: &mut Vec<Stretch>) {
        let (wrapped, bare): (Vec<Span>, Vec<Span>) =
            units.iter().partition(|unit| is_wrapped(&self.text[range(**unit)]));
        let (mut commonjs, others): (Vec<usize>, Vec<usize>) =
            modules.iter().partition(|&&module| self.told.modules[module].commonjs);
        if wrapped.is_empty() || commonjs.is_empty() || others.is_empty() {
            return self.in_order(units, modules, stretches);
        }
        commonjs.reverse();
        self.in_order(&wrapped, &commonjs, stretches);
        self.in_order(&bare, &others, stretches);
    }

    fn in_order(&self, spans: &[Span], modules: &[usize], stretches: &mut Vec<Stretch>) {
        let units: Vec<Unit<'_>> = spans
            .iter()
            .map(|span| Unit { start: span.start as usize, text: &self.text[range(*span)] })
            .collect();
        let hints: Vec<Hint> = modules
            .iter()
            .map(|&module| Hint::new(&self.told.modules[module], (self.texts)(module)))
            .collect();
        if hints.len() > 1 && hints.iter().all(Hint::is_mere_size) {
            self.by_size.set(true);
        }
        let shares = align::align(&units, &hints);
        self.place(&shares, modules, Basis::Estimated, stretches);
    }

    /// Makes stretches of shares. A joint between two is their module's, where it is the same.
    fn place(
        &self,
        shares: &[Share],
        modules: &[usize],
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

fn range(span: Span) -> Range<usize> {
    span.start as usize..span.end as usize
}

#[cfg(test)]
mod tests;
