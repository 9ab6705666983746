//! Imports, their uses, and what each use waits for.

use std::ops::Range;

/// An import of which some name is used.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Import {
    /// The specifier as written.
    pub request: String,
    /// The name there; none where all are imported as one object.
    pub name: Option<String>,
    /// Its name here.
    pub local: String,
    /// Each use.
    pub uses: Vec<Use>,
}

/// A use of an import.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Use {
    /// Its bytes in the source.
    pub range: Range<usize>,
    /// What it waits for.
    pub waits: Waits,
    /// What must be true of other modules for that: each only ever gives the function to events.
    pub relies_on: Vec<Given>,
}

/// An imported function that is given a function.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Given {
    /// The specifier that it is imported from.
    pub request: String,
    /// Its name there.
    pub name: String,
    /// The place of the argument.
    pub place: usize,
}

/// What a use waits for.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Waits {
    /// Nothing, as far as can be shown.
    Nothing,
    /// An event of this name.
    Event(String),
    /// Whatever an imported function does with the functions that it is given.
    Given(Given),
    /// A state of this name that is false at first, and true only after an event.
    State(String),
    /// A visit of this route.
    Route(String),
}
