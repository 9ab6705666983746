//! `uvlet attribute`.

use clap::{Args, ValueEnum};
use uvlet_audit::{
    ask::{
        attribute::{By, Sort, attribute},
        survey::{self, Moment},
    },
    find::marks,
    lens::Lens,
    parts::removal::remove,
    select::{
        evaluate,
        selection::{Missing, Selection},
        selector::Selector,
        words::{self, Named, Plain},
    },
};
use uvlet_record::{FileId, Kind, Notice, Remark, sizes::Coding};
use uvlet_view::{answers::Attributed, words::errors};

use crate::{
    advice,
    args::{build::Build, measures::MeasureChoice, recorded::Recorded, show::Show, word::word},
    failure::{Failure, Status},
    maps,
    progress::Watch,
    reading::{
        Opened, Wanted, at_levels_of, look, marked, marks_named, marks_wanted, measures, open,
        settings,
    },
    recordings,
    show::{Around, Setting, following, screen, show},
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    /// What a row stands for.
    #[arg(long, value_parser = word::<By>(), default_value = "package")]
    pub by: By,
    /// Only the bytes that this selector names.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// Order of the rows.
    #[arg(long, value_enum, default_value_t = Order::Size)]
    pub sort: Order,
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

/// The order of rows.
#[derive(Clone, Copy, Debug, PartialEq, Eq, ValueEnum)]
pub enum Order {
    /// Heaviest first.
    Size,
    /// By name.
    Name,
}

/// Examples, and the words of selectors.
pub fn help() -> String {
    const WIDE: usize = 84;
    let mut lines = vec!["Selectors:".to_owned()];
    for word in words::all() {
        let said = match word.argument {
            Some(argument) => format!("{}({argument}),", word.text),
            None if word.text == Plain::NeverRan.name() => {
                format!("{} (with --coverage FILE),", word.text)
            }
            None => format!("{},", word.text),
        };
        match lines.last_mut().filter(|line| line.len() + said.len() < WIDE) {
            Some(line) => line.push_str(&format!(" {said}")),
            None => lines.push(format!("  {said}")),
        }
    }
    let [and, or, except] = words::JOINS;
    format!(
        "Examples:\n  uvlet attribute dist --by package\n  \
         uvlet attribute dist --by package --in 'startup(booking) and third-party'\n  \
         uvlet attribute dist --by module --in 'package(tidecalc)' --top 20\n  \
         uvlet attribute dist --top 10 --if-removed\n\n\
         {}\n  joined by {and}, {or}, {except}. `*`, `**` and `?` are wildcards.",
        lines.join("\n")
    )
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    // A selector that does not parse is told before a large build is read.
    let within = arguments.within.as_deref().unwrap_or("everything").parse::<Selector>()?;
    let show = &arguments.show;
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let is_marked = marks_named([&within], config);
    let recordings = recordings::read(&arguments.recorded.coverage)?;
    let Opened { path, measures, record, texts, coder } = open(Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: is_marked.contains(&Plain::Leftovers) || arguments.by == By::Export,
    })?;
    recordings::ran_in(&record, &*texts, &recordings)?;
    let exports = arguments.by == By::Export;
    let wanted = marks::Wanted { exports, ..marks_wanted(&is_marked, &recordings) };
    let (record, marks) = marked(record, &*texts, &coder, wanted);
    if exports && marks.exports.is_none() {
        return Err(Failure::NoTexts { path, needs: "--by export" });
    }
    let lens = look(&record, config, marks)?;
    let selection = evaluate::select(&within, &lens)?;
    // A table must not be empty for a misspelt name; what a glob leaves out is its own affair.
    if let Some(missing) = selection.missing.first() {
        return Err(Failure::In {
            selector: within.text().to_owned(),
            message: said(missing, &lens),
        });
    }
    if let Some(lack) = selection.lack() {
        let message = errors::lack(&lack);
        return Err(Failure::In { selector: within.text().to_owned(), message });
    }
    let sort = match arguments.sort {
        Order::Size => Sort::Heaviest(measures[0]),
        Order::Name => Sort::Name,
    };
    let mut answer =
        attribute(&lens, arguments.by, &selection.cells, arguments.within.as_deref(), sort);
    if arguments.if_removed {
        let codings: Vec<Coding> = measures.iter().filter_map(|measure| measure.coding()).collect();
        let rows = match arguments.top {
            0 => answer.rows.len(),
            top => top.min(answer.rows.len()),
        };
        let is_code = |at: &usize| !record.files[*at].kind.is_asset();
        let mut code = (0..record.files.len()).filter(is_code).map(FileId::new).peekable();
        if code.peek().is_some() && code.all(|file| texts.emitted(file).is_none()) {
            return Err(Failure::NoTexts { path, needs: "--if-removed" });
        }
        let coder = at_levels_of(&record, coder);
        let _watch = Watch::over(&coder.progress);
        remove(&mut answer.rows[..rows], &record, &codings, &*texts, &coder);
    }
    let mut notices = record.notices.clone();
    notices.extend(elsewhere(&lens, &selection));
    let notices = wording::notices(&notices);
    let screen = screen(&show.page, &measures);
    let shown = Attributed { answer: &answer, top: (arguments.top > 0).then_some(arguments.top) };
    let setting =
        Setting { command: "attribute", record: &record, notices: &notices, screen: &screen };
    self::show(&shown, &setting, show, || {
        let owners = maps::missing(&record, &path);
        let next = match owners {
            Some(_) => None,
            None => advice::after_attribution(&answer, &path),
        };
        let before = owners.map(|owners| format!("\n{owners}"));
        Around { before, after: following(next, &show.page) }
    })?;
    Ok(Status::Held)
}

