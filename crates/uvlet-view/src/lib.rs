//! Puts an answer before a person or a program. No arithmetic beyond rounding for display.
//!
//! One module per form. Texts for a terminal carry their styles; whoever writes them to something
//! that is no terminal strips these.

pub mod answers;
mod bar;
pub mod csv;
pub mod form;
pub mod json;
pub mod junit;
pub mod markdown;
mod name;
mod notice;
pub mod page;
pub mod sarif;
pub mod screen;
pub mod table;
pub mod units;
pub mod words;

pub use name::plain;
pub use notice::Notice;
pub use units::Units;
