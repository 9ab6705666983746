//! What each file says by itself: pages, styles, source maps, and marks in scripts.

pub mod marks;
pub mod page;
pub mod source_map;
pub mod style;
