//! The words of the command line.

use std::{path::PathBuf, str::FromStr};

use clap::{Args, Parser, Subcommand, ValueEnum};
use clap_complete::Shell;
use uvlet_record::sizes::{Coding, Measure, UnknownCoding, UnknownMeasure};
use uvlet_view::Units;

use crate::commands::steps::Steps;

/// Accounts for every byte that a web application makes its visitors download.
///
/// BUILD is the output folder of a bundler (scripts, styles, pages and, where they were written,
/// source maps) or a record of one. Nothing is run, nothing is changed, and every table adds up to the bytes on disk.
#[derive(Debug, Parser)]
#[command(name = "uvlet", version, max_term_width = 100)]
#[command(
    after_help = "Start with:\n  uvlet                    in a project: what each page of its build downloads\n  uvlet survey dist        the same of a folder that a bundler wrote\n  uvlet demo               all commands on sample data"
)]
pub struct Cli {
    /// Left out in a project's folder, its build is surveyed.
    #[command(subcommand)]
    pub command: Option<Command>,
}

#[derive(Debug, Subcommand)]
pub enum Command {
    /// What does each page make a visitor download before it can run, and what comes later?
    ///
    /// Startup is all that must arrive before an entry's own code can run: what its page asks for
    /// and every static import of it. Deferred is what it can load later with `import()`; a script
    /// tag's `defer` is not that, its script arrives at startup all the same. An `import()` that runs as
    /// its module starts is asked for at once: every visit downloads it, though no code waits for it.
    #[command(
        after_help = "Examples:\n  uvlet survey dist\n  uvlet survey dist --entry booking --all\n  uvlet survey dist --measure gzip,br\n  uvlet survey dist --measure emitted --units bytes\n  uvlet survey dist --format json -o survey.json"
    )]
    Survey(Survey),
    /// Whose bytes are they: which package, module, folder, chunk, file, entry or kind?
    ///
    /// The rows always add up to the total. Rows that are no package, module or file stand in
    /// parentheses: (own) is this project's code, (glue) the bundler's own bytes, (assets) whole
    /// files that are neither script nor style, (unattributed) what no source map explains. A row
    /// may read one byte less than the same selection in `gate`: rows are rounded so that they add
    /// up, a selection is rounded up on its own.
    #[command(
        after_help = "Examples:\n  uvlet attribute dist --by package\n  uvlet attribute dist --by package --in 'startup(booking) and third-party'\n  uvlet attribute dist --by module --in 'package(tidecalc)' --top 20\n  uvlet attribute dist --top 10 --if-removed\n\n\
        Selectors: everything, own, third-party, glue, assets, unattributed, scripts, styles,\n  startup(ENTRY), at-once(ENTRY), deferred(ENTRY), entry(ENTRY), route(ROUTE),\n  chunk(NAME), file(PATH), kind(NAME), package(NAME), module(PATH), folder(PATH),\n  group(NAME), repeats, repeats(ENTRY), carried(ENTRY), leftovers, never-ran\n  (with --coverage FILE), holding(SELECTOR), joined by and, or, except. `*`, `**` and `?` are wildcards."
    )]
    Attribute(Attribute),
    /// Why is it in here: who asks for it, from which page on, and what would leave with it?
    ///
    /// TARGET is a package (`moorline`, `moorline@2.6`), a module by its path or the end of it
    /// (`crew/main.js`), or a selector (`chunk(shared)`). What would leave is what no page reaches any
    /// more once its modules are taken out, which may be more or less than its own size.
    #[command(
        allow_missing_positional = true,
        after_help = "Examples:\n  uvlet why dist burgee-plot\n  uvlet why dist src/shared/ui.js --from booking\n  uvlet why dist 'folder(node_modules/moorline/locale)' --all"
    )]
    Why(Why),
    /// What is in here more than once, or for nobody?
    ///
    /// Findings say what could go, at startup of which page, what it comes from and what to do. They
    /// overlap; what they come to together is counted once. Each has an id that lasts as long as the
    /// finding does.
    #[command(
        after_help = "Examples:\n  uvlet waste dist\n  uvlet waste dist --kind several-versions --kind copied-module\n  uvlet waste dist --in 'startup(booking)' --min '2 kB'\n  uvlet waste dist --evidence several-versions:7f3a90c1"
    )]
    Waste(Waste),
    /// What would it win to load this later, take it out, or leave it to another host?
    ///
    /// Nothing is built: the graph is changed, and what each entry would start with is put together from
    /// the emitted text of the modules that stay, and encoded. What is named is a package, a module by its
    /// path or the end of it, or a selector. What the prediction does not know is said as doubts.
    #[command(
        after_help = "Examples:\n  uvlet what-if dist --suggest\n  uvlet what-if dist --defer src/booking/refund-dialog.js\n  uvlet what-if dist --without 'folder(node_modules/moorline/src/locale)' --defer burgee-plot\n  uvlet what-if dist --gather 'installed=third-party' --touch src/booking/main.js\n  uvlet what-if dist --bypass src/shared/ui.js --visits timetable,booking"
    )]
    WhatIf(WhatIf),
    /// What moved between two builds, because of what, and what must a returning visitor fetch again?
    ///
    /// BEFORE and AFTER are output folders or records. Rows are causes, and add up to the difference of
    /// the totals. The return visit of an entry is what somebody fetches again who has its files of the
    /// build before in the cache.
    #[command(
        after_help = "Examples:\n  uvlet compare main.json.zst dist\n  uvlet compare old new --by module --in 'startup(booking)'\n  uvlet compare main.json.zst            AFTER is what uvlet.toml names, or the project's build"
    )]
    Compare(Compare),
    /// Does the build keep its promises?
    ///
    /// Reads the budgets of uvlet.toml in the working folder, or of the file that --config names.
    /// A limit is judged by what is certain and what may be: bytes without an owner may be anybody's,
    /// and a promise that they could break is undecided.
    /// Exit status: 0 every budget holds, 1 one is broken, 2 one is undecided or no answer can be given.
    #[command(
        after_help = "Example uvlet.toml:\n  [budget.booking-startup]\n  total      = \"startup(booking)\"\n  at_most    = \"170 kB\"\n  warn_above = \"150 kB\"\n\n  [budget.one-chunk]\n  each    = \"chunk(*)\"\n  at_most = \"90 kB\"\n  measure = \"emitted\"\n\n  [budget.no-server-kit]\n  absent = \"package(server-kit)\"\n\nExamples:\n  uvlet gate dist\n  uvlet gate dist --show all\n  uvlet gate dist --against main.json.zst --write markdown=gate.md --write junit=gate.xml\n  uvlet gate --show-settings"
    )]
    Gate(Gate),
    /// Write first budgets from what the build is now, or bring those of uvlet.toml up to it.
    ///
    /// Each entry's startup, the heaviest chunk and what `waste` finds get a limit a little above what
    /// they are. What the file says already stays, with its comments and its order: no limit is raised
    /// without --loosen, none is lowered without --tighten.
    #[command(
        after_help = "Examples:\n  uvlet propose dist\n  uvlet propose dist --headroom 2% --tighten --dry-run"
    )]
    Propose(Propose),
    /// Save the build as a record, which every command takes in its place.
    ///
    /// A record answers every question later and elsewhere, without the build. FILE ends in .json,
    /// .json.gz or .json.zst; without -o the record goes to standard output as JSON.
    #[command(
        after_help = "Examples:\n  uvlet record dist -o main.json.zst\n  uvlet record dist --measure gzip,br -o main.json.zst\n  uvlet survey main.json.zst"
    )]
    Record(Record),
    /// Write one page that shows the build to people who would rather look than read.
    ///
    /// One HTML file that asks for nothing from nowhere: bars for what each page fetches, a table that
    /// a click or a search filters, why something is here, what need not be, promises, and what moved.
    #[command(
        after_help = "Examples:\n  uvlet report dist\n  uvlet report dist --against main.json.zst -o sizes.html\n  uvlet report dist --figure strata -o sizes.svg"
    )]
    Report(Report),
    /// Which bytes did a browser never run, and whose are they?
    ///
    /// RECORDING is JavaScript coverage as the DevTools protocol gives it, a file that V8 writes, or the
    /// array of url, ranges and text that browsers export; the first one is that of the load. Files are
    /// told by their text, else by the end of their address and their length. What never ran in a few
    /// recordings is not dead: another visitor may need it.
    #[command(
        allow_missing_positional = true,
        after_help = "Examples:\n  uvlet coverage dist load=a.json click=b.json\n  uvlet coverage dist a.json --by module --in 'startup(booking)'"
    )]
    Coverage(Coverage),
    /// Hold a build against a browser's network log: was asked for what was foretold?
    #[command(
        allow_missing_positional = true,
        after_help = "Examples:\n  uvlet requests dist visit.har\n  uvlet requests dist visit.har --must-match"
    )]
    Requests(Requests),
    /// Put what the gate wrote on a pull request: as a comment that is renewed, and a commit's status.
    ///
    /// FILE is the Markdown of `gate --write markdown=FILE`, or any other. Forge, project, pull request
    /// and commit come from the variables of the CI job; the token from the environment alone:
    /// UVLET_TOKEN, else GITHUB_TOKEN, GITLAB_TOKEN, GITEA_TOKEN or FORGEJO_TOKEN. Exit status: 0 even
    /// where the forge does not answer, unless --must is given.
    #[cfg(feature = "post")]
    #[command(
        after_help = "Examples:\n  uvlet gate dist --write markdown=gate.md --write json=gate.json; status=$?\n  uvlet post gate.md --verdict gate.json\n  uvlet post gate.md --forge gitea --api https://forge.example/api/v1 --project site/web --change 12"
    )]
    Post(Post),
    /// Print all settings of uvlet.toml, each as a comment with what it is unless said otherwise.
    #[command(
        after_help = "Examples:\n  uvlet config --into uvlet.toml\n  uvlet gate --show-settings    what counts here, and the file and line it comes from"
    )]
    Config(Config),
    /// Print a small plugin for Rollup, Rolldown and Vite that writes what they know of a build.
    #[command(
        after_help = "Example:\n  uvlet plugin > uvlet-plugin.mjs\n\nThen, in the configuration of the bundler:\n  import uvletPlugin from \"./uvlet-plugin.mjs\";\n  export default { plugins: [uvletPlugin()] };\n\nIt writes uvlet-build.json into the output folder, where every command finds it. The file holds\nnames, lengths and who imports whom, and no source text; leave it out when you publish."
    )]
    Plugin(Plugin),
    /// Show every command on the sample builds of Kelpwick Ferries, a made-up operator.
    #[command(
        after_help = "Examples:\n  uvlet demo\n  uvlet demo --into kelpwick     keep the sample builds to try more on"
    )]
    Demo(Demo),
    /// Print the completions of a shell.
    #[command(
        after_help = "Example:\n  uvlet completions bash > ~/.local/share/bash-completion/completions/uvlet"
    )]
    Completions(Completions),
    /// Write the manual pages, one per command, into a folder.
    #[command(after_help = "Example:\n  uvlet manual --into ~/.local/share/man/man1")]
    Manual(Manual),
}

