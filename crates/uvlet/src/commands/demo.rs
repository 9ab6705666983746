//! `uvlet demo`: the sample builds, and every command on them.

use crate::{
    cli,
    failure::{Failure, Status},
};

pub fn run(_arguments: &cli::Demo) -> Result<Status, Failure> {
    Ok(Status::Held)
}
