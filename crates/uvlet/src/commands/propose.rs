//! `uvlet propose`.

use crate::apps;
use crate::args::build::Build;
use crate::args::show::Color;
use crate::maps;
use crate::reading::Measures;
use crate::reading::Opened;
use crate::reading::Wanted;
use crate::reading::open;
use crate::reading::settings;
use crate::reading::today;
use crate::reading::with_groups;
use clap::Args;
use std::{fs, io, path::Path};
use uvlet_audit::ask::gate::limit::Ceiling;
use uvlet_view::form::Form;

use toml_edit::{DocumentMut, Item, Table, TableLike, Value, value};
use uvlet_audit::{
    ask::{
        gate::{
            bench::Aids,
            budget::{Budget, Scope},
            gate,
            limit::LimitKind,
            verdict::{BudgetRow, Gate, Verdict},
        },
        propose::{Headroom, Proposal, Proposals, propose},
    },
    find::{judged, waste},
};
use uvlet_read::TracedCosts;
use uvlet_record::{Costs, SavedTexts, sizes::Measure};
use uvlet_view::{Units, plain};

use crate::{
    config::{self, Config},
    failure::{Failure, Status},
    output,
};

#[derive(Debug, Args)]
pub struct Arguments {
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

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let headroom = match config::growth(&arguments.headroom) {
        Ok(Ceiling::Milli(milli)) => Headroom(milli),
        _ => {
            let said = format!("--headroom {}: write it like `5%`", arguments.headroom);
            return Err(Failure::Usage(said));
        }
    };
    let mut config = settings(&arguments.build)?.unwrap_or_else(Config::none);
    let path = config.path.clone();
    let apps = match config.apps.is_empty() {
        true => vec![config],
        false => std::mem::take(&mut config.apps),
    };
    let apps = apps::meant(arguments.build.path.as_deref(), &apps)?;
    let old = read(&path)?;
    let mut document: DocumentMut = old.parse().map_err(|error: toml_edit::TomlError| {
        Failure::Usage(format!("{}: {}", path.display(), error.message()))
    })?;
    if old.is_empty() {
        introduce(&mut document, &path, arguments, apps[0].measure);
    }
    let mut file = Written { document, app: None };
    let (mut said, mut next, mut failures) = (Vec::new(), None, Vec::new());
    for config in &apps {
        file.app.clone_from(&config.app);
        match of_app(&mut file, config, headroom, arguments) {
            Ok(Renewed { said: lines, maps }) => {
                let app = config.app.as_deref().filter(|_| apps.len() > 1);
                said.extend(lines.into_iter().map(|line| match app {
                    Some(app) => format!("{}: {line}", plain(app)),
                    None => line,
                }));
                next = next.or(maps);
            }
            Err(failure) => failures.push(failure),
        }
    }
    if failures.len() == apps.len() {
        let last = failures.pop();
        failures.iter().for_each(output::complain);
        return last.map_or(Ok(Status::Held), Err);
    }
    let new = as_before(&old, &file.document.to_string());
    let changed = new != old;
    if changed && !arguments.dry_run {
        output::replace(&path, new.as_bytes())?;
    }
    let next = match next {
        Some(way) => format!("\n{way}"),
        None if changed && !arguments.dry_run => "Next: uvlet gate\n".to_owned(),
        None => String::new(),
    };
    let text = told(&path, changed, arguments.dry_run, &said) + &next;
    output::write(&text, None, arguments.color)?;
    match failures.pop() {
        Some(last) => {
            failures.iter().for_each(output::complain);
            Err(last)
        }
        None => Ok(Status::Held),
    }
}

/// What became of the budgets of one app.
struct Renewed {
    said: Vec<String>,
    /// How to build with maps, where they are missing.
    maps: Option<String>,
}

/// Writes the budgets of one app.
fn of_app(
    file: &mut Written,
    known: &Config,
    headroom: Headroom,
    arguments: &Arguments,
) -> Result<Renewed, Failure> {
    let measure = known.measure;
    let Opened { path: path_of_build, record, texts, coder, .. } = open(Wanted {
        build: &arguments.build,
        config: Some(known),
        measures: Measures { list: vec![measure], all: false },
        format: Form::Table,
        sources: true,
    })?;
    let lens = with_groups(&record, Some(known))?;
    let costs = TracedCosts::new(&record, &*texts, &coder);
    let (texts, costs) = (&*texts, Some(&costs as &dyn Costs));
    let found = waste::Aids { texts, costs, languages: &known.languages, ran: None };
    let share = known.strictness.judged_at_least;
    let Proposals { budgets: proposals, least_waste, unjudged } =
        propose(&lens, found, measure, headroom, share);
    let no_texts = SavedTexts::default();
    let aids = Aids {
        texts,
        costs,
        languages: &known.languages,
        texts_of_base: &no_texts,
        base: None,
        waivers: &known.waivers,
        today: today(None),
    };
    let judged = gate(&lens, &known.budgets, known.strictness, aids)
        .map_err(|error| Failure::Gate { config: known.path.clone(), error: Box::new(error) })?;
    let mut said = renewed(file, known, &judged, (headroom, least_waste), arguments);
    for proposal in proposals.iter().filter(|proposal| !is_held(known, proposal)) {
        let Some(name) = file.add(known, proposal) else {
            said.push(format!("{}: not added, as `budget` is no table", proposal.name));
            continue;
        };
        let (at_most, is) = (size(proposal.at_most), Units::default().size(proposal.is));
        said.push(format!("added {name}: at most {at_most} (is {is})"));
    }
    if !unjudged.is_empty() {
        said.push(left_out(&unjudged));
    }
    if record.entries.is_empty() {
        said.push("no budget for a startup: no entry of the build is known".to_owned());
    }
    Ok(Renewed { said, maps: maps::missing(&record, &path_of_build) })
}

