//! What has source maps written, in words.

use uvlet_audit::bundlers::{Maps, Spoiler};

/// The command or the setting.
#[must_use]
pub fn way(maps: Maps) -> String {
    match maps {
        Maps::Unknown => String::new(),
        Maps::Command(command) => command.to_owned(),
        Maps::Flag { of, flag, or } => {
            let or = or.map(|or| format!(", or {or}")).unwrap_or_default();
            format!("the same {of} command with {flag}{or}")
        }
        Maps::Setting { line, file } => format!("{line}, in {file}"),
        Maps::Without { command, what: Spoiler::Flag(flag) } => {
            format!("{command} (without {flag})")
        }
        Maps::Without { command, what: Spoiler::Plugin } => {
            format!("{command} (without a plugin that deletes source maps)")
        }
    }
}
