//! Whether something is used, in words.

use uvlet_audit::parts::marks::State;

/// The words for it in tables.
#[must_use]
pub fn state(state: State) -> &'static str {
    match state {
        State::Used => "used",
        State::ForEffect => "kept for an effect",
        State::Unused => "unused",
        State::Removed => "removed",
        State::NotTold => "not told",
    }
}
