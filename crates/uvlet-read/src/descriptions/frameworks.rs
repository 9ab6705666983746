//! What a framework says of its output: what of it is served, which routes there are, and the files of
//! each.
//!
//! A new framework is a file here and a line in [`ALL`]: it knows its output by what lies in it, from
//! any folder that a person would name, tells what is served from what is not, and gives routes as a
//! visitor types them. Nothing else matches on a framework's name.

pub(crate) mod angular;
pub(crate) mod astro;
pub(crate) mod framework;
pub(crate) mod next;
pub(crate) mod nuxt;
pub(crate) mod pattern;
pub(crate) mod react_router;
pub(crate) mod sveltekit;

use std::path::Path;

use crate::descriptions::frameworks::framework::{Framework, Output};

/// Every framework there is, the most telling first.
const ALL: [&dyn Framework; 6] = [
    &next::Next,
    &sveltekit::SvelteKit,
    &nuxt::Nuxt,
    &react_router::ReactRouter,
    &angular::Angular,
    &astro::Astro,
];

/// The framework's output that a folder is, is a part of, or holds.
pub fn find(folder: &Path) -> Option<Box<dyn Output>> {
    ALL.into_iter().find_map(|framework| framework.find(folder))
}
