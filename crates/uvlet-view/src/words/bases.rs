//! What a build's mode and target are judged by.

use uvlet_record::{ModeBasis, TargetBasis};

/// Why a build is taken for one of production or of development.
#[must_use]
pub fn of_mode(basis: &ModeBasis) -> String {
    match basis {
        ModeBasis::Evaluates { file } => format!("{file} evaluates module bodies from strings"),
        ModeBasis::LiveReload { module } => format!("{module} is a live-reload client"),
        ModeBasis::DevelopmentEdition { module } => {
            format!("{module} is a library's development edition")
        }
        ModeBasis::Declared => "the bundler says so".to_owned(),
        ModeBasis::WhiteSpace { per_mille, is_minified } => {
            let not = if *is_minified { "" } else { "not " };
            let (percent, tenth) = (per_mille / 10, per_mille % 10);
            format!("{not}minified: {percent}.{tenth}% of the code is white space")
        }
        ModeBasis::NoCode => "there is no code to judge by".to_owned(),
    }
}

/// Why a build is taken for one of its target.
#[must_use]
pub fn of_target(basis: &TargetBasis) -> String {
    let said = match basis {
        TargetBasis::Imports { module } => {
            return format!("imports {module}, which only Node.js has");
        }
        TargetBasis::Framework { name } => {
            return format!("{name} says what it serves to whom");
        }
        TargetBasis::Page => "a page loads its scripts",
        TargetBasis::NoNodeImport => "imports no module at startup that only Node.js has",
        TargetBasis::Output => "its output for this target is the one that is read",
        TargetBasis::Declared => "the bundler says so",
        TargetBasis::ScriptTags => "the runtime loads chunks with script tags",
        TargetBasis::ReadsFiles => "the runtime loads chunks by reading files",
    };
    said.to_owned()
}
