//! What a source reads of others: by which names, and of which object.

use std::collections::{BTreeMap, BTreeSet};

use crate::{
    declarations::{NodeKind, Use, whole::of_script},
    parse::{Dialect, Unparsed, read},
};

/// The names that are read of one other source.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Read {
    /// Names that are imported.
    pub named: BTreeSet<String>,
    /// Members of the value that it gives out as a whole; none where all may be.
    pub of_default: Option<BTreeSet<String>>,
    /// Members of its namespace; none where all may be.
    pub of_namespace: Option<BTreeSet<String>>,
}

/// The names that a source reads of what it imports, by specifier.
///
/// # Errors
/// When it cannot be parsed.
pub fn names_read(text: &str) -> Result<BTreeMap<String, Read>, Unparsed> {
    read(text, Dialect::Source, |script| {
        let declared = of_script(script, true);
        let mut found: BTreeMap<String, Read> = BTreeMap::new();
        let uses: Vec<&Use> =
            declared.nodes.iter().flat_map(|node| &node.uses).chain(&declared.roots).collect();
        for (at, node) in declared.nodes.iter().enumerate() {
            let NodeKind::Import { request, name } = &node.kind else { continue };
            let read = found.entry(request.clone()).or_insert_with(|| Read {
                of_default: Some(BTreeSet::new()),
                of_namespace: Some(BTreeSet::new()),
                ..Read::default()
            });
            let of_object = match name.as_deref() {
                None => &mut read.of_namespace,
                Some("default") => &mut read.of_default,
                Some(name) => {
                    read.named.insert(name.to_owned());
                    continue;
                }
            };
            for used in &uses {
                match used {
                    Use::MemberOf(of, key) | Use::CalledOf(of, key) if *of == at => {
                        of_object.iter_mut().for_each(|names| _ = names.insert(key.clone()));
                    }
                    Use::All(of) if *of == at => *of_object = None,
                    _ => {}
                }
            }
            if declared.exports.iter().any(|(_, used)| *used == Use::Node(at)) {
                *of_object = None;
            }
        }
        found
    })
}
