//! Puts a verdict where a team reads it: a comment of a pull request, which is found again and renewed,
//! and a status of its commit.
//!
//! Three families of forges are spoken to, each through its open HTTP interface: that of GitHub (REST),
//! of GitLab (REST v4), and of Gitea and Forgejo (v1). A token is sent to the interface that was named,
//! and to no other host.

mod forge;
mod http;
mod place;

pub use forge::{Comment, Posted, State, Status, comment, status};
pub use http::{Http, PostError, Terms};
pub use place::{Forge, Given, Missing, Place, find, token};