/// Recordings of a browser, besides the build.
#[derive(Debug, Default, Args)]
pub struct Recorded {
    /// A recording of a browser, as LABEL=FILE or FILE, which tells what `never-ran` is; may be given
    /// several times.
    #[arg(long, value_name = "RECORDING")]
    pub coverage: Vec<String>,
}

#[derive(Debug, Args)]
pub struct Survey {
    #[command(flatten)]
    pub build: Build,
    /// Show only the entries that this names, each in full; `*`, `**` and `?` are wildcards. May be
    /// given several times.
    #[arg(long = "entry", value_name = "NAME")]
    pub entries: Vec<String>,
    /// List every file and every load on demand.
    #[arg(long)]
    pub all: bool,
    #[command(flatten)]
    pub show: Show,
    #[command(flatten)]
    pub measure: MeasureChoice,
}

#[derive(Debug, Args)]
pub struct Attribute {
    #[command(flatten)]
    pub build: Build,
    /// What a row stands for.
    #[arg(long, value_enum, default_value_t = By::Package)]
    pub by: By,
    /// Only the bytes that this selector names.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// Order of the rows.
    #[arg(long, value_enum, default_value_t = Sort::Size)]
    pub sort: Sort,
    /// Show the first N rows in the table, and one row for the rest; 0 shows all.
    #[arg(long, value_name = "N", default_value_t = 30)]
    pub top: usize,
    /// Encode the files anew without each of the first N rows, and say what that saves.
    #[arg(long)]
    pub if_removed: bool,
    #[command(flatten)]
    pub recorded: Recorded,
    #[command(flatten)]
    pub show: Show,
    #[command(flatten)]
    pub measure: MeasureChoice,
}

