//! The steps of a plan, as they are typed.

use std::collections::BTreeSet;

use clap::{Args, Parser};
use uvlet_audit::{
    lens::Lens,
    predict::{
        narrow::narrow,
        step::{Change, Step},
    },
    select::{selector::Selector, subject::Subject},
};
use uvlet_record::{ModuleId, Texts};
use uvlet_view::words::errors;

use crate::{config, failure::Failure};

/// What is changed. Each may be given several times.
#[derive(Clone, Debug, Default, Args)]
pub struct Steps {
    /// Its static imports become `import()`; `WHAT from IMPORTER` means those of one importer.
    #[arg(long, value_name = "WHAT")]
    pub defer: Vec<String>,
    /// It is taken out.
    #[arg(long, value_name = "WHAT")]
    pub without: Vec<String>,
    /// It is loaded from another host.
    #[arg(long, value_name = "WHAT")]
    pub external: Vec<String>,
    /// Who takes names from this file, which only hands them on, takes them from where they are declared.
    #[arg(long, value_name = "MODULE")]
    pub bypass: Vec<String>,
    /// Of a package, or a module of your own, that comes whole, only what the used names need stays.
    #[arg(long, value_name = "WHAT")]
    pub narrow: Vec<String>,
    /// Put what a selector names into a file of its own; of several rules the first that matches holds.
    /// A `*` in the name makes one file per package.
    #[arg(long, value_name = "NAME=SELECTOR")]
    pub gather: Vec<String>,
    /// It grows or shrinks to this size, as emitted.
    #[arg(long, value_name = "WHAT=SIZE")]
    pub resize: Vec<String>,
    /// Its contents change: what must be fetched again?
    #[arg(long, value_name = "WHAT")]
    pub touch: Vec<String>,
}

/// Steps on a line of their own.
#[derive(Parser)]
#[command(no_binary_name = true, disable_help_flag = true)]
struct Line {
    #[command(flatten)]
    steps: Steps,
}

impl Steps {
    /// Reads steps from one text, split as a POSIX shell does.
    pub fn read(text: &str) -> Result<Self, Failure> {
        let wrong = |message: String| Failure::Usage(format!("--if '{text}': {message}"));
        let words = shlex::split(text).ok_or_else(|| wrong("a quote is not closed".to_owned()))?;
        let line = Line::try_parse_from(words).map_err(|error| {
            let said = error.to_string();
            let first = said.lines().next().unwrap_or_default();
            wrong(first.trim_start_matches("error: ").to_owned())
        })?;
        match line.steps.is_empty() {
            true => Err(wrong("names no step, such as --defer src/dialog.js".to_owned())),
            false => Ok(line.steps),
        }
    }

    pub fn is_empty(&self) -> bool {
        self.texts().next().is_none()
    }

    /// Everything that is named.
    fn texts(&self) -> impl Iterator<Item = &String> {
        let Self { defer, without, external, bypass, narrow, gather, resize, touch } = self;
        [defer, without, external, bypass, narrow, gather, resize, touch].into_iter().flatten()
    }

    /// The selectors among what is named.
    pub fn selectors(&self) -> Vec<Selector> {
        let last =
            |text: &str| text.rsplit_once('=').map_or(text.to_owned(), |(_, t)| t.to_owned());
        self.texts()
            .flat_map(|text| [text.clone(), last(text)])
            .filter_map(|text| text.parse().ok())
            .collect()
    }

    /// What they mean in a build.
    pub fn find(&self, lens: &Lens<'_>, texts: &dyn Texts) -> Result<Vec<Step>, Failure> {
        let plain = [
            (Change::Without, &self.without),
            (Change::External, &self.external),
            (Change::Bypass, &self.bypass),
            (Change::Touch, &self.touch),
        ];
        let mut steps = Vec::new();
        for text in &self.defer {
            let (what, from) = match text.split_once(" from ") {
                Some((what, from)) => (what, Some(from)),
                None => (text.as_str(), None),
            };
            let mut step = Step::new(Change::Defer, subject(Change::Defer, what, lens)?);
            step.from = from.map(|from| subject(Change::Defer, from, lens)).transpose()?;
            steps.push(step);
        }
        for (change, texts) in plain {
            for text in texts {
                steps.push(Step::new(change, subject(change, text, lens)?));
            }
        }
        for text in &self.narrow {
            let step = narrow(lens, texts, subject(Change::Narrow, text, lens)?);
            let step = step.map_err(|why| {
                let why = errors::wide(&why);
                Failure::Usage(format!("--narrow {text}: {why}"))
            })?;
            steps.push(step);
        }
        for text in &self.gather {
            steps.extend(gathered(text, lens)?);
        }
        for text in &self.resize {
            let wrong = |message: String| Failure::Usage(format!("--resize {text}: {message}"));
            let (what, size) = text
                .rsplit_once('=')
                .ok_or_else(|| wrong("is not WHAT=SIZE, as in 'tidecalc=12 kB'".to_owned()))?;
            let bytes = config::size(size.trim()).map_err(|error| wrong(error.to_string()))?;
            let mut step = Step::new(Change::Resize, subject(Change::Resize, what, lens)?);
            step.bytes = bytes;
            steps.push(step);
        }
        Ok(steps)
    }
}

fn subject(change: Change, text: &str, lens: &Lens<'_>) -> Result<Subject, Failure> {
    Subject::find(text, lens).map_err(|error| {
        let why = errors::subject(&error);
        Failure::Usage(format!("--{} {text}: {why}", change.name()))
    })
}

/// A rule names what it gathers by a selector, or as any other step does. With a `*` in the file's name
/// there is a file for each package that it means.
fn gathered(text: &str, lens: &Lens<'_>) -> Result<Vec<Step>, Failure> {
    let wrong = |message: String| Failure::Usage(format!("--gather {text}: {message}"));
    let (name, what) = text
        .split_once('=')
        .map(|(name, what)| (name.trim(), what.trim()))
        .filter(|(name, what)| !name.is_empty() && !what.is_empty())
        .ok_or_else(|| {
            wrong("is not NAME=SELECTOR, as in 'plots=package(burgee-plot)'".to_owned())
        })?;
    let whole = subject(Change::Gather, what, lens)?;
    let step = |name: String, subject: Subject| {
        let mut step = Step::new(Change::Gather, subject);
        step.name = name;
        step
    };
    if !name.contains('*') {
        return Ok(vec![step(name.to_owned(), whole)]);
    }
    let package_of = |id: &ModuleId| lens.record.package_of(*id).map(|one| one.name.as_str());
    let packages: Option<BTreeSet<&str>> = whole.modules.iter().map(package_of).collect();
    let packages = packages.filter(|packages| !packages.is_empty()).ok_or_else(|| {
        wrong(
            "`*` makes one file per package, and some of these modules belong to no package"
                .to_owned(),
        )
    })?;
    let one = |package: &str| {
        let short = package.rsplit('/').next().unwrap_or(package);
        let subject = subject(Change::Gather, &format!("package({package})"), lens)?;
        Ok(step(name.replace('*', short), subject))
    };
    packages.into_iter().map(one).collect()
}
