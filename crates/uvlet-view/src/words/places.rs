//! Where packages are installed, in words.

use std::collections::HashSet;

use uvlet_audit::ask::attribute::RowKind;

/// Names that come more than once, which their places tell apart.
#[must_use]
pub fn twice<'n>(names: impl Iterator<Item = &'n str>) -> HashSet<&'n str> {
    let mut seen = HashSet::new();
    names.filter(|name| !seen.insert(*name)).collect()
}

/// ` (in halyard-forms)`, behind a name that comes more than once. Of a package the folder around it is
/// enough, and the project's own goes without saying.
#[must_use]
pub fn in_place(row: RowKind, name: &str, place: Option<&str>, twice: &HashSet<&str>) -> String {
    let Some(place) = place.filter(|_| twice.contains(name)) else { return String::new() };
    let around = match row {
        RowKind::Package => {
            let host = place.strip_suffix(&format!("node_modules/{name}")).unwrap_or(place);
            let host = host.trim_end_matches('/');
            host.strip_prefix("node_modules/").unwrap_or(host)
        }
        _ => place,
    };
    if around.is_empty() { String::new() } else { format!(" (in {around})") }
}