#[derive(Debug, Args)]
pub struct Why {
    #[command(flatten)]
    pub build: Build,
    /// A package, a module, a selector, or a declaration as PATH#NAME.
    #[arg(value_name = "TARGET")]
    pub subject: String,
    /// Begin at this entry only. May be given several times.
    #[arg(long, value_name = "ENTRY")]
    pub from: Vec<String>,
    /// Show every chain, every module that asks for it, and the files that it lies in.
    #[arg(long)]
    pub all: bool,
    #[command(flatten)]
    pub show: Show,
    #[command(flatten)]
    pub measure: MeasureChoice,
}

#[derive(Debug, Args)]
pub struct Waste {
    #[command(flatten)]
    pub build: Build,
    /// Findings of this kind only. May be given several times.
    #[arg(long = "kind", value_enum, value_name = "KIND")]
    pub kinds: Vec<Kind>,
    /// Only what is among the bytes that this selector names.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// Leave out what saves less, as in '2 kB'.
    #[arg(long, value_name = "SIZE")]
    pub min: Option<String>,
    /// Show one finding with all that it stands on.
    #[arg(long, value_name = "ID")]
    pub evidence: Option<String>,
    /// Predict what mending a finding really saves, where a step of what-if says it.
    #[arg(long)]
    pub confirm: bool,
    /// Write edits that mend findings and change no behaviour, as a patch that `git apply` takes.
    #[arg(long, value_name = "FILE", conflicts_with = "evidence")]
    pub patch: Option<PathBuf>,
    #[command(flatten)]
    pub recorded: Recorded,
    /// Show the first N findings; 0 shows all.
    #[arg(long, value_name = "N", default_value_t = 12)]
    pub top: usize,
    #[command(flatten)]
    pub show: Show,
    #[command(flatten)]
    pub measure: MeasureChoice,
}

