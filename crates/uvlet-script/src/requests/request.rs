//! What a source asks for.

use std::collections::BTreeMap;

/// How something is asked for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Kind {
    /// `import`.
    Import,
    /// `export … from`.
    Reexport,
    /// `require()`.
    Require,
    /// `import()`.
    Dynamic,
    /// `new Worker(new URL(…))`.
    Worker,
    /// `new URL(…, import.meta.url)`.
    Url,
    /// `@import` of a style.
    Style,
}

/// One thing that is asked for.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Request {
    /// The specifier as written.
    pub specifier: String,
    /// How.
    pub kind: Kind,
    /// The names that are taken of it, by their names there; `None` where it may be any.
    pub names: Option<Vec<String>>,
    /// Of names of which only members are used, these.
    pub members: BTreeMap<String, Vec<String>>,
}

impl Request {
    /// A request of which it is not known what it takes.
    #[must_use]
    pub fn plain(specifier: String, kind: Kind) -> Self {
        Self { specifier, kind, names: None, members: BTreeMap::new() }
    }
}

/// A name that a module gives.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub struct Export {
    /// The name outside.
    pub name: String,
    /// Of what is only handed on: the request, by its place among the requests, and the name there
    /// (`None` for the whole of it).
    pub from: Option<(usize, Option<String>)>,
}

/// What a source asks for and gives.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Requests {
    /// What it asks for, in the order written.
    pub asks: Vec<Request>,
    /// Names that it gives, where they are written out; in CommonJS those that it assigns.
    pub gives: Vec<Export>,
    /// Requests of whose names it gives all (`export *`), by their places.
    pub gives_all_of: Vec<usize>,
    /// It is written with `import` and `export`.
    pub is_module: bool,
    /// It holds elements that a compiler turns into calls of a library that it imports itself.
    pub has_elements: bool,
    /// The library that such calls are made to, where the source says it (`@jsxImportSource`).
    pub elements_from: Option<String>,
}
