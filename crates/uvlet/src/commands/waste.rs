//! `uvlet waste`.

pub(crate) mod patch;

use std::path::{Path, PathBuf};

use clap::Args;
use uvlet_audit::{
    ask::{
        gate::waiver::accept,
        suggest::{Means, Predict, confirm},
        why,
    },
    find::{
        kind::Kind,
        waste::{self, Aids, Wanted, waste},
    },
    select::{evaluate, selector::Selector, subject::Subject},
};
use uvlet_read::{TracedCosts, project};
use uvlet_record::{Record, Texts, sizes::Coding};
use uvlet_view::{
    answers::Found,
    form::Form,
    table,
    words::{errors, findings},
};

use crate::{
    advice,
    args::{build::Build, measures::MeasureChoice, recorded::Recorded, show::Show, word::word},
    config,
    failure::{Failure, Status},
    maps, output,
    reading::{
        self, Opened, at_levels_of, look, marked, marks_named, marks_wanted, measures, open,
        settings, today,
    },
    recordings,
    show::{Around, Setting, following, screen, show},
    wording,
};

#[derive(Debug, Args)]
pub struct Arguments {
    #[command(flatten)]
    pub build: Build,
    /// Findings of this kind only. May be given several times.
    #[arg(long = "kind", value_parser = word::<Kind>(), value_name = "KIND")]
    pub kinds: Vec<Kind>,
    /// Only what is among the bytes that this selector names.
    #[arg(long = "in", value_name = "SELECTOR")]
    pub within: Option<String>,
    /// Leave out findings that save less, as in '2 kB'; 0 shows all [default: 500 B, or 1% of the largest
    /// startup if that is less; json has all].
    #[arg(long, value_name = "SIZE")]
    pub min: Option<String>,
    /// Show one finding with all that it stands on.
    #[arg(long, value_name = "ID")]
    pub evidence: Option<String>,
    /// Predict of every finding what mending it really saves, where a step of what-if says it, and not of
    /// the largest alone.
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

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let show = &arguments.show;
    let within = arguments.within.as_deref().map(str::parse::<Selector>).transpose()?;
    let min = arguments.min.as_deref().map(config::size).transpose();
    let min = min.map_err(|error| Failure::Usage(format!("--min: {error}")))?.unwrap_or(0);
    let config = settings(&arguments.build)?;
    let config = config.as_ref();
    let Opened { path, record, measures, texts, coder } = open(reading::Wanted {
        build: &arguments.build,
        config,
        measures: measures(&arguments.measure, config),
        format: show.format,
        sources: true,
    })?;
    let recordings = recordings::read(&arguments.recorded.coverage)?;
    let ran = recordings::ran_in(&record, &*texts, &recordings)?;
    let is_marked = marks_named(within.iter(), config);
    let (record, marks) = marked(record, &*texts, &coder, marks_wanted(&is_marked, &recordings));
    let lens = look(&record, config, marks)?;
    let within = within.map(|selector| {
        let selection = evaluate::select(&selector, &lens)?;
        match selection.lack() {
            Some(message) => Err(Failure::In {
                selector: selector.text().to_owned(),
                message: errors::lack(&message),
            }),
            None => Ok(selection.cells),
        }
    });
    let wanted = Wanted { kinds: arguments.kinds.clone(), within: within.transpose()?, min };
    let languages = config.map(|config| config.languages.clone()).unwrap_or_default();
    let costs = TracedCosts::new(&record, &*texts, &coder);
    let aids = Aids {
        texts: &*texts,
        costs: Some(&costs),
        languages: &languages,
        ran: ran.as_ref().map(|ran| (ran, recordings.len())),
    };
    let mut answer = waste(&lens, aids, &wanted, measures[0]);
    let waivers = config.map(|config| config.waivers.as_slice()).unwrap_or_default();
    accept(&mut answer.findings, waivers, today(None), measures[0]);
    // A prediction is of whole pages, not of a selection.
    let is_whole = wanted.within.is_none() && arguments.patch.is_none();
    if arguments.confirm || is_whole {
        let codings: Vec<Coding> = record.encoders.keys().copied().collect();
        let coder = at_levels_of(&record, coder.clone());
        let measure = measures[0];
        let means = Means { texts: &*texts, sizer: &coder, codings: &codings, measure };
        let which = if arguments.confirm { Predict::All } else { Predict::Largest };
        confirm(&lens, means, &mut answer, which);
    }
    if let Some(file) = &arguments.patch {
        return patched(arguments, &path, &record, &*texts, &answer, file);
    }
    let notices = wording::notices(&record.notices);
    let screen = screen(&show.page, &measures);
    if let Some(id) = &arguments.evidence {
        if show.format != Form::Table {
            let said = "--evidence is for people: --format json holds the places of all findings";
            return Err(Failure::Usage(said.to_owned()));
        }
        let found = answer.findings.iter().find(|finding| finding.id == *id);
        let Some(found) = found else { return Err(no_finding(id, &answer)) };
        let subject = found.paths.first().and_then(|path| Subject::find(path, &lens).ok());
        let why = subject.map(|subject| why::why(&lens, &subject, &why::Wanted::default()));
        let text = table::evidence(found, why.as_ref(), &record, &screen);
        output::write(&text, show.page.output.as_deref(), show.page.color)?;
        return Ok(Status::Held);
    }
    let least = if arguments.min.is_some() { 0 } else { waste::least_told(&lens, measures[0]) };
    let top = (arguments.top > 0).then_some(arguments.top);
    let shown = Found { answer: &answer, top, least };
    let setting = Setting { command: "waste", record: &record, notices: &notices, screen: &screen };
    self::show(&shown, &setting, show, || {
        let before = maps::missing(&record, &path).map(|way| format!("\n{way}"));
        let next = match answer.findings.is_empty() {
            true => advice::next("propose", &path, "").filter(|_| path.is_dir()),
            false => advice::next("what-if", &path, "--suggest"),
        };
        let next = next.filter(|_| before.is_none());
        Around { before, after: following(next, &show.page) }
    })?;
    Ok(Status::Held)
}