/// A kind of finding.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Kind {
    /// One module in several scripts or styles.
    CopiedModule,
    /// The same code in several scripts, told by their texts.
    CopiedText,
    /// One package in several installs.
    SeveralVersions,
    /// Two packages, or two editions of one, that hold mostly the same code.
    LookalikePackages,
    /// One function written into many modules.
    CopiedHelper,
    /// A folder of many siblings that come as a whole.
    WholeFamily,
    /// Code at startup that nothing in the entry reaches.
    CarriedAlong,
    /// Code for developers or for servers.
    WrongEnvironment,
    /// A CommonJS package that comes whole for a few of its names.
    BarelyUsed,
    /// Modules that a file which only hands on names draws into an entry that uses none of them.
    BarrelPull,
    /// What waits for somebody to act, and is there at startup.
    Deferrable,
    /// Declarations that nothing uses.
    DeadDeclaration,
    /// Declarations that nothing uses, but whose evaluation may do something.
    KeptForEffect,
}

#[derive(Debug, Args)]
pub struct Compare {
    /// The earlier build: an output folder or a record.
    #[arg(value_name = "BEFORE", required_unless_present = "last")]
    pub before: Option<PathBuf>,
    /// The earlier build is the last one of the same folder that Uvlet looked at and that differs;
    /// the one argument is the later build then.
    #[arg(long, conflicts_with = "path")]
    pub last: bool,
    #[command(flatten)]
    pub build: Build,
    /// What a row stands for.
    #[arg(long, value_enum, default_value_t = CompareBy::Package)]
    pub by: CompareBy,
    /// Only the bytes that this selector names in each build.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// Leave out rows that moved less, as in '100 B'.
    #[arg(long, value_name = "SIZE")]
    pub min: Option<String>,
    /// Show the first N rows, and one row for the rest; 0 shows all.
    #[arg(long, value_name = "N", default_value_t = 20)]
    pub top: usize,
    #[command(flatten)]
    pub show: Show,
    #[command(flatten)]
    pub measure: MeasureChoice,
}

