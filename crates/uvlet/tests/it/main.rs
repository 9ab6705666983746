//! Drives the built program on files in temporary folders and on the committed sample builds.

#![expect(
    clippy::unwrap_used,
    clippy::expect_used,
    reason = "a test that cannot go on fails there"
)]

mod attribute;
mod bad_input;
mod ci;
mod compare;
mod coverage;
mod demo;
mod edges;
mod folders;
mod formats;
mod frameworks;
mod fresh;
mod gate;
mod house;
mod marks;
mod measures;
mod narrow;
mod npm;
mod pages;
mod post;
mod propose;
mod real;
mod records;
mod report;
mod requests;
mod rounds;
mod schema;
mod screens;
mod selectors;
mod settings;
mod sight;
mod support;
mod targets;
mod told;
mod waivers;
mod waste;
mod what_if;
mod why;