/// What the entries whose startup is spoken of ask of other hosts.
fn elsewhere(lens: &Lens<'_>, selection: &Selection) -> Option<Notice> {
    let names: Vec<&str> =
        selection.startup_of.iter().map(|&at| lens.record.entries[at].name.as_str()).collect();
    let asked = survey::elsewhere(lens).into_iter().filter(|row| {
        row.when == Moment::Startup && row.entries.iter().any(|name| names.contains(&name.as_str()))
    });
    let mut urls: Vec<String> = asked.map(|row| row.url).collect();
    urls.dedup();
    let url = urls.first()?.clone();
    Some(Notice::of_build(Remark::Elsewhere { count: urls.len(), url }))
}

/// What is missing, and what there is instead.
fn said(missing: &Missing, lens: &Lens<'_>) -> String {
    let record = lens.record;
    if !missing.near.is_empty() || !missing.several.is_empty() || missing.route_of.is_some() {
        return errors::missing(missing);
    }
    let names: Vec<&str> = match missing.set {
        Named::Startup
        | Named::AtOnce
        | Named::Deferred
        | Named::Entry
        | Named::Repeats
        | Named::Unreached => record.entries.iter().map(|entry| entry.name.as_str()).collect(),
        Named::Group => lens.groups.iter().map(|group| group.name.as_str()).collect(),
        Named::Route => lens.visits.iter().map(|visit| visit.route.as_str()).collect(),
        Named::Chunk => record.chunks.iter().map(|chunk| chunk.name.as_str()).collect(),
        Named::File => record.files.iter().map(|file| file.path.as_str()).collect(),
        Named::Kind => Kind::ALL.iter().map(|kind| kind.name()).collect(),
        Named::Package => record.packages.iter().map(|package| package.name.as_str()).collect(),
        Named::Module | Named::Folder => {
            record.modules.iter().map(|module| module.path.as_str()).collect()
        }
    };
    let unseen = match missing.set.is_of_files() {
        true => String::new(),
        false => errors::unseen(record.unattributed_percent()),
    };
    let remedy = errors::remedy(&missing.name, names.into_iter());
    format!("{}, {remedy}{unseen}", errors::missing(missing))
}
