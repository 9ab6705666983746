//! What a network log tells, with what servers could do better in words.

use serde::Serialize;
use uvlet_audit::ask::{
    self,
    requests::{Host, PageRow},
};

use crate::words::remarks::fault;

/// The answer.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Requests<'a> {
    /// A row per page of the log.
    pages: &'a [PageRow],
    /// What answers say of caching that wastes a return visit, and what came as it stands.
    remarks: Vec<Remark<'a>>,
    /// Other hosts, the one with most requests first.
    elsewhere: &'a [Host],
}

/// Something to mend on the server.
#[derive(Debug, Serialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
struct Remark<'a> {
    /// A stable word.
    code: &'static str,
    /// The file.
    path: &'a str,
    /// One sentence.
    message: String,
}

impl<'a> From<&'a ask::requests::Requests> for Requests<'a> {
    fn from(answer: &'a ask::requests::Requests) -> Self {
        let remarks = answer.remarks.iter().map(|remark| Remark {
            code: remark.fault.code(),
            path: &remark.path,
            message: fault(remark.fault),
        });
        Self { pages: &answer.pages, remarks: remarks.collect(), elsewhere: &answer.elsewhere }
    }
}
