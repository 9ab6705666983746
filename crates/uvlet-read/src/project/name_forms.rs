//! Forms of names that tools give to sources, turned into paths.

/// Names of Turbopack.
pub mod turbopack {
    /// A name without the marks of the root it is below and of the view that it is.
    ///
    /// `[project]/a.module.css [app-client] (css module)` and `[project]/a.json.[json].cjs/…` are
    /// `a.module.css` and `a.json`; what is below `[turbopack]` stays as it is.
    pub fn plain(name: &str) -> &str {
        let Some(inside) = name.trim_start_matches('/').strip_prefix("[project]/") else {
            return name;
        };
        let inside = inside.split_once(" [").map_or(inside, |(path, _)| path);
        inside.split_once(".[json].cjs").map_or(inside, |(path, _)| path)
    }
}

/// Names that Bazel's build folders give, as maps of packages hold them that were built with it.
pub mod bazel {
    /// Folders of Angular's second repository that are packages of their own.
    const COMPONENTS: [&str; 4] = ["cdk", "material", "google-maps", "youtube-player"];

    /// Where the package of such a source is installed, and the source's path as if it were there.
    ///
    /// The folder is called after its platform, kind and a digest (`k8-fastbuild-ST-…`), and
    /// followed by `bin`; `packages/core` below it is `@angular/core`, `src/cdk` is `@angular/cdk`.
    pub fn installed(name: &str) -> Option<(String, String)> {
        let (before, inside) = name.split_once("/bin/")?;
        let folder = before.rsplit('/').next()?;
        if !folder.contains("-fastbuild") && !folder.contains("-opt-ST-") {
            return None;
        }
        let (package, rest) = match inside.strip_prefix("packages/") {
            Some(inside) => inside.split_once('/')?,
            None => {
                let component = inside.strip_prefix("src/")?.split_once('/')?;
                Some(component).filter(|(name, _)| COMPONENTS.contains(name))?
            }
        };
        let place = format!("node_modules/@angular/{package}");
        let path = format!("{place}/{rest}");
        Some((place, path))
    }
}
