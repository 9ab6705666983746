//! `uvlet report`.

use std::{
    env,
    path::{Component, Path, PathBuf},
};

use clap::{Args, ValueEnum};
use uvlet_audit::{
    ask::{
        report::{Asked, Base, ReportError, moved, report},
        survey::survey,
    },
    lens::Lens,
};
use uvlet_read::TracedCosts;
use uvlet_record::sizes::Measure;
use uvlet_view::{Units, form::Form, page, screen::Screen, words::quote};

use crate::{
    args::{
        build::Build,
        measures::MeasureChoice,
        recorded::Recorded,
        show::{Color, Page},
    },
    config::Config,
    failure::{Failure, Status},
    output,
    reading::{Measures, Opened, Wanted, measures, open, settings, today, with_groups},
    recordings,
    show::screen,
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
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

/// A build as commands in a page name it: the page is passed on, and the folders above the project are
/// of this machine alone.
fn shared(path: &Path, label: &str) -> String {
    let is_near =
        path.components().all(|part| matches!(part, Component::Normal(_) | Component::CurDir));
    let here = env::current_dir().ok();
    let below = here.as_deref().and_then(|here| path.strip_prefix(here).ok());
    let near = below.or(Some(path).filter(|_| is_near));
    near.map_or_else(|| label.to_owned(), |path| path.display().to_string())
}

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let mut wanted = measures(&arguments.measure, config);
    // What promises are in is needed, too; the page shows the first.
    let first = wanted.list[0];
    for budget in config.iter().flat_map(|config| &config.budgets) {
        if !wanted.list.contains(&budget.measure) {
            wanted.list.push(budget.measure);
        }
    }
    let opened = |build: &Build| {
        let measures = Measures { list: wanted.list.clone(), all: wanted.all };
        open(Wanted { build, config, measures, format: Form::Table, sources: true })
    };
    let Opened { path, record, texts, coder, .. } = opened(&arguments.build)?;
    let base = match &arguments.against {
        None => None,
        Some(against) => Some(opened(&Build {
            path: Some(against.clone()),
            description: None,
            label: None,
            mark: None,
            ..arguments.build.clone()
        })?),
    };
    let lens = with_groups(&record, config)?;
    let base_lens = base.as_ref().map(|base| with_groups(&base.record, config)).transpose()?;
    // What was asked for, and what every record holds.
    let mut shown = vec![first];
    for measure in measures(&arguments.measure, config).list.into_iter().chain([Measure::Emitted]) {
        if !shown.contains(&measure) {
            shown.push(measure);
        }
    }
    let screen = screen(&page_of(arguments), &shown);
    let costs = TracedCosts::new(&record, &*texts, &coder);
    let recordings = recordings::read(&arguments.recorded.coverage)?;
    let usual = Config::none();
    let known = config.unwrap_or(&usual);
    let base = base.as_ref().zip(base_lens.as_ref());
    let asked = Asked {
        measure: first,
        texts: &*texts,
        costs: Some(&costs),
        languages: &known.languages,
        recordings: &recordings,
        promises: (&known.budgets, known.strictness),
        waivers: &known.waivers,
        today: today(None),
        base: base.map(|(base, lens)| Base { lens, texts: &*base.texts }),
    };
    if let Some(figure) = arguments.figure {
        let svg = drawn(figure, &lens, asked, &screen)?;
        output::write(&svg, arguments.output.as_deref(), arguments.color)?;
        return Ok(Status::Held);
    }
    let answers = report(&lens, asked).map_err(|error| match error {
        ReportError::Compare(error) => Failure::Compare(error),
        ReportError::Gate(error) => {
            Failure::Gate { config: known.path.clone(), error: Box::new(error) }
        }
    })?;
    let notices = wording::notices(&record.notices);
    let shell = quote::shell(&shared(&path, &record.label));
    let shown = page::parts::Report {
        lens: &lens,
        answers: &answers,
        notices: &notices,
        shell: &shell,
        version: env!("CARGO_PKG_VERSION"),
    };
    let html = page::report(&shown, &screen);
    let file = arguments.output.clone().unwrap_or_else(|| named(&record.label));
    output::replace(&file, html.as_bytes())?;
    let size = Units::default().size(html.len() as u64);
    let said = format!("{} is written, {size}: open it in any browser.\n", file.display());
    output::write(&said, None, arguments.color)?;
    Ok(Status::Held)
}

/// A figure alone.
fn drawn(
    figure: Figure,
    lens: &Lens<'_>,
    asked: Asked<'_>,
    screen: &Screen,
) -> Result<String, Failure> {
    match (figure, moved(lens, asked)?) {
        (Figure::Strata, _) => Ok(page::strata_figure(lens, &survey(lens), screen)),
        (Figure::Causes, Some(compared)) => Ok(page::causes_figure(&compared, screen)),
        (Figure::Causes, None) => {
            let said = "--figure causes draws what moved: name the build before by --against";
            Err(Failure::Usage(said.to_owned()))
        }
    }
}

/// How sizes read in the page.
fn page_of(arguments: &Arguments) -> Page {
    Page { units: Units::Kb, output: None, width: Some(80), color: arguments.color, brief: false }
}

/// The page's file, by the build's name.
fn named(label: &str) -> PathBuf {
    let name: String = label
        .chars()
        .map(|c| if c.is_alphanumeric() || matches!(c, '.' | '_' | '-') { c } else { '-' })
        .take(80)
        .collect();
    format!("uvlet-{}.html", name.trim_matches(['.', '-'])).into()
}
