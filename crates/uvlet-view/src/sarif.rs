//! The gate as SARIF 2.1.0: a rule for every budget, a result for every limit that is not held, at
//! the place in the settings where the budget stands.

use crate::words::reasons::{self, of_gate};
use std::{collections::BTreeMap, ffi::OsStr, path::Path};

use serde_json::{Value, json};
use uvlet_audit::ask::gate::verdict::{Gate, Verdict};

use crate::{screen::Screen, table::gate::sentence};

/// The gate as a log of one run. Places are in the file of settings, as it was named.
#[must_use]
pub fn gate(gate: &Gate, label: &str, screen: &Screen) -> String {
    let mut rules: BTreeMap<&str, String> = BTreeMap::new();
    let mut results: Vec<Value> = Vec::new();
    for reason in &gate.reasons {
        rules.insert(reason.reason.code(), "The build itself is not taken.".to_owned());
        results.push(json!({
            "ruleId": reason.reason.code(),
            "level": "error",
            "message": {"text": of_gate(reason)},
        }));
    }
    for row in &gate.budgets {
        rules.entry(&row.name).or_insert_with(|| format!("A budget on {}.", row.selector));
        let level = match row.verdict {
            Verdict::Broken => "error",
            Verdict::Undecided | Verdict::Warned | Verdict::Waived => "warning",
            Verdict::Unjudged | Verdict::Met => continue,
        };
        let place = &row.place;
        let mut result = json!({
            "ruleId": row.name,
            "level": level,
            "message": {"text": format!("{label}: {}", sentence(row, screen))},
            "locations": [{
                "physicalLocation": {
                    "artifactLocation": {"uri": uri(&place.file)},
                    "region": {"startLine": place.line, "startColumn": place.column},
                },
            }],
        });
        let sources = row
            .sources
            .iter()
            .map(|path| json!({"physicalLocation": {"artifactLocation": {"uri": uri(path)}}}));
        let sources: Vec<Value> = sources.collect();
        if !sources.is_empty() {
            result["relatedLocations"] = json!(sources);
        }
        if row.verdict == Verdict::Waived {
            let why: Vec<String> = row.because.iter().map(reasons::sentence).collect();
            result["suppressions"] = json!([{"kind": "external", "status": "accepted", "justification": why.join("; ")}]);
        }
        results.push(result);
    }
    let rules: Vec<Value> = rules
        .into_iter()
        .map(|(id, text)| json!({"id": id, "shortDescription": {"text": text}}))
        .collect();
    let log = json!({
        "$schema": "https://json.schemastore.org/sarif-2.1.0.json",
        "version": "2.1.0",
        "runs": [{
            "tool": {"driver": {"name": "uvlet", "rules": rules}},
            "columnKind": "unicodeCodePoints",
            "results": results,
        }],
    });
    format!("{log:#}\n")
}

/// A path as a relative reference (RFC 3986). Of a file outside the project only its name is told: the
/// folders of this machine are nobody's business.
fn uri(path: &str) -> String {
    let is_outside = Path::new(path).is_absolute();
    let name = Path::new(path).file_name().and_then(OsStr::to_str);
    let path = name.filter(|_| is_outside).unwrap_or(path);
    let keeps = |byte: u8| byte.is_ascii_alphanumeric() || b"-._~/".contains(&byte);
    path.replace('\\', "/")
        .bytes()
        .map(|byte| if keeps(byte) { char::from(byte).to_string() } else { format!("%{byte:02X}") })
        .collect()
}
