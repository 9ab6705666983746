//! What budgets are judged with, and the rows while they are made.

use std::collections::BTreeSet;

use jiff::civil::Date;
use uvlet_record::{Costs, Texts};

use crate::{
    ask::gate::{
        budget::Strictness, reason::Reason, remark::GateRemark, verdict::BudgetRow, waiver::Waiver,
    },
    find::judged::Judged,
    lens::Lens,
    parts::cells::CellSet,
};

/// What budgets are judged by besides the record.
#[derive(Clone, Copy)]
pub struct Aids<'a> {
    /// Texts, where they are at hand.
    pub texts: &'a dyn Texts,
    /// What stretches of files cost on the wire.
    pub costs: Option<&'a dyn Costs>,
    /// Languages that are wanted.
    pub languages: &'a [String],
    /// Texts of the build that growth is held against.
    pub texts_of_base: &'a dyn Texts,
    /// The build that growth is held against.
    pub base: Option<&'a Lens<'a>>,
    /// Exceptions.
    pub waivers: &'a [Waiver],
    /// The day, in UTC, that they are held against.
    pub today: Date,
}

/// The rows of a gate while they are made.
pub(crate) struct Judge<'l, 'r> {
    pub(crate) lens: &'l Lens<'r>,
    pub(crate) aids: Aids<'l>,
    pub(crate) strictness: Strictness,
    pub(crate) rows: Vec<BudgetRow>,
    pub(crate) remarks: Vec<GateRemark>,
    /// Exceptions that were of use, by place.
    pub(crate) used: BTreeSet<usize>,
}

/// What the findings of a kind that no exception takes come to together in a build.
pub(crate) struct Unwaived {
    pub cells: CellSet,
    /// Bytes of what is less than a cell.
    pub besides: u64,
    /// What is to be said of the others.
    pub reasons: Vec<Reason>,
    /// What could be judged.
    pub judged: Vec<Judged>,
}
