//! The steps of a plan: what is changed, and of what.

use std::collections::BTreeSet;

use uvlet_record::{Entry, ModuleId, Record};

use crate::{parts::spans::Spans, select::subject::Subject};

/// What is changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Change {
    /// Static imports of it become `import()`.
    Defer,
    /// It is taken out.
    Without,
    /// It is loaded from elsewhere.
    External,
    /// Who takes names from it, a file that hands them on, takes them from where they are declared.
    Bypass,
    /// Of what comes whole, only what the names that are read are made of stays.
    Narrow,
    /// It is put into a file of its own.
    Gather,
    /// It grows or shrinks to a size.
    Resize,
    /// Its contents change.
    Touch,
}

impl Change {
    /// What it is about is elsewhere then.
    pub(crate) fn takes_away(self) -> bool {
        matches!(self, Self::Defer | Self::Without | Self::External)
    }

    /// The word for it on a command line.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Defer => "defer",
            Self::Without => "without",
            Self::External => "external",
            Self::Bypass => "bypass",
            Self::Narrow => "narrow",
            Self::Gather => "gather",
            Self::Resize => "resize",
            Self::Touch => "touch",
        }
    }
}

/// One change.
#[derive(Debug)]
pub struct Step {
    /// What is done.
    pub change: Change,
    /// To what.
    pub subject: Subject,
    /// Of what is deferred, the modules whose imports alone are; all where none are named.
    pub from: Option<Subject>,
    /// What a gathered file is called.
    pub name: String,
    /// The size that something grows or shrinks to, as emitted.
    pub bytes: u64,
    /// Of what is narrowed, what goes.
    pub rest: Rest,
}

/// What goes of something that comes whole.
#[derive(Debug, Default)]
pub struct Rest {
    /// Whole modules.
    pub modules: BTreeSet<ModuleId>,
    /// Stretches of others.
    pub spans: Spans,
    /// Its names are told apart as it is.
    pub is_apart: bool,
}

impl Step {
    /// It is about something that an entry begins with.
    pub(crate) fn is_on_root(&self, entry: &Entry) -> bool {
        entry.roots.iter().any(|id| self.subject.has(*id))
    }

    /// It would leave nothing of what an entry surely begins with.
    pub(crate) fn ends(&self, record: &Record, entry: &Entry) -> bool {
        let first = record.first_modules(entry);
        !first.is_empty() && first.iter().all(|id| self.subject.has(*id))
    }

    /// A change of a subject.
    #[must_use]
    pub fn new(change: Change, subject: Subject) -> Self {
        Self { change, subject, from: None, name: String::new(), bytes: 0, rest: Rest::default() }
    }

    /// What it does, without what its names mean in a build.
    #[must_use]
    pub fn planned(&self) -> Planned {
        Planned {
            change: self.change,
            subject: self.subject.text.clone(),
            from: self.from.as_ref().map(|from| from.text.clone()),
            name: self.name.clone(),
            bytes: self.bytes,
        }
    }
}

/// A step by the names that it was given.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Planned {
    /// What is done.
    pub change: Change,
    /// To what.
    pub subject: String,
    /// Of what is deferred, the modules whose imports alone are; all where none are named.
    pub from: Option<String>,
    /// What a gathered file is called.
    pub name: String,
    /// The size that something grows or shrinks to, as emitted.
    pub bytes: u64,
}
