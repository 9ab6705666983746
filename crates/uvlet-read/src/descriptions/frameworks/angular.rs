//! Angular: `browser` is served, `server` renders, and what the build notes of itself stands beside.

use std::path::Path;

use uvlet_record::Bundler;

use crate::{
    descriptions::frameworks::framework::{
        About, DATA, Framework, Output, SERVER, SaidRoute, Seen, around, route_of_page,
        routes_of_pages,
    },
    folder::list::Part,
};

/// Angular.
pub struct Angular;

impl Framework for Angular {
    fn find(&self, folder: &Path) -> Option<Box<dyn Output>> {
        // The output of the one project, where the folder around it was named.
        let inside = std::fs::read_dir(folder).into_iter().flatten().flatten();
        let mut inside = inside.map(|file| file.path()).filter(|folder| is_output(folder));
        let only = inside.next().filter(|_| inside.next().is_none());
        let root = around(folder).find(|folder| is_output(folder)).or(only)?;
        let about = About::of(&root, "Angular", "@angular/core", Bundler::Esbuild);
        Some(Box::new(Built { about }))
    }
}

fn is_output(folder: &Path) -> bool {
    let notes = ["3rdpartylicenses.txt", "browser-stats.json", "prerendered-routes.json"];
    folder.join("browser").is_dir() && notes.iter().any(|note| folder.join(note).is_file())
}

struct Built {
    about: About,
}

impl Output for Built {
    fn about(&self) -> &About {
        &self.about
    }

    fn part(&self, path: &str) -> Part {
        match path.split_once('/') {
            Some(("browser", _)) => Part::Served,
            Some(("server", _)) => SERVER,
            None if path == "prerendered-routes.json" => DATA,
            _ => Part::Description,
        }
    }

    fn served_as(&self) -> Vec<(&'static str, &'static str)> {
        vec![("browser/", "")]
    }

    fn route_of(&self, path: &str) -> Option<String> {
        match path.strip_prefix("browser/")? {
            "index.csr.html" => Some("/200".to_owned()),
            inside => route_of_page(inside),
        }
    }

    fn routes(&self, seen: &Seen<'_>) -> Vec<SaidRoute> {
        routes_of_pages(self, seen)
    }
}
