//! What each bundler does of its own accord, and how it is told to do otherwise: a value per bundler, which is
//! all that a new one needs here. Sizes of helpers were measured on real builds.

use uvlet_record::{Bundler, Kind, Record};

/// Bytes of a helper, as emitted and about as coded.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Helper {
    /// As emitted.
    pub emitted: u64,
    /// Under any coding.
    pub coded: u64,
}

impl Helper {
    const fn new(emitted: u64, coded: u64) -> Self {
        Self { emitted, coded }
    }
}

/// What a page's first load on demand brings along.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Loading {
    /// A helper that preloads what the loaded file needs.
    Preloader,
    /// A larger runtime.
    Runtime,
    /// Files at all: without an option there are none.
    SplitFiles,
    /// Next to nothing.
    Little,
}

/// How a bundler is told to put what entries share into files of their own.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Sharing {
    /// By an option that splits.
    Splitting,
    /// By an option for chunks of all kinds.
    AllChunks,
    /// In a way that is its own.
    Other,
}

/// How a rule is written that puts modules into a file of their own.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum GatherRule {
    /// As a group of chunks that are cached.
    CacheGroups,
    /// As a group of the code splitting, behind and before these words.
    Groups {
        /// What opens the list.
        open: &'static str,
        /// What closes it.
        close: &'static str,
    },
    /// As a function of a module's path.
    Function,
    /// Not at all.
    None,
}

/// What is known of a bundler.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Profile {
    /// What the first load on demand brings.
    pub loading: Loading,
    /// Its bytes, without styles in the build and with.
    helpers: [Helper; 2],
    /// What is loaded on demand gets files of its own only where that is asked for.
    splits_if_asked: bool,
    /// One file is cut for each set of entries that load the same.
    pub cuts_by_entries: bool,
    /// What lets others import CommonJS modules stands at the head of a file, or in one of its own.
    pub has_import_helpers: bool,
    /// Merged modules are wrapped one by one where several entries share their file.
    pub wraps_gathered: bool,
    /// Its description names the files that an import leads to, whichever names the import takes.
    pub says_files_only: bool,
    /// How it is told to share.
    pub sharing: Sharing,
    /// How it is told to gather.
    pub gather: GatherRule,
    /// What stands before and behind the list of packages that it leaves out.
    pub externals: [&'static str; 2],
    /// What has it write source maps.
    pub maps: Maps,
}

/// What has source maps written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Maps {
    /// That is not known.
    Unknown,
    /// A command.
    Command(&'static str),
    /// The command that is used, with a flag more.
    Flag {
        /// Whose command.
        of: &'static str,
        /// The flag.
        flag: &'static str,
        /// One that says as much.
        or: Option<&'static str>,
    },
    /// A line of a file.
    Setting {
        /// The line.
        line: &'static str,
        /// The file.
        file: &'static str,
    },
    /// A command, where nothing spoils it.
    Without {
        /// The command.
        command: &'static str,
        /// What does.
        what: Spoiler,
    },
}

/// What keeps source maps from being written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Spoiler {
    /// A flag.
    Flag(&'static str),
    /// A plugin that deletes them.
    Plugin,
}

/// Little is known of it.
const OTHER: Profile = Profile {
    loading: Loading::Little,
    helpers: [Helper::new(0, 0); 2],
    splits_if_asked: false,
    cuts_by_entries: false,
    has_import_helpers: false,
    wraps_gathered: false,
    says_files_only: false,
    sharing: Sharing::Other,
    gather: GatherRule::None,
    externals: ["external: [", "],"],
    maps: Maps::Unknown,
};

const WEBPACK: Profile = Profile {
    loading: Loading::Runtime,
    helpers: [Helper::new(2_500, 1_050), Helper::new(5_200, 1_860)],
    wraps_gathered: true,
    sharing: Sharing::AllChunks,
    gather: GatherRule::CacheGroups,
    externals: ["externals: [", "],"],
    maps: Maps::Command("npx webpack --mode production --devtool source-map"),
    ..OTHER
};

const RSPACK: Profile = Profile {
    helpers: [Helper::new(2_500, 1_050), Helper::new(6_300, 2_150)],
    maps: Maps::Command("npx rspack build --mode production --devtool source-map"),
    ..WEBPACK
};

const ROLLDOWN: Profile = Profile {
    loading: Loading::Preloader,
    helpers: [Helper::new(1_330, 600); 2],
    cuts_by_entries: true,
    has_import_helpers: true,
    says_files_only: true,
    gather: GatherRule::Groups { open: "output: { codeSplitting: { groups: [", close: "] } }," },
    maps: Maps::Command("npx rolldown -c --sourcemap"),
    ..OTHER
};