/// Writes the edits that change no behaviour, and says what they do.
fn patched(
    arguments: &Arguments,
    build: &Path,
    record: &Record,
    texts: &dyn Texts,
    answer: &waste::Waste,
    file: &Path,
) -> Result<Status, Failure> {
    let root = arguments.build.root.clone().or_else(|| project::root_of(build));
    let root = root.ok_or_else(|| {
        let said = "--patch edits sources, and no project is around the build; name its folder with --root";
        Failure::Usage(said.to_owned())
    })?;
    let edits = waste::patches(record, texts, &answer.findings, &patch::Disk { root });
    output::replace(file, patch::diff(&edits).as_bytes())?;
    let mut said = match edits.len() {
        0 => format!(
            "{}: no finding can be mended by an edit that changes no behaviour.\n",
            file.display()
        ),
        1 => format!("{} holds an edit of 1 file; `git apply` takes it.\n", file.display()),
        edits => {
            format!("{} holds edits of {edits} files; `git apply` takes it.\n", file.display())
        }
    };
    for edit in &edits {
        let what = findings::does(&edit.what);
        let (path, what) = (uvlet_view::plain(&edit.path), uvlet_view::plain(&what));
        said.push_str(&format!("  {path}  {what} ({})\n", edit.findings.join(", ")));
    }
    output::write(&said, None, arguments.show.page.color)?;
    Ok(Status::Held)
}

fn no_finding(id: &str, answer: &waste::Waste) -> Failure {
    let ids = answer.findings.iter().map(|finding| finding.id.as_str());
    let remedy = errors::remedy(id, ids);
    Failure::Usage(format!("--evidence {id}: there is no such finding, {remedy}"))
}
