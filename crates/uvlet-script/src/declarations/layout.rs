//! How a text can be cut so that what is left is still a script: commas go with what they part.

use std::ops::Range;

/// Where nodes stand.
#[derive(Clone, Debug, Default)]
pub struct Layout {
    /// Lists of which items can be taken out one by one.
    pub lists: Vec<List>,
}

/// Items that commas part.
#[derive(Clone, Debug)]
pub struct List {
    /// In the order of the text.
    pub items: Vec<Item>,
    /// What goes when every item goes; the items alone where this is none.
    pub whole: Option<Range<usize>>,
    /// It stands inside this node, and goes with it.
    pub inside: Option<usize>,
}

/// An item of a list.
#[derive(Clone, Debug)]
pub struct Item {
    /// Its bytes.
    pub range: Range<usize>,
    /// The node that it belongs to; an item of none stays.
    pub node: Option<usize>,
}

impl Layout {
    /// The bytes that go with dead nodes, each with the node, in the order of the text.
    pub fn cuts(&self, is_dead: &dyn Fn(usize) -> bool) -> Vec<(usize, Range<usize>)> {
        let mut cuts = Vec::new();
        for List { items, whole, inside } in &self.lists {
            if inside.is_some_and(is_dead) {
                continue;
            }
            let goes = |item: &Item| item.node.filter(|&node| is_dead(node));
            let first_left = items.iter().position(|item| goes(item).is_none());
            let (Some(first), Some(last)) = (items.first(), items.last()) else { continue };
            if first_left.is_none() {
                // Each item pays for the bytes up to the next one.
                let whole = whole.clone().unwrap_or(first.range.start..last.range.end);
                for (at, item) in items.iter().enumerate() {
                    let start = if at == 0 { whole.start } else { item.range.start };
                    let end = items.get(at + 1).map_or(whole.end, |next| next.range.start);
                    cuts.extend(goes(item).map(|node| (node, start..end)));
                }
                continue;
            }
            for (at, item) in items.iter().enumerate() {
                let Some(node) = goes(item) else { continue };
                let is_before = first_left.is_some_and(|first| at < first);
                let range = match is_before {
                    true => {
                        item.range.start
                            ..items.get(at + 1).map_or(item.range.end, |n| n.range.start)
                    }
                    false => items[at - 1].range.end..item.range.end,
                };
                cuts.push((node, range));
            }
        }
        cuts.sort_by_key(|(_, range)| range.start);
        cuts
    }
}
