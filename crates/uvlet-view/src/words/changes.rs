//! What changes of a build come from.

use uvlet_audit::ask::compare::{causes::Cause, chunks::Because};

/// What a change comes from.
#[must_use]
pub fn cause(cause: Cause) -> &'static str {
    match cause {
        Cause::New => "new",
        Cause::Gone => "gone",
        Cause::Owners => "owner not known",
        Cause::Version => "version",
        Cause::Edited => "source edited",
        Cause::Modules => "modules came or went",
        Cause::Output => "built differently",
        Cause::MovedLater => "moved to on demand",
        Cause::MovedEarlier => "moved to startup",
        Cause::Copies => "copies",
        Cause::Files => "other files",
        Cause::Glue => "the bundler's own",
        Cause::Compression => "compressed otherwise",
        Cause::Unknown => "not known",
    }
}

/// Why a chunk changed, came or went.
#[must_use]
pub fn because(because: &Because) -> String {
    match because {
        Because::SplitFrom(name) => format!("split from {name}"),
        Because::MergedInto(name) => format!("merged into {name}"),
        Because::OtherOrder => "its modules are in another order".to_owned(),
        Because::OtherName => "a file that it names is called otherwise".to_owned(),
        Because::OtherIds => "ids, or the bundler's own code in it, are others".to_owned(),
    }
}
