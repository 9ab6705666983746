//! The steps of a plan: what is changed, and of what.

use crate::select::subject::Subject;

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
}

impl Step {
    /// A change of a subject.
    #[must_use]
    pub fn new(change: Change, subject: Subject) -> Self {
        Self { change, subject, from: None, name: String::new(), bytes: 0 }
    }

    /// As it is typed.
    #[must_use]
    pub fn typed(&self) -> String {
        let (change, subject) = (self.change.name(), quoted(&self.subject.text));
        match (self.change, &self.from) {
            (Change::Gather, _) => {
                format!("--gather {}", quoted(&format!("{}={}", self.name, self.subject.text)))
            }
            (Change::Resize, _) => {
                format!("--resize {}", quoted(&format!("{}={} B", self.subject.text, self.bytes)))
            }
            (_, Some(from)) => {
                let text = format!("{} from {}", self.subject.text, from.text);
                format!("--{change} {}", quoted(&text))
            }
            _ => format!("--{change} {subject}"),
        }
    }
}

/// In quotes for a POSIX shell, where it needs them.
fn quoted(text: &str) -> String {
    let is_plain =
        |c: char| c.is_ascii_alphanumeric() || matches!(c, '/' | '.' | '-' | '_' | '@' | '=' | ':');
    match !text.is_empty() && text.chars().all(is_plain) {
        true => text.to_owned(),
        false => format!("'{}'", text.replace('\'', "'\\''")),
    }
}
