//! One declaration of one module: whether it is there, whether it is used, by what, and its text.

use std::collections::BTreeSet;

use serde::Serialize;
use uvlet_record::{Costs, ModuleId, Record, Texts, sizes::Sizes};
use uvlet_script::declarations::{declared_in_source, own_exports};

use crate::{
    find::{
        finding::Span,
        liveness::declarations::{User, declarations},
    },
    lens::Lens,
    parts::{cells::CellSet, marks::State, prices::Prices, spans::Spans},
    select::{
        nearest::nearest,
        subject::{Subject, SubjectError},
    },
};

/// Characters of a text that are shown.
const EXCERPT: usize = 1200;

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct WhyDeclaration {
    /// `path#name`.
    pub subject: String,
    /// `declaration`.
    pub subject_kind: &'static str,
    /// `used`, `unused`, `kept for an effect`, `removed`, or `not told` where its text was not followed.
    pub state: State,
    /// Its bytes, in all files.
    pub sizes: Sizes,
    /// Where it stands in emitted files.
    pub places: Vec<Span>,
    /// Who uses it: other declarations, as `path#name`.
    pub used_by: Vec<String>,
    /// Code that runs as modules are evaluated uses it, or code that is not followed.
    pub used_by_running_code: bool,
    /// Its text in the source, where that is at hand.
    pub source: Option<Excerpt>,
    /// The start of its emitted text.
    pub emitted: Option<String>,
}

/// A text in a source.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Excerpt {
    /// Its line, from 1.
    pub line: usize,
    /// Its start.
    pub text: String,
}

/// Why there is no answer.
#[derive(Debug)]
pub enum DeclarationError {
    /// The module means nothing.
    Module(SubjectError),
    /// It is several modules.
    Several(String),
    /// The source is not at hand.
    NoSource(String),
    /// There is none.
    Unknown {
        /// The module.
        module: String,
        /// The name.
        name: String,
        /// Names that are close.
        near: Vec<String>,
    },
}

/// Finds a declaration: `path#name`, the name that the source declares or exports.
///
/// # Errors
/// When there is no such module or name, or its source is not at hand.
pub fn why_declaration(
    lens: &Lens<'_>,
    module: &str,
    name: &str,
    texts: &dyn Texts,
    costs: Option<&dyn Costs>,
) -> Result<WhyDeclaration, DeclarationError> {
    let record = lens.record;
    let subject = Subject::find(module, lens)?;
    let paths: BTreeSet<&str> =
        subject.modules.iter().map(|&id| record.module(id).path.as_str()).collect();
    let &[id, ..] = subject.modules.as_slice() else {
        return Err(DeclarationError::Several(module.to_owned()));
    };
    if paths.len() > 1 {
        return Err(DeclarationError::Several(module.to_owned()));
    }
    let path = record.module(id).path.clone();
    let Some(text) = texts.source(id) else {
        // Of a module that left nothing, nothing is left of any declaration.
        let is_gone = lens.amount(&subject.cells).emitted == 0;
        return is_gone
            .then(|| WhyDeclaration::gone(record, format!("{path}#{name}")))
            .ok_or(DeclarationError::NoSource(path));
    };
    let declared = declared_in_source(&text).unwrap_or_default();
    let exports = own_exports(&text).unwrap_or_default();
    let inside = exports.iter().find(|(outside, _)| outside == name);
    let inside = inside.and_then(|(_, inside)| inside.clone()).unwrap_or_else(|| name.to_owned());
    let Some(source) = declared.iter().find(|one| one.name == inside) else {
        let known = declared.iter().map(|one| one.name.as_str());
        let outside = exports.iter().map(|(name, _)| name.as_str());
        let near = nearest(name, known.chain(outside)).into_iter().map(str::to_owned).collect();
        return Err(DeclarationError::Unknown { module: path, name: name.to_owned(), near });
    };
    let declared = declarations(record, texts);
    let absence = declared.absence(id);
    let its: Vec<_> = declared
        .list
        .into_iter()
        .filter(|one| subject.has(one.module) && one.name == inside)
        .collect();
    let mut spans = Spans::default();
    for one in &its {
        one.ranges.iter().for_each(|range| spans.add(one.file, range.clone()));
    }
    let spans = spans.joined();
    let prices = Prices::new(record, costs, std::iter::once(&spans));
    let users: BTreeSet<&User> = its.iter().flat_map(|one| &one.users).collect();
    let emitted = its.first().and_then(|one| {
        let text = texts.emitted(one.file)?;
        let range = one.ranges.first()?;
        let at = |byte: u64| usize::try_from(byte).unwrap_or(usize::MAX).min(text.len());
        let text = String::from_utf8_lossy(&text[at(range.start)..at(range.end)]);
        Some(text.trim().chars().take(EXCERPT).collect())
    });
    Ok(WhyDeclaration {
        subject: format!("{path}#{name}"),
        subject_kind: "declaration",
        state: its.iter().map(|one| one.state).min().unwrap_or(absence),
        sizes: prices.amount(record, &spans, &CellSet::default()).sizes(),
        places: spans
            .iter()
            .map(|(file, range)| Span {
                file: record.file(file).path.clone(),
                start: range.start,
                length: range.end - range.start,
            })
            .collect(),
        used_by: users.iter().filter_map(|user| called(record, user)).collect(),
        used_by_running_code: users.contains(&User::Runs),
        source: Some(Excerpt {
            line: text[..source.range.start].matches('\n').count() + 1,
            text: text[source.range.clone()].chars().take(EXCERPT).collect(),
        }),
        emitted,
    })
}

impl WhyDeclaration {
    fn gone(record: &Record, subject: String) -> Self {
        Self {
            subject,
            subject_kind: "declaration",
            state: State::Removed,
            sizes: record.zero().sizes(),
            places: Vec::new(),
            used_by: Vec::new(),
            used_by_running_code: false,
            source: None,
            emitted: None,
        }
    }
}

fn called(record: &Record, user: &User) -> Option<String> {
    let path = |module: ModuleId| &record.module(module).path;
    match user {
        User::Declaration { module, name } => Some(format!("{}#{name}", path(*module))),
        User::Runs => None,
    }
}

impl From<SubjectError> for DeclarationError {
    fn from(error: SubjectError) -> Self {
        Self::Module(error)
    }
}
