//! Astro: a folder of pages with `_astro` beside them; with a server, `client` is served and `server`
//! renders. What an island loads stands in the page.

use std::path::Path;

use uvlet_record::Bundler;

use crate::{
    descriptions::frameworks::framework::{
        About, DATA, Framework, Output, SERVER, SaidRoute, Seen, around, route_of_page,
        routes_of_pages,
    },
    folder::list::Part,
};

/// Astro.
pub struct Astro;

impl Framework for Astro {
    fn find(&self, folder: &Path) -> Option<Box<dyn Output>> {
        around(folder).find_map(|root| {
            let is_site = |folder: &Path| folder.join("_astro").is_dir();
            let is_client = root.file_name().is_some_and(|name| name == "client");
            let (root, served) = match root.parent() {
                Some(above) if is_client && is_site(&root) && above.join("server").is_dir() => {
                    (above.to_owned(), "client/")
                }
                _ if is_site(&root.join("client")) => (root, "client/"),
                _ if is_site(&root) => (root, ""),
                _ => return None,
            };
            let about = About::of(&root, "Astro", "astro", Bundler::Vite);
            Some(Box::new(Built { about, served }) as Box<dyn Output>)
        })
    }
}

struct Built {
    about: About,
    /// The folder of what is served, with its slash.
    served: &'static str,
}

impl Output for Built {
    fn about(&self) -> &About {
        &self.about
    }

    fn part(&self, path: &str) -> Part {
        match path.strip_prefix(self.served) {
            Some(_) => Part::Served,
            None if path.ends_with(".json") => DATA,
            None => SERVER,
        }
    }

    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        vec![(self.served, "")]
    }

    fn route_of(&self, path: &str) -> Option<String> {
        route_of_page(path.strip_prefix(self.served)?)
    }

    fn routes(&self, seen: &Seen<'_>) -> Vec<SaidRoute> {
        routes_of_pages(self, seen)
    }
}
