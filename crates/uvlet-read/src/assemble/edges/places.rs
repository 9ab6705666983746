//! Packages by where they are installed.

use std::collections::HashMap;

use uvlet_record::{Package, PackageId};

/// Packages by their folders.
pub struct Places<'p>(HashMap<&'p str, PackageId>);

impl<'p> Places<'p> {
    pub fn of(packages: &'p [Package]) -> Self {
        let packages = packages.iter().enumerate();
        Self(packages.map(|(at, package)| (&*package.place, PackageId::new(at))).collect())
    }

    /// The package around a file. What is installed within a package is none of it.
    pub fn around(&self, location: &str) -> Option<PackageId> {
        let folders = location.rmatch_indices('/').map(|(at, _)| &location[..at]);
        let mut within = folders.take_while(|folder| {
            folder
                .strip_suffix("node_modules")
                .is_none_or(|above| !above.is_empty() && !above.ends_with('/'))
        });
        within.find_map(|folder| self.0.get(folder)).copied()
    }
}