/// What a row of a comparison stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum CompareBy {
    /// An installed package; own code is one row.
    Package,
    /// A source file.
    Module,
    /// An emitted script with its styles.
    Chunk,
}

#[derive(Debug, Args)]
pub struct Coverage {
    #[command(flatten)]
    pub build: Build,
    /// Recordings, as LABEL=FILE or FILE; the first is that of the load.
    #[arg(value_name = "RECORDING", required = true, num_args = 1..)]
    pub recordings: Vec<String>,
    /// What a row stands for.
    #[arg(long, value_enum, default_value_t = CoverageBy::Package)]
    pub by: CoverageBy,
    /// Look at what a selector names alone.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// How many rows to list; 0 lists all.
    #[arg(long, value_name = "N", default_value_t = 20)]
    pub top: usize,
    #[command(flatten)]
    pub measure: MeasureChoice,
    #[command(flatten)]
    pub show: Show,
}

/// What a row of coverage stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum CoverageBy {
    /// An installed package; own code is one row.
    Package,
    /// A source file.
    Module,
    /// A function, as the recordings tell them apart, without those inside it.
    Function,
}

#[derive(Debug, Args)]
pub struct Requests {
    #[command(flatten)]
    pub build: Build,
    /// A network log, as browsers export it (HAR 1.2).
    #[arg(value_name = "LOG")]
    pub log: PathBuf,
    /// Exit with 1 where a page asked for something else than was foretold of its startup.
    #[arg(long)]
    pub must_match: bool,
    #[command(flatten)]
    pub measure: MeasureChoice,
    #[command(flatten)]
    pub show: Show,
}

#[derive(Debug, Args)]
pub struct WhatIf {
    #[command(flatten)]
    pub build: Build,
    #[command(flatten)]
    pub steps: Steps,
    /// Weigh only the bytes that this selector names.
    #[arg(long = "in", value_name = "SELECTOR", conflicts_with = "suggest")]
    pub within: Option<String>,
    /// Visits in this order, by entry or route: what does the second page add to the first?
    #[arg(long, value_name = "ENTRY", value_delimiter = ',')]
    pub visits: Vec<String>,
    /// Try by itself what the code offers, and show what wins most, with the command that repeats it.
    #[arg(long)]
    pub suggest: bool,
    /// Write the plan as lines of the bundler's configuration, as far as it can be said there.
    #[arg(long, conflicts_with = "suggest")]
    pub as_config: bool,
    #[command(flatten)]
    pub recorded: Recorded,
    #[command(flatten)]
    pub measure: MeasureChoice,
    #[command(flatten)]
    pub show: Show,
}

#[derive(Debug, Args)]
pub struct Gate {
    #[command(flatten)]
    pub build: Build,
    /// Hold growth against this build: an output folder or a record.
    #[arg(long, value_name = "BUILD")]
    pub against: Option<PathBuf>,
    /// Where that build is not there, growth is not judged, instead of an error.
    #[arg(long, requires = "against")]
    pub against_optional: bool,
    /// Judge these budgets alone, as they are called in the settings.
    #[arg(long, value_name = "NAME", value_delimiter = ',')]
    pub only: Vec<String>,
    /// Judge with another limit than the settings say, as in 'start.at_most=150 kB'; may be given
    /// several times.
    #[arg(long = "try", value_name = "NAME.LIMIT=VALUE")]
    pub tried: Vec<String>,
    /// Judge as if these steps of what-if were done, as in '--defer src/dialog.js'.
    #[arg(long = "if", value_name = "STEPS", allow_hyphen_values = true)]
    pub plan: Option<String>,
    #[command(flatten)]
    pub recorded: Recorded,
    /// Write the verdict to a file as well, in one of the forms junit, sarif, markdown, json and csv;
    /// may be given several times.
    #[arg(long, value_name = "FORM=FILE", value_parser = written)]
    pub write: Vec<(Form, PathBuf)>,
    /// The day that waivers are held against, as 2027-03-31 [default: today, in UTC].
    #[arg(long, value_name = "DATE")]
    pub today: Option<jiff::civil::Date>,
    /// Which promises to list: those that tell something, only those that fail, or all with what is
    /// left of each.
    #[arg(long = "show", value_enum, default_value_t = Listed::Telling)]
    pub listed: Listed,
    /// Show every setting that counts, with the file and line that it comes from, and judge nothing.
    #[arg(long)]
    pub show_settings: bool,
    /// Print nothing: the exit status tells, and the files of --write.
    #[arg(short, long)]
    pub quiet: bool,
    /// Form of the output.
    #[arg(long, value_enum, default_value_t = GateFormat::Table)]
    pub format: GateFormat,
    #[command(flatten)]
    pub page: Page,
}