/// Brings the limits of known budgets up to what there is; returns what was done.
fn renewed(
    file: &mut Written,
    known: &Config,
    judged: &Gate,
    room: (Headroom, u64),
    arguments: &Arguments,
) -> Vec<String> {
    let mut said = Vec::new();
    for budget in &known.budgets {
        let is_of =
            |row: &&BudgetRow| row.name == budget.name && row.limit_kind == LimitKind::AtMost;
        let rows = judged.budgets.iter().filter(is_of);
        // What cannot be told is no ground for a limit, and neither is an exception.
        let is_no_ground = |verdict| matches!(verdict, Verdict::Undecided | Verdict::Waived);
        if rows.clone().any(|row| is_no_ground(row.verdict)) {
            continue;
        }
        if let Some(is) = rows.filter_map(|row| row.is).max() {
            said.extend(bring_up(file, budget, is, room, arguments));
        }
    }
    said
}

/// What became of the file.
fn told(path: &Path, changed: bool, is_dry_run: bool, said: &[String]) -> String {
    let head = match (changed, is_dry_run) {
        (false, _) => format!("{} stays as it is.", path.display()),
        (true, true) => format!("{} would change:", path.display()),
        (true, false) => format!("{} is written:", path.display()),
    };
    let lines: String = said.iter().map(|line| format!("  {line}\n")).collect();
    format!("{head}\n{lines}")
}

/// The kinds of findings that get no budget, as too little of the build could be checked for them.
fn left_out(unjudged: &[judged::Judged]) -> String {
    let kinds: Vec<&str> = unjudged.iter().map(|one| one.kind.name()).collect();
    let worst = unjudged.iter().min_by_key(|one| one.percent());
    let reason = worst.map(|one| {
        format!(
            "{}% of the bytes could be checked{}",
            one.percent(),
            uvlet_view::words::judged::missing(&one.lacks)
        )
    });
    format!("no budget for {}: only {}", kinds.join(", "), reason.unwrap_or_default())
}

fn read(path: &Path) -> Result<String, Failure> {
    match fs::read_to_string(path) {
        Ok(text) => Ok(text),
        Err(error) if error.kind() == io::ErrorKind::NotFound => Ok(String::new()),
        Err(error) => Err(Failure::Usage(format!("{}: cannot be read: {error}", path.display()))),
    }
}

/// What the schema of settings is called, beside them.
const SCHEMA: &str = "uvlet.schema.json";

/// What a new file says first, so that the next command needs no arguments.
fn introduce(document: &mut DocumentMut, path: &Path, arguments: &Arguments, measure: Measure) {
    document["measure"] = value(measure.name());
    // Editors complete and check settings by it.
    let schema = path.with_file_name(SCHEMA);
    if schema.is_file()
        && let Some(mut first) = document.key_mut("measure")
    {
        first.leaf_decor_mut().set_prefix(format!("#:schema ./{SCHEMA}\n\n"));
    }
    let is_here = path.parent().is_none_or(|folder| folder.as_os_str().is_empty());
    let names = [("folder", &arguments.build.path), ("description", &arguments.build.description)];
    for (key, named) in names {
        let named = named.as_deref().filter(|named| named.is_relative() && is_here);
        let is_meant = |named: &&Path| key != "folder" || named.is_dir();
        if let Some(named) = named.filter(is_meant).and_then(Path::to_str) {
            let build = document.entry("build").or_insert_with(|| Item::Table(Table::new()));
            build[key] = value(named);
        }
    }
}

