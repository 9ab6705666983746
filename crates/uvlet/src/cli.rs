//! The commands of the program, with their help.

pub mod layout;

use std::path::Path;

use clap::{CommandFactory, FromArgMatches, Parser, Subcommand};
use uvlet_view::form::Form;

#[cfg(feature = "post")]
use crate::commands::post;
use crate::{
    args::word::one_of,
    commands::{
        attribute, compare, config, coverage, demo, gate, help, plugin, propose, record, report,
        requests, survey, waste, what_if, why,
    },
    config::FILE,
    failure::{Failure, Status},
};

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
    /// What does each page make a visitor download before it can run, and what loads later?
    ///
    /// Startup is all that must arrive before an entry's own code can run: what its page requests
    /// and every static import of it. Deferred is what it can load later with `import()`; a script
    /// tag's `defer` is not that, its script arrives at startup all the same. An `import()` that runs as
    /// its module starts is loaded at once, and so is a lazy component that the first screen always draws:
    /// every visit downloads it, though no code waits for it.
    #[command(
        after_help = "Examples:\n  uvlet survey dist\n  uvlet survey dist --entry booking --all\n  uvlet survey dist --measure gzip,br\n  uvlet survey dist --measure emitted --units bytes\n  uvlet survey dist --format json -o survey.json"
    )]
    Survey(survey::Arguments),
    /// Whose bytes are they: which package, module, folder, chunk, file, entry or kind?
    ///
    /// The rows always add up to the total. Rows that are no package, module or file are in
    /// parentheses: (own) is this project's code, (glue) the bundler's own bytes, (assets) whole
    /// files that are neither script nor style, (unattributed) what no source map explains. A row
    /// may read one byte less than the same selection in `gate`: rows are rounded so that they add
    /// up, a selection is rounded up on its own.
    #[command(
        after_help = attribute::help()
    )]
    Attribute(attribute::Arguments),
    /// Why is it in here: who imports it, from which page on, and what would leave with it?
    ///
    /// TARGET is a package (`moorline`, `moorline@2.6`), a module by its path or the end of it
    /// (`crew/main.js`), or a selector (`chunk(shared)`). What would leave is what no page reaches any
    /// more once its modules are taken out, which may be more or less than its own size.
    #[command(
        mut_arg("format", of_words),
        allow_missing_positional = true,
        after_help = "Examples:\n  uvlet why dist burgee-plot\n  uvlet why dist src/shared/ui.js --from booking\n  uvlet why dist 'folder(node_modules/moorline/locale)' --all\n\nMore: docs/predictions.md"
    )]
    Why(why::Arguments),
    /// What is in here more than once, or for nobody?
    ///
    /// Findings say what could go, at startup of which page, what it comes from and what to do. They
    /// overlap; what they come to together is counted once. Each has an id that lasts as long as the
    /// finding does.
    #[command(
        mut_arg("format", of_words),
        after_help = "Examples:\n  uvlet waste dist\n  uvlet waste dist --kind several-versions --kind copied-module\n  uvlet waste dist --in 'startup(booking)' --min '2 kB'\n  uvlet waste dist --evidence several-versions:7f3a90c1\n\nMore: docs/findings.md"
    )]
    Waste(waste::Arguments),
    /// What would it save to load this later, remove it, or leave it to another host?
    ///
    /// Nothing is built: the graph is changed, and what each entry would start with is put together from
    /// the emitted text of the modules that stay, and encoded. What is named is a package, a module by its
    /// path or the end of it, or a selector. What the prediction does not know is said as doubts.
    #[command(
        mut_arg("format", of_words),
        after_help = "Examples:\n  uvlet what-if dist --suggest\n  uvlet what-if dist --defer src/booking/refund-dialog.js\n  uvlet what-if dist --without 'folder(node_modules/moorline/src/locale)' --defer burgee-plot\n  uvlet what-if dist --gather 'installed=third-party' --touch src/booking/main.js\n  uvlet what-if dist --bypass src/shared/ui.js --visits timetable,booking\n\nMore: docs/predictions.md"
    )]
    WhatIf(what_if::Arguments),
    /// What moved between two builds, because of what, and what must a returning visitor fetch again?
    ///
    /// BEFORE and AFTER are output folders or records. Rows are causes, and add up to the difference of
    /// the totals. The return visit of an entry is what somebody fetches again who has its files of the
    /// build before in the cache.
    #[command(
        after_help = "Examples:\n  uvlet compare main.json.zst dist\n  uvlet compare old new --by module --in 'startup(booking)'\n  uvlet compare main.json.zst            AFTER is what uvlet.toml names, or the project's build\n  uvlet survey dist --mark start         then edit, build and look as often as you like:\n  uvlet compare --tries dist             a line for each build since\n\nMore: docs/answers.md"
    )]
    Compare(compare::arguments::Arguments),
    /// Does the build meet its budgets?
    ///
    /// Reads the budgets of uvlet.toml in the working folder, or of the file that --config names.
    /// A limit is judged by what is certain and what may be: bytes without an owner may be anybody's,
    /// and a limit that they could exceed is undecided.
    /// Exit status: 0 every budget is met, 1 one is broken, 2 one is undecided or no answer can be given.
    #[command(
        after_help = "Example uvlet.toml:\n  [budget.booking-startup]\n  total      = \"startup(booking)\"\n  at_most    = \"170 kB\"\n  warn_above = \"150 kB\"\n\n  [budget.one-chunk]\n  each    = \"chunk(*)\"\n  at_most = \"90 kB\"\n  measure = \"emitted\"\n\n  [budget.no-server-kit]\n  absent = \"package(server-kit)\"\n\nExamples:\n  uvlet gate dist\n  uvlet gate dist --show all\n  uvlet gate dist --against main.json.zst --write markdown=gate.md --write junit=gate.xml\n  uvlet gate --show-settings\n\nMore: docs/settings.md"
    )]
    Gate(gate::arguments::Arguments),
    /// Write first budgets from what the build is now, or bring those of uvlet.toml up to it.
    ///
    /// Each entry's startup, the heaviest chunk and what `waste` finds get a limit a little above what
    /// they are. What the file says already stays, with its comments and its order: no limit is raised
    /// without --loosen, none is lowered without --tighten.
    #[command(
        after_help = "Examples:\n  uvlet propose dist\n  uvlet propose dist --headroom 2% --tighten --dry-run\n\nMore: docs/settings.md"
    )]
    Propose(propose::Arguments),
    /// Save the build as a record, which every command takes in its place.
    ///
    /// A record answers every question later and elsewhere, without the build. FILE ends in .json,
    /// .json.gz or .json.zst; without -o the record goes to standard output as JSON.
    #[command(
        after_help = "Examples:\n  uvlet record dist -o main.json.zst\n  uvlet record dist --measure gzip,br -o main.json.zst\n  uvlet survey main.json.zst"
    )]
    Record(record::Arguments),
    /// Write one page that shows the build to people who would rather look than read.
    ///
    /// One HTML file that makes no requests: bars for what each page fetches, a table that
    /// a click or a search filters, why something is here, what could be removed, budgets, and what changed.
    #[command(
        after_help = "Examples:\n  uvlet report dist\n  uvlet report dist --against main.json.zst -o sizes.html\n  uvlet report dist --figure strata -o sizes.svg\n\nMore: docs/answers.md"
    )]
    Report(report::Arguments),
    /// Which bytes did a browser never run, and whose are they?
    ///
    /// RECORDING is JavaScript coverage as the DevTools protocol gives it, a file that V8 writes, or the
    /// array of url, ranges and text that browsers export; the first one is that of the load. Files are
    /// told by their text, else by the end of their address and their length. What never ran in a few
    /// recordings is not dead: another visitor may need it.
    #[command(
        allow_missing_positional = true,
        after_help = "Examples:\n  uvlet coverage dist load=a.json click=b.json\n  uvlet coverage dist a.json --by module --in 'startup(booking)'\n\nMore: docs/recordings.md"
    )]
    Coverage(coverage::Arguments),
    /// Compare a browser's network log with the build: was everything requested as predicted?
    #[command(
        mut_arg("format", of_words),
        allow_missing_positional = true,
        after_help = "Examples:\n  uvlet requests dist visit.har\n  uvlet requests dist visit.har --must-match"
    )]
    Requests(requests::Arguments),
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
    Post(post::Arguments),
    /// Print all settings of uvlet.toml, each as a comment with what it is unless said otherwise.
    #[command(
        after_help = "Examples:\n  uvlet config --into uvlet.toml\n  uvlet config --schema --into uvlet.schema.json    so that an editor completes settings\n  uvlet gate --show-settings    what counts here, and the file and line it comes from\n\nMore: docs/settings.md"
    )]
    Config(config::Arguments),
    /// Print a small plugin for Rollup, Rolldown and Vite that writes what they know of a build.
    #[command(
        after_help = "Example:\n  uvlet plugin > uvlet-plugin.mjs\n\nThen, in the configuration of the bundler:\n  import uvletPlugin from \"./uvlet-plugin.mjs\";\n  export default { plugins: [uvletPlugin()] };\n\nIt writes uvlet-build.json into the output folder, where every command finds it. The file holds\nnames, lengths and who imports whom, and no source text; leave it out when you publish."
    )]
    Plugin(plugin::Arguments),
    /// Show every command on the sample builds of Kelpwick Ferries, a made-up operator.
    #[command(
        after_help = "Examples:\n  uvlet demo\n  uvlet demo --into kelpwick     keep the sample builds to try more on"
    )]
    Demo(demo::Arguments),
    /// Print the completions of a shell.
    #[command(
        after_help = "Example:\n  uvlet completions bash > ~/.local/share/bash-completion/completions/uvlet"
    )]
    Completions(help::Completions),
    /// Write the manual pages, one per command, into a folder.
    #[command(after_help = "Example:\n  uvlet manual --into ~/.local/share/man/man1")]
    Manual(help::Manual),
}