/// Form of a verdict.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum GateFormat {
    /// For a person.
    Table,
    /// For a program.
    Json,
    /// For a spreadsheet.
    Csv,
    /// For a pull request.
    Markdown,
    /// JUnit XML: a case for every limit.
    Junit,
    /// SARIF 2.1.0: a result for every limit that is not held.
    Sarif,
}

#[derive(Debug, Args)]
pub struct Propose {
    #[command(flatten)]
    pub build: Build,
    /// How far limits stand above what there is.
    #[arg(long, value_name = "PERCENT", default_value = "5%")]
    pub headroom: String,
    /// Lower limits that stand further above.
    #[arg(long)]
    pub tighten: bool,
    /// Raise limits that are broken.
    #[arg(long)]
    pub loosen: bool,
    /// Say what would change, and write nothing.
    #[arg(long)]
    pub dry_run: bool,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

#[derive(Debug, Args)]
pub struct Record {
    #[command(flatten)]
    pub build: Build,
    #[command(flatten)]
    pub measure: MeasureChoice,
    /// Keep emitted and source texts in the record.
    #[arg(long)]
    pub with_texts: bool,
    /// Write to this file, whole or not at all.
    #[arg(short, long, value_name = "FILE")]
    pub output: Option<PathBuf>,
}

#[derive(Debug, Args)]
pub struct Plugin {
    /// Write to this file, whole or not at all, instead of standard output.
    #[arg(short, long, value_name = "FILE")]
    pub output: Option<PathBuf>,
}

#[derive(Debug, Args)]
pub struct Report {
    #[command(flatten)]
    pub build: Build,
    #[command(flatten)]
    pub measure: MeasureChoice,
    /// Show what moved since this build: an output folder or a record.
    #[arg(long, value_name = "BUILD")]
    pub against: Option<PathBuf>,
    #[command(flatten)]
    pub recorded: Recorded,
    /// Draw one figure alone, as SVG, to standard output or the file of -o.
    #[arg(long, value_enum)]
    pub figure: Option<Figure>,
    /// Write to this file, whole or not at all [default: uvlet-LABEL.html].
    #[arg(short, long, value_name = "FILE")]
    pub output: Option<PathBuf>,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

/// A drawing of the page.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Figure {
    /// A bar for what each entry starts with.
    Strata,
    /// What moved, to the left and right of a line.
    Causes,
}

#[cfg(feature = "post")]
#[derive(Debug, Args)]
pub struct Post {
    /// The text, as Markdown.
    #[arg(value_name = "FILE")]
    pub file: PathBuf,
    /// The gate's JSON, for a status of the commit.
    #[arg(long, value_name = "FILE")]
    pub verdict: Option<PathBuf>,
    /// Which kind of forge [default: as the CI job says].
    #[arg(long, value_enum)]
    pub forge: Option<Forge>,
    /// Root of the forge's interface, as https://forge.example/api/v1.
    #[arg(long, value_name = "URL")]
    pub api: Option<String>,
    /// The project, as owner/name.
    #[arg(long, value_name = "PROJECT")]
    pub project: Option<String>,
    /// Number of the pull request.
    #[arg(long, value_name = "NUMBER")]
    pub change: Option<u64>,
    /// The commit that gets the status.
    #[arg(long, value_name = "SHA")]
    pub commit: Option<String>,
    /// Name of the status.
    #[arg(long, value_name = "TEXT", default_value = "uvlet")]
    pub name: String,
    /// Seconds after which posting is given up, all requests together.
    #[arg(long, value_name = "SECONDS", default_value_t = 30, value_parser = clap::value_parser!(u64).range(1..=3600))]
    pub timeout: u64,
    /// End with 2 where something could not be posted.
    #[arg(long)]
    pub must: bool,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

/// A family of forges.
#[cfg(feature = "post")]
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Forge {
    /// GitHub.
    Github,
    /// GitLab.
    Gitlab,
    /// Gitea and Forgejo.
    Gitea,
}

#[cfg(feature = "post")]
impl From<Forge> for uvlet_forge::Forge {
    fn from(forge: Forge) -> Self {
        match forge {
            Forge::Github => Self::GitHub,
            Forge::Gitlab => Self::GitLab,
            Forge::Gitea => Self::Gitea,
        }
    }
}

#[derive(Debug, Args)]
pub struct Config {
    /// Write them to this new file.
    #[arg(long, value_name = "FILE")]
    pub into: Option<PathBuf>,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

#[derive(Debug, Args)]
pub struct Demo {
    /// Keep the sample builds in this new folder.
    #[arg(long, value_name = "DIR")]
    pub into: Option<PathBuf>,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

#[derive(Debug, Args)]
pub struct Completions {
    /// The shell.
    #[arg(value_enum)]
    pub shell: Shell,
}

#[derive(Debug, Args)]
pub struct Manual {
    /// The folder, which is made if it is not there.
    #[arg(long, value_name = "DIR")]
    pub into: PathBuf,
}

/// Which build, and what helps to read it.
#[derive(Clone, Debug, Args)]
pub struct Build {
    /// The output folder, a description in it, or a record. Left out, or a project's folder: what
    /// uvlet.toml names, else the one output folder of the project.
    #[arg(value_name = "BUILD")]
    pub path: Option<PathBuf>,
    /// Read settings from this file instead of the uvlet.toml of the working folder, or of the
    /// nearest folder above it within the repository.
    #[arg(long, value_name = "FILE")]
    pub config: Option<PathBuf>,
    /// Which app of the settings, where they have several: its folder, its own packages, its budgets.
    #[arg(long, value_name = "NAME")]
    pub app: Option<String>,
    /// What the bundler says of the build, if not in its folder: webpack's or Rspack's stats,
    /// esbuild's metafile, Vite's manifest, or the file of the plugin.
    #[arg(long, value_name = "FILE")]
    pub description: Option<PathBuf>,
    /// Where source maps are kept, if not beside the files.
    #[arg(long, value_name = "DIR")]
    pub maps: Option<PathBuf>,
    /// The project's folder, for versions of packages [default: the nearest folder above the build
    /// with a package.json].
    #[arg(long, value_name = "DIR")]
    pub root: Option<PathBuf>,
    /// Take the sizes of precompressed copies (app.js.gz, app.js.br) where they decode to their file.
    #[arg(long)]
    pub precompressed: bool,
    /// Levels of the encoders, as gzip=6,br=5 [default: gzip=9,br=11,zstd=19, or what uvlet.toml
    /// says]. Sizes of different levels are not compared.
    #[arg(long = "level", value_name = "CODING=LEVEL", value_delimiter = ',', value_parser = level)]
    pub levels: Vec<(Coding, u32)>,
    /// Encode every file anew, and keep nothing in the user's cache folder.
    #[arg(long)]
    pub no_cache: bool,
    /// Which output to look at where the folder holds that of several targets [default: browser].
    #[arg(long, value_enum)]
    pub target: Option<Target>,
    /// Name of the build in outputs, instead of the folder's own.
    #[arg(long, value_name = "TEXT")]
    pub label: Option<String>,
}

/// How to show the answer.
#[derive(Debug, Args)]
pub struct Show {
    /// Form of the output.
    #[arg(long, value_enum, default_value_t = Format::Table)]
    pub format: Format,
    #[command(flatten)]
    pub page: Page,
}

/// Where and how it is laid out.
#[derive(Debug, Args)]
pub struct Page {
    /// kb: 1 kB is 1000 bytes; kib: 1 KiB is 1024 bytes; bytes: exact.
    #[arg(long, value_name = "UNITS", default_value = "kb")]
    pub units: Units,
    /// Write to this file, whole or not at all, instead of standard output.
    #[arg(short, long, value_name = "FILE")]
    pub output: Option<PathBuf>,
    /// Lay tables out in so many columns [default: the terminal's, 80 where there is none].
    #[arg(long, value_name = "COLUMNS")]
    pub width: Option<usize>,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
    /// How sizes are meant was said before.
    #[arg(skip)]
    pub brief: bool,
}

#[derive(Debug, Args)]
pub struct MeasureChoice {
    /// What sizes are counted in: emitted, gzip, br, zstd, several of them as gzip,br, or all. The
    /// first orders the table [default: gzip, or what uvlet.toml says].
    #[arg(long = "measure", value_name = "MEASURES", value_delimiter = ',')]
    pub measures: Vec<Asked>,
}

/// A word of `--measure`.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Asked {
    /// Every measure.
    All,
    /// This one.
    One(Measure),
}

impl FromStr for Asked {
    type Err = String;

