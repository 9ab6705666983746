//! Tables and sentences for a person at a terminal.

pub(crate) mod attribute;
pub(crate) mod compare;
pub(crate) mod coverage;
pub(crate) mod declaration;
pub(crate) mod gate;
pub(crate) mod grid;
pub(crate) mod notices;
pub(crate) mod requests;
pub(crate) mod survey;
pub(crate) mod tries;
pub(crate) mod waste;
pub(crate) mod what_if;
pub(crate) mod why;

pub use attribute::attribute;
pub use compare::{CompareBy, Rows, compare, since};
pub use coverage::coverage;
pub use declaration::declaration;
pub use gate::{Shown, gate};
pub use notices::notices;
pub use requests::requests;
pub use survey::{Detail, survey};
pub use tries::tries;
pub use waste::{evidence, waste};
pub use what_if::{plan_text, suggestions, what_if};
pub use why::{Breadth, why};
