//! Where packages are installed, in words.

use uvlet_audit::ask::attribute::RowKind;

/// ` (in halyard-forms)`, behind the name of what stands in several places. Of a package the folder around
/// it is enough, and the project's own goes without saying.
#[must_use]
pub fn in_place(row: RowKind, name: &str, place: &str) -> String {
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