    fn from_str(text: &str) -> Result<Self, String> {
        match text {
            "all" => Ok(Self::All),
            _ => match text.parse() {
                Ok(measure) => Ok(Self::One(measure)),
                Err(error @ UnknownMeasure(_)) => Err(format!("{error}, and all")),
            },
        }
    }
}

/// `gzip=6`.
fn level(text: &str) -> Result<(Coding, u32), String> {
    let (coding, level) = text.split_once('=').ok_or("a level is set as gzip=6")?;
    let coding: Coding = coding.trim().parse().map_err(|error: UnknownCoding| error.to_string())?;
    let levels = coding.levels();
    let level = level.trim().parse().ok().filter(|level| levels.contains(level));
    level.map(|level| (coding, level)).ok_or_else(|| {
        format!("the levels of {coding} go from {} to {}", levels.start(), levels.end())
    })
}

/// `junit=FILE`.
fn written(text: &str) -> Result<(Form, PathBuf), String> {
    let forms = || Form::value_variants().iter().filter_map(|form| form.to_possible_value());
    let names = || forms().map(|form| form.get_name().to_owned()).collect::<Vec<_>>().join(", ");
    let (form, path) = text.split_once('=').ok_or("write it like junit=FILE")?;
    let known = Form::from_str(form, false).map_err(|_| format!("the forms are {}", names()))?;
    match path {
        "" => Err(format!("name a file, as in {form}=FILE")),
        path => Ok((known, path.into())),
    }
}

/// Form of a verdict in a file.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Form {
    /// JUnit XML: a case for every limit.
    Junit,
    /// SARIF 2.1.0: a result for every limit that is not held.
    Sarif,
    /// For a pull request.
    Markdown,
    /// For a program.
    Json,
    /// For a spreadsheet.
    Csv,
}

/// Form of an output.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Format {
    /// For a person.
    Table,
    /// For a program; holds every measure that was taken.
    Json,
    /// For a spreadsheet; exact bytes in every measure that was taken.
    Csv,
    /// For a pull request or a job summary.
    Markdown,
}

/// Where a build runs.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Target {
    /// What visitors download.
    Browser,
    /// What runs on Node.js.
    Server,
    /// What runs on servers near the visitor, without Node.js.
    Edge,
    /// What runs in a worker of its own.
    Worker,
}

/// When to colour.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Color {
    /// On a terminal, unless NO_COLOR is set.
    Auto,
    /// Always.
    Always,
    /// Never.
    Never,
}

/// What a row stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum By {
    /// An installed package; own code is one row.
    Package,
    /// A source file.
    Module,
    /// A folder of own sources, or the place of a package.
    Folder,
    /// An emitted script with its styles.
    Chunk,
    /// An emitted file.
    File,
    /// An entry; what several load is one row.
    Entry,
    /// A kind of file.
    Kind,
    /// A group of uvlet.toml; what is in none stands by its package.
    Group,
    /// A name that a module exports, with whether it is used; the rest of a module is one row.
    Export,
}

/// Which promises are listed.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Listed {
    /// Broken, undecided and warned ones; the others are counted.
    Telling,
    /// Broken and undecided ones; the others are counted.
    Broken,
    /// Every one.
    All,
}

/// The order of rows.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Sort {
    /// Heaviest first.
    Size,
    /// By name.
    Name,
}

#[cfg(test)]
mod tests {
    use clap::CommandFactory;

    #[test]
    fn the_command_line_is_consistent() {
        super::Cli::command().debug_assert();
    }
}