/// Moves the limit of a budget as the arguments allow, and says so.
fn bring_up(
    file: &mut Written,
    budget: &Budget,
    is: u64,
    room: (Headroom, u64),
    arguments: &Arguments,
) -> Option<String> {
    let at_most = budget.limit(LimitKind::AtMost)?;
    let (headroom, least_waste) = room;
    let least = if matches!(budget.scope, Scope::Waste(_)) { least_waste } else { 0 };
    let limit = headroom.above(is).max(least);
    let limit = limit.max(budget.limit(LimitKind::WarnAbove).unwrap_or(0));
    let (name, was) = (plain(&budget.name), Units::default().size(at_most));
    let new = size(limit);
    if is > at_most && !arguments.loosen {
        let is = Units::default().size(is);
        return Some(format!("{name} is broken: {is} of {was}; --loosen would raise it to {new}"));
    }
    let is_moved = is > at_most || (limit < at_most && arguments.tighten);
    if !is_moved {
        return None;
    }
    let word = if limit < at_most { "lowered" } else { "raised" };
    Some(match file.set(&budget.name, limit) {
        Place::Here => format!("{word} {name} from {was} to {new}"),
        Place::OnTop => {
            let of = match &file.app {
                Some(app) => format!("for {} alone", plain(app)),
                None => format!("here, on top of {}", plain(&budget.place.file)),
            };
            format!("{word} {name} from {was} to {new} {of}")
        }
        Place::Nowhere => format!("{name}: not changed, as `budget` is no table"),
    })
}

/// Whether a budget speaks of the same already.
fn is_held(config: &Config, proposal: &Proposal) -> bool {
    config.budgets.iter().any(|budget| {
        let (key, what) = match &budget.scope {
            Scope::Total(selector) => ("total", selector.text()),
            Scope::Each(selector) => ("each", selector.text()),
            Scope::Absent(selector) => ("absent", selector.text()),
            Scope::Waste(kind) => ("waste", kind.name()),
        };
        key == proposal.key && what == proposal.what
    })
}

/// The file that is written: settings as they stand there, and the app that they are for.
struct Written {
    document: DocumentMut,
    app: Option<String>,
}

/// Where a limit was changed.
enum Place {
    /// Where it stood.
    Here,
    /// Its budget stands in another file or holds for other apps too; here it has this limit.
    OnTop,
    /// There is no room for it.
    Nowhere,
}

impl Written {
    /// The budgets that stand here, made if there are none.
    fn budgets(&mut self) -> Option<&mut dyn TableLike> {
        let mut at: &mut dyn TableLike = self.document.as_table_mut();
        let above = self.app.as_deref().map(|app| ["app", app]);
        for key in above.iter().flatten().copied().chain(["budget"]) {
            let below = at.entry(key).or_insert_with(|| {
                let mut table = Table::new();
                table.set_implicit(true);
                Item::Table(table)
            });
            at = below.as_table_like_mut()?;
        }
        Some(at)
    }

    /// Changes a limit, and nothing around it.
    fn set(&mut self, name: &str, limit: u64) -> Place {
        let Some(budgets) = self.budgets() else { return Place::Nowhere };
        let old = budgets
            .get_mut(name)
            .and_then(Item::as_table_like_mut)
            .and_then(|budget| budget.get_mut("at_most"));
        if let Some(Item::Value(old)) = old {
            let mut new = Value::from(size(limit));
            *new.decor_mut() = old.decor().clone();
            *old = new;
            return Place::Here;
        }
        let budget = budgets.entry(name).or_insert_with(|| Item::Table(Table::new()));
        match budget.as_table_like_mut() {
            Some(budget) => {
                budget.insert("at_most", value(size(limit)));
                Place::OnTop
            }
            None => Place::Nowhere,
        }
    }

    /// Adds a budget behind the others, under a name that is free.
    fn add(&mut self, known: &Config, proposal: &Proposal) -> Option<String> {
        let budgets = self.budgets()?;
        let is_taken = |name: &str| known.budgets.iter().any(|budget| budget.name == name);
        let mut name = proposal.name.clone();
        let mut number = 2;
        while budgets.get(&name).is_some() || is_taken(&name) {
            name = format!("{}-{number}", proposal.name);
            number += 1;
        }
        let mut table = Table::new();
        table.insert(proposal.key, value(proposal.what.clone()));
        table.insert("at_most", value(size(proposal.at_most)));
        budgets.insert(&name, Item::Table(table));
        Some(name)
    }
}

/// The new text with the mark at its start and the ends of lines that most of the old one has.
fn as_before(old: &str, new: &str) -> String {
    let lines = new.trim_start_matches(MARK).replace("\r\n", "\n");
    let ends = |end: &str| old.matches(end).count();
    let lines = match 2 * ends("\r\n") > ends("\n") {
        true => lines.replace('\n', "\r\n"),
        false => lines,
    };
    let mark = if old.starts_with(MARK) { "\u{feff}" } else { "" };
    format!("{mark}{lines}")
}

/// The byte order mark with which some editors begin a file.
const MARK: char = '\u{feff}';

/// A limit as people write it: exact, in the largest unit that needs no more than three digits.
fn size(bytes: u64) -> String {
    let scaled = |unit: u64, word: &str| {
        let (whole, part) = (bytes / unit, bytes % unit);
        let part = format!("{part:0width$}", width = unit.to_string().len() - 1);
        let part = part.trim_end_matches('0');
        if part.is_empty() { format!("{whole} {word}") } else { format!("{whole}.{part} {word}") }
    };
    match bytes {
        1_000_000.. => scaled(1_000_000, "MB"),
        1_000.. => scaled(1_000, "kB"),
        _ => format!("{bytes} B"),
    }
}
