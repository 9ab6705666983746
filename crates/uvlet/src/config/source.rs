//! A file of settings.

use std::path::PathBuf;

/// A file of settings.
#[derive(Debug)]
pub struct Source {
    /// As it is named from the working folder.
    pub path: PathBuf,
    pub text: String,
}

impl Source {
    /// What is said of it to a person.
    pub fn name(&self) -> String {
        self.path.display().to_string()
    }
}
