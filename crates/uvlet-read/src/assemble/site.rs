//! What a framework's output is as a site: its routes, and where its folders are served.

use std::{collections::BTreeMap, path::Path};

use uvlet_record::Framework;

use crate::{
    assemble::inspect::Inspected,
    descriptions::frameworks::framework::{Output, SaidRoute, Seen},
    folder::{list::Listing, urls::Served},
    project,
};

/// A framework's site.
pub struct Site {
    /// The output.
    pub output: Box<dyn Output>,
    /// Its routes.
    pub routes: Vec<SaidRoute>,
    /// Where its folders are served.
    pub served: Served,
    /// Specifiers that only a server gives a meaning, with the files they mean.
    pub specifiers: Vec<(String, String)>,
}

impl Site {
    /// Reads what the framework says, once the files have been looked into.
    pub fn read(output: Box<dyn Output>, listing: &Listing, inspected: &[Inspected]) -> Self {
        let scripts: BTreeMap<&str, &Inspected> = listing
            .counted
            .iter()
            .zip(inspected)
            .map(|((file, _), inspected)| (file.path.as_str(), inspected))
            .collect();
        let script = |path: &str| scripts.get(path).and_then(|file| file.code.as_ref());
        let seen = Seen { listing, script: &script };
        let paths = listing.counted.iter().map(|(file, _)| file.path.as_str());
        let served = Served::new(paths, &output.served_as());
        let (routes, specifiers) = (output.routes(&seen), output.specifiers(&seen));
        Self { output, routes, served, specifiers }
    }

    /// Which framework it is: of the version that the output says, else of the one that is installed.
    pub fn framework(&self, root: Option<&Path>) -> Framework {
        let about = self.output.about();
        let installed = || project::installed_version(root?, about.package);
        Framework { name: about.name.to_owned(), version: about.version.clone().or_else(installed) }
    }
}