const VITE: Profile = Profile {
    gather: GatherRule::Groups {
        open: "build: { rolldownOptions: { output: { codeSplitting: { groups: [",
        close: "] } } } },",
    },
    externals: ["build: { rolldownOptions: { external: [", "] } },"],
    maps: Maps::Command("npx vite build --sourcemap"),
    ..ROLLDOWN
};

const ESBUILD: Profile = Profile {
    loading: Loading::SplitFiles,
    splits_if_asked: true,
    cuts_by_entries: true,
    has_import_helpers: true,
    says_files_only: true,
    sharing: Sharing::Splitting,
    maps: Maps::Flag { of: "esbuild", flag: "--sourcemap", or: Some("--metafile=meta.json") },
    ..OTHER
};

const ROLLUP: Profile = Profile {
    cuts_by_entries: true,
    says_files_only: true,
    gather: GatherRule::Function,
    maps: Maps::Command("npx rollup -c --sourcemap"),
    ..OTHER
};

/// Frameworks: the package that a project has of each, its name in a record, and what writes maps.
pub const FRAMEWORKS: [(&str, &str, Maps); 13] = [
    (
        "next",
        "Next.js",
        Maps::Setting { line: "productionBrowserSourceMaps: true", file: "next.config" },
    ),
    ("nuxt", "Nuxt", Maps::Setting { line: "sourcemap: { client: true }", file: "nuxt.config" }),
    (
        "@sveltejs/kit",
        "SvelteKit",
        Maps::Setting { line: "build: { sourcemap: true }", file: "vite.config" },
    ),
    (
        "astro",
        "Astro",
        Maps::Setting { line: "vite: { build: { sourcemap: true } }", file: "astro.config" },
    ),
    (
        "@react-router/dev",
        "React Router",
        Maps::Command("npx react-router build --sourcemapClient"),
    ),
    ("@remix-run/dev", "Remix", Maps::Command("npx remix vite:build --sourcemapClient")),
    ("@angular/cli", "Angular", Maps::Command("npx ng build --source-map")),
    (
        "vitepress",
        "VitePress",
        Maps::Setting { line: "vite: { build: { sourcemap: true } }", file: ".vitepress/config" },
    ),
    (
        "@solidjs/start",
        "SolidStart",
        Maps::Setting { line: "vite: { build: { sourcemap: true } }", file: "app.config" },
    ),
    (
        "@tanstack/react-start",
        "TanStack Start",
        Maps::Setting { line: "build: { sourcemap: true }", file: "vite.config" },
    ),
    (
        "react-scripts",
        "Create React App",
        Maps::Command("GENERATE_SOURCEMAP=true npx react-scripts build"),
    ),
    (
        "@vue/cli-service",
        "Vue CLI",
        Maps::Setting { line: "productionSourceMap: true", file: "vue.config.js" },
    ),
    ("gatsby", "Gatsby", Maps::Without { command: "npx gatsby build", what: Spoiler::Plugin }),
];

impl Profile {
    /// What is known of the bundler of a build.
    #[must_use]
    pub fn of(bundler: Option<Bundler>) -> Self {
        match bundler {
            Some(Bundler::Webpack) => WEBPACK,
            Some(Bundler::Rspack) => RSPACK,
            Some(Bundler::Vite) => VITE,
            Some(Bundler::Rolldown) => ROLLDOWN,
            Some(Bundler::Esbuild) => ESBUILD,
            Some(Bundler::Rollup) => ROLLUP,
            Some(Bundler::Turbopack) => Self {
                maps: Maps::Setting {
                    line: "productionBrowserSourceMaps: true",
                    file: "next.config",
                },
                ..OTHER
            },
            Some(Bundler::Parcel) => Self {
                maps: Maps::Without {
                    command: "npx parcel build",
                    what: Spoiler::Flag("--no-source-maps"),
                },
                ..OTHER
            },
            Some(Bundler::Bun) => Self {
                maps: Maps::Flag { of: "bun", flag: "--sourcemap=linked", or: None },
                ..OTHER
            },
            None => OTHER,
        }
    }

    /// Bytes that a page's first load on demand brings along.
    #[must_use]
    pub fn helper(&self, record: &Record) -> Helper {
        let has_styles = record.files.iter().any(|file| file.kind == Kind::Style);
        self.helpers[usize::from(has_styles)]
    }

    /// Tells whether what is loaded on demand is cut into files of its own; where that must be asked for, it
    /// shows in files that load others.
    #[must_use]
    pub fn splits(&self, record: &Record) -> bool {
        !self.splits_if_asked
            || !record.dynamic_loads.is_empty()
            || record.files.iter().any(|file| file.kind == Kind::Script && !file.loads.is_empty())
    }
}
