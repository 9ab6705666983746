//! What servers could do better, and why recordings are not of the build.

use uvlet_audit::{ask::requests::Fault, parts::recorded_files::Unknown};

/// What is wrong with an answer.
#[must_use]
pub fn fault(fault: Fault) -> String {
    match fault {
        Fault::NotCompressed(bytes) => format!("{bytes} B came as they stand"),
        Fault::ShortLife(None) => "its name holds its contents' digest, and the answer does not say how long it may be kept".to_owned(),
        Fault::ShortLife(Some(seconds)) => {
            format!("its name holds its contents' digest, and it is kept for {seconds} s only")
        }
        Fault::LongLife(seconds) => {
            format!("its name stays when its contents change, and it is kept for {seconds} s")
        }
    }
}

/// Why a recorded script is no file of the build.
#[must_use]
pub fn unknown_script(unknown: Unknown) -> &'static str {
    match unknown {
        Unknown::InPage => "code inside a page",
        Unknown::NoName => "no file of the build is called that",
        Unknown::NoTexts => "the build's texts are not at hand",
        Unknown::Other => {
            "the file of that name is another: the recording is of another build, or was cut"
        }
    }
}