impl Cli {
    /// The program's line as it was typed, else the help or the error that it calls for.
    pub fn of_arguments() -> Result<Self, clap::Error> {
        let matches = layout::laid_out(Self::command()).try_get_matches()?;
        Self::from_arg_matches(&matches)
    }
}

/// The forms of an answer that is no rows.
fn of_words(format: clap::Arg) -> clap::Arg {
    format.value_parser(one_of(Form::OF_WORDS))
}

/// Runs the command of a line without one: the survey, where there is something to survey.
pub fn run_alone() -> Result<Status, Failure> {
    let here = Path::new(".");
    let is_there = uvlet_read::project::is_project(here) || here.join(FILE).is_file();
    let words = ["uvlet", "survey"];
    match Cli::try_parse_from(words) {
        Ok(Cli { command: Some(command) }) if is_there => run(&command),
        _ => help::usage(&mut layout::laid_out(Cli::command())),
    }
}

/// Runs a command.
pub fn run(command: &Command) -> Result<Status, Failure> {
    match command {
        Command::Survey(arguments) => survey::run(arguments),
        Command::Attribute(arguments) => attribute::run(arguments),
        Command::Waste(arguments) => waste::run(arguments),
        Command::Why(arguments) => why::run(arguments),
        Command::Coverage(arguments) => coverage::run(arguments),
        Command::Requests(arguments) => requests::run(arguments),
        Command::WhatIf(arguments) => what_if::run(arguments),
        Command::Compare(arguments) => compare::run(arguments),
        Command::Gate(arguments) => gate::run(arguments),
        Command::Propose(arguments) => propose::run(arguments),
        Command::Record(arguments) => record::run(arguments),
        #[cfg(feature = "post")]
        Command::Post(arguments) => post::run(arguments),
        Command::Config(arguments) => config::run(arguments),
        Command::Report(arguments) => report::run(arguments),
        Command::Plugin(arguments) => plugin::run(arguments),
        Command::Demo(arguments) => demo::run(arguments, &walk),
        Command::Completions(arguments) => help::completions(arguments, Cli::command()),
        Command::Manual(arguments) => help::manual(arguments, Cli::command()),
    }
}

/// Runs a command of the demo's walk; how sizes are meant is explained once.
fn walk(line: &[&str], is_explained: bool) -> Result<Status, Failure> {
    let cli = Cli::try_parse_from(line).map_err(|error| Failure::Usage(error.to_string()))?;
    let Some(mut command) = cli.command else { return Ok(Status::Held) };
    if let Command::Attribute(attribute) = &mut command {
        attribute.show.page.brief = is_explained;
    }
    run(&command)
}

#[cfg(test)]
mod tests {
    use clap::CommandFactory;

    #[test]
    fn the_command_line_is_consistent() {
        super::Cli::command().debug_assert();
    }
}
