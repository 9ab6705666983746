//! What a reader of the numbers should know, under the answer.

use uvlet_record::Notice;

use super::{Screen, wrapped};
use crate::{name::plain, units::grouped};

/// Notices of one kind that are shown one by one.
const SHOWN: usize = 5;

/// Notices as lines; many of one kind end in a count.
#[must_use]
pub fn notices(notices: &[Notice], screen: &Screen) -> String {
    let mut text = String::new();
    for group in notices.chunk_by(|a, b| a.code == b.code) {
        for notice in group.iter().take(SHOWN) {
            let place = notice.place.as_ref().map(|place| format!("{}: ", plain(place)));
            let line = format!("note: {}{}", place.unwrap_or_default(), plain(&notice.message));
            text.push_str(&wrapped(&line, screen.columns(), 6));
            text.push('\n');
        }
        if group.len() > SHOWN {
            let more = grouped((group.len() - SHOWN) as u64);
            text.push_str(&format!("note: {more} more like these, see --format json\n"));
        }
    }
    text
}
