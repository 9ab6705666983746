//! What a request means on disk: packages that are installed under the project's folder, with their
//! `exports`, `browser`, `module` and `main`, and the `paths` of `tsconfig.json`.
//!
//! Nothing outside the project's folder is taken for an answer.

use std::path::{Path, PathBuf};

use oxc_resolver::{
    AliasValue, ResolveOptions, Resolver, TsconfigDiscovery, TsconfigOptions, TsconfigReferences,
};
use uvlet_script::requests::Kind;

/// Resolves requests on disk, as bundlers for browsers do.
#[derive(Debug)]
pub struct Installed {
    root: PathBuf,
    of_import: Resolver,
    of_require: Resolver,
}

/// Endings that may be left out, in the order in which they are tried.
pub const ENDINGS: [&str; 12] = [
    ".tsx", ".ts", ".jsx", ".js", ".mjs", ".cjs", ".mts", ".cts", ".json", ".vue", ".svelte",
    ".css",
];

/// Bytes of a path beyond which no file system is asked.
const LONGEST: usize = 4096;

impl Installed {
    /// Under a project's folder, if there is one.
    pub fn under(root: Option<&Path>) -> Option<Self> {
        let root = root?.canonicalize().ok()?;
        let config = root.join("tsconfig.json");
        let config = TsconfigOptions { config_file: config, references: TsconfigReferences::Auto };
        let is_there = config.config_file.is_file();
        let tsconfig = is_there.then_some(TsconfigDiscovery::Manual(config));
        let options = |way: &str| ResolveOptions {
            tsconfig: tsconfig.clone(),
            extensions: ENDINGS.map(str::to_owned).to_vec(),
            extension_alias: [
                (".js", &[".ts", ".tsx", ".js"][..]),
                (".jsx", &[".tsx", ".jsx"]),
                (".mjs", &[".mts", ".mjs"]),
                (".cjs", &[".cts", ".cjs"]),
            ]
            .map(|(from, to)| {
                (from.to_owned(), to.iter().map(|ending| (*ending).to_owned()).collect())
            })
            .to_vec(),
            condition_names: ["browser", way, "module", "production", "default"]
                .map(str::to_owned)
                .to_vec(),
            main_fields: ["browser", "module", "main"].map(str::to_owned).to_vec(),
            alias_fields: vec![vec!["browser".to_owned()]],
            fallback: vec![("server-only".to_owned(), vec![AliasValue::Ignore])],
            ..ResolveOptions::default()
        };
        let of_import = Resolver::new(options("import"));
        let of_require = of_import.clone_with_options(options("require"));
        Some(Self { root, of_import, of_require })
    }

    /// The file that a request means, from the project's folder; `folder` is that of the asking module.
    pub fn resolve(&self, folder: &str, specifier: &str, kind: Kind) -> Option<String> {
        let asking = self.root.join(folder);
        // Sources that a package's own map names are mostly not installed with it: packages are looked for
        // from the folders around them all the same.
        let is_bare = !specifier.starts_with('.');
        let around = asking.ancestors().take_while(|folder| folder.starts_with(&self.root));
        let mut around = around.filter(|folder| folder.as_os_str().len() <= LONGEST);
        let folder = around.find(|folder| folder.is_dir())?;
        if !is_bare && folder != asking {
            return None;
        }
        let resolver = if kind == Kind::Require { &self.of_require } else { &self.of_import };
        let found = resolver.resolve(folder, specifier).ok()?;
        let inside = found.path().strip_prefix(&self.root).ok()?;
        let parts: Option<Vec<&str>> = inside.iter().map(|part| part.to_str()).collect();
        Some(parts?.join("/"))
    }

    /// A file of the project, as it lies there.
    pub fn disk(&self, location: &str) -> Option<PathBuf> {
        let path = self.root.join(location).canonicalize().ok()?;
        (path.starts_with(&self.root) && path.is_file()).then_some(path)
    }
}
