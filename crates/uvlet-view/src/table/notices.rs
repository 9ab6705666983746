//! What a reader of the numbers should know, under the answer.

use std::collections::HashMap;

use crate::screen::{Screen, wrapped};
use crate::{name::plain, notice::Notice, units::grouped};

/// Notices of one kind that are shown one by one.
const SHOWN: usize = 5;

/// Notices as lines: what is said of several files is said once, and many of one kind end in a count.
#[must_use]
pub fn notices(notices: &[Notice], screen: &Screen) -> String {
    let mut text = String::new();
    for group in notices.chunk_by(|a, b| a.code == b.code) {
        let mut said: Vec<(&Notice, usize)> = Vec::new();
        let mut known: HashMap<&str, usize> = HashMap::new();
        for notice in group {
            let at = *known.entry(&notice.message).or_insert(said.len());
            match said.get_mut(at) {
                Some((_, places)) => *places += 1,
                None => said.push((notice, 1)),
            }
        }
        for (notice, places) in said.iter().take(SHOWN) {
            let more = match places - 1 {
                0 => String::new(),
                1 => " and 1 more file".to_owned(),
                more => format!(" and {} more files", grouped(more as u64)),
            };
            let place = notice.place.as_ref().map(|place| format!("{}{more}: ", plain(place)));
            let line = format!("note: {}{}", place.unwrap_or_default(), plain(&notice.message));
            text.push_str(&wrapped(&line, screen.columns(), 6));
            text.push('\n');
        }
        if said.len() > SHOWN {
            let more = grouped((said.len() - SHOWN) as u64);
            text.push_str(&format!("note: {more} more like these, see --format json\n"));
        }
    }
    text
}
