//! Byte accounting on plain slices, knowing nothing of builds, bundlers or disks.
//!
//! [`sourcemap`] reads a map without copying it, [`walk`](mod@walk) says which source owns each byte of the
//! generated text, [`coding`] measures what a text costs on the wire, and [`shares`] splits a total
//! into whole parts that add up to it.

pub mod brotli;
pub mod charges;
pub mod coding;
pub mod deflate;
pub mod shares;
pub mod sourcemap;
mod vlq;
pub mod walk;
