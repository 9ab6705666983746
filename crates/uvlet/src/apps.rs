//! Which apps of the settings a command is about.

use std::path::Path;

use crate::{config::Config, failure::Failure};

/// All of them; a build that is named is one app's: the one whose folder it is.
pub fn meant<'c>(named: Option<&Path>, apps: &'c [Config]) -> Result<Vec<&'c Config>, Failure> {
    let Some(named) = named.filter(|_| apps.len() > 1) else {
        return Ok(apps.iter().collect());
    };
    let full = |path: &Path| path.canonicalize().ok();
    let is_its = |config: &&Config| {
        config.folder.as_deref().and_then(full).is_some_and(|folder| Some(folder) == full(named))
    };
    match apps.iter().find(is_its) {
        Some(config) => Ok(vec![config]),
        None => {
            let names: Vec<&str> = apps.iter().filter_map(|config| config.app.as_deref()).collect();
            let build = named.display();
            Err(Failure::Usage(format!(
                "{build} is one build, and the settings have the apps {}; say whose it is with --app NAME",
                names.join(", ")
            )))
        }
    }
}
