//! What of the emitted code nothing uses.
//!
//! The emitted text is the base: its declarations with their scopes, by exact names; sources say which
//! calls are marked as free of effects. What cannot be followed is live: names that no segment of a map
//! points at, scripts that do not parse or run code from texts, exports of what is loaded on demand.
//! Each rule errs on the side of keeping.

pub(crate) mod dead;
pub(crate) mod declarations;
pub(crate) mod follow;
mod reach;
pub(crate) mod sources;
