//! What pages start from. Entries come from the pages that load scripts, from a framework and from the
//! bundler; without any, from the `package.json` of a library, else from the scripts that no other one
//! loads.

pub mod described;
pub mod inferred;
pub mod package;
pub mod pages;
pub mod routes;

use super::chunk_names::Unique;

/// `name`, or `name.2`, `name.3` where it is taken already.
fn numbered(taken: &mut Unique, stem: &str) -> String {
    taken.name(if stem.is_empty() { "chunk" } else { stem })
}
