//! Builds held against budgets: one, or that of each app of a repository.

use std::{mem::ManuallyDrop, path::PathBuf};

use uvlet_audit::{
    ask::{
        compare::sides,
        gate::{
            bench::Aids,
            gate,
            remark::GateRemark,
            starts::{EntryStart, starts},
            verdict::Gate,
        },
    },
    graph::reach::Reach,
    lens::Lens,
    parts::marks::Marks,
    predict::outcome::as_it_would_be,
    select::{groups, words::Plain},
};
use uvlet_read::{Coder, TracedCosts};
use uvlet_record::{
    Record, SavedTexts, Texts,
    sizes::{Coding, Measure},
};
use uvlet_view::{form::Form, words::errors};

use super::arguments::Arguments;
use crate::{
    apps,
    args::{build::Build, steps::Steps},
    config::{Config, ConfigError, FILE},
    failure::Failure,
    output,
    reading::{
        Measures, Opened, Wanted, at_levels_of, look, marked, marks_named, marks_wanted, open,
        today,
    },
    recordings, wording,
};

/// What came of it.
pub struct AllJudged {
    pub gate: Gate,
    /// What was judged, for a headline.
    pub label: String,
    /// Of the first build; all are measured alike.
    pub record: ManuallyDrop<Record>,
    pub notices: Vec<uvlet_view::Notice>,
    /// What each entry starts with.
    pub entries: Vec<EntryStart>,
    /// The builds by app.
    pub paths: Vec<(Option<String>, PathBuf)>,
}

struct One {
    gate: Gate,
    path: PathBuf,
    record: ManuallyDrop<Record>,
    entries: Vec<EntryStart>,
}

/// Judges the build of every app. One that cannot be read leaves its budgets undecided, and the
/// others are judged all the same.
pub fn all(arguments: &Arguments, settings: &[Config]) -> Result<AllJudged, Failure> {
    let apps = apps::meant(arguments.build.path.as_deref(), settings)?;
    if let [config] = apps.as_slice() {
        let One { gate, path, record, entries } =
            one(arguments, config, against(arguments, None)?)?;
        let mut notices = wording::notices(&record.notices);
        notices.extend(wording::gate_notices(&gate.remarks));
        return Ok(AllJudged {
            label: as_planned(
                arguments,
                config.app.clone().unwrap_or_else(|| record.label.clone()),
            ),
            notices,
            paths: vec![(None, path)],
            gate,
            record,
            entries,
        });
    }
    let mut judged: Vec<(&Config, Result<One, Failure>)> = Vec::new();
    for config in apps {
        let base = against(arguments, config.app.as_deref());
        judged.push((config, base.and_then(|base| one(arguments, config, base))));
    }
    let mut first = None;
    let (mut gates, mut notices, mut entries, mut paths) =
        (Vec::new(), Vec::new(), Vec::new(), Vec::new());
    let idle: Vec<(&Config, Vec<GateRemark>)> = judged
        .iter()
        .filter_map(|(config, one)| Some((*config, one.as_ref().ok()?.gate.remarks.clone())))
        .collect();
    let mut failures = Vec::new();
    for (config, one) in judged {
        let app = config.app.clone().unwrap_or_default();
        let One { gate, path, record, entries: folds } = match one {
            Ok(one) => one,
            Err(failure) => {
                gates.push((app, Gate::unread(&config.budgets, &failure.to_string())));
                failures.push(failure);
                continue;
            }
        };
        let remarks = gate.remarks.iter().filter(|remark| !is_of_use_elsewhere(remark, &idle));
        let of_gate = wording::gate_notices(remarks);
        for notice in wording::notices(&record.notices).into_iter().chain(of_gate) {
            let message = format!("{app}: {}", notice.message);
            notices.push(uvlet_view::Notice { message, ..notice });
        }
        for fold in folds {
            entries.push(EntryStart { entry: format!("{app} {}", fold.entry), ..fold });
        }
        paths.push((Some(app.clone()), path));
        first.get_or_insert(record);
        gates.push((app, gate));
    }
    let Some(record) = first else {
        let none = || ConfigError::NoBudget(PathBuf::from(FILE)).into();
        let last = failures.pop().unwrap_or_else(none);
        failures.iter().for_each(output::complain);
        return Err(last);
    };
    failures.iter().for_each(output::complain);
    let label = as_planned(arguments, label(&gates));
    Ok(AllJudged { label, gate: Gate::join(gates), record, notices, entries, paths })
}

/// Every app is of no use to say of what is of use to another.
fn is_of_use_elsewhere(remark: &GateRemark, idle: &[(&Config, Vec<GateRemark>)]) -> bool {
    let GateRemark::WaiverUnused { about, .. } = remark else { return false };
    idle.iter().any(|(config, remarks)| {
        config.waivers.iter().any(|waiver| waiver.name() == *about) && !remarks.contains(remark)
    })
}

fn label(gates: &[(String, Gate)]) -> String {
    const NAMED: usize = 3;
    let names: Vec<&str> = gates.iter().take(NAMED).map(|(app, _)| app.as_str()).collect();
    match gates.len() - names.len() {
        0 => names.join(" + "),
        more => format!("{} + {more} more", names.join(" + ")),
    }
}

/// The build that growth is held against: as named, or of several apps the one of that name.
fn against(arguments: &Arguments, app: Option<&str>) -> Result<Option<PathBuf>, Failure> {
    let Some(named) = &arguments.against else { return Ok(None) };
    let Some(app) = app else {
        let is_left_out = arguments.against_optional && !named.exists();
        return Ok((!is_left_out).then(|| named.clone()));
    };
    let names = ["", ".json.zst", ".json.gz", ".json"].map(|end| named.join(format!("{app}{end}")));
    match names.into_iter().find(|path| path.exists()) {
        Some(path) => Ok(Some(path)),
        None if arguments.against_optional => Ok(None),
        None => Err(Failure::Usage(format!(
            "{}: holds no build of {app}: it is looked for as {app}, {app}.json.zst, {app}.json.gz and {app}.json",
            named.display()
        ))),
    }
}

fn one(arguments: &Arguments, config: &Config, base: Option<PathBuf>) -> Result<One, Failure> {
    let judged: Vec<Measure> = config.budgets.iter().map(|budget| budget.measure).collect();
    let plan = arguments.plan.as_deref().map(Steps::read).transpose()?;
    let planned = plan.as_ref().map(Steps::selectors).unwrap_or_default();
    let selectors = config.budgets.iter().filter_map(|budget| budget.scope.selector());
    let is_marked = marks_named(selectors.chain(&planned), Some(config));
    let recordings = recordings::read(&arguments.recorded.coverage)?;
    let for_programs = arguments.write.iter().any(|(form, _)| form.is_for_programs())
        || arguments.format.is_for_programs();
    // The comment says of what grew who imports it.
    let forms = arguments.write.iter().map(|(form, _)| *form).chain([arguments.format]);
    let is_explained = base.is_some() && forms.into_iter().any(|form| form == Form::Markdown);
    let opened = |build: &Build, format| {
        open(Wanted {
            build,
            config: Some(config),
            measures: Measures { list: judged.clone(), all: false },
            format,
            sources: config.budgets.iter().any(|budget| budget.scope.asks_for_edges())
                || is_marked.contains(&Plain::Leftovers)
                || plan.is_some()
                || is_explained,
        })
    };
    let format = if for_programs { Form::Json } else { Form::Table };
    let Opened { path, record, texts, coder, .. } = opened(&arguments.build, format)?;
    let base = match base {
        Some(path) => {
            let build = Build {
                path: Some(path),
                description: None,
                label: None,
                mark: None,
                ..arguments.build.clone()
            };
            Some(opened(&build, Form::Table)?)
        }
        None => None,
    };
    if let Some(base) = &base {
        sides::check(&base.record, &record, &judged)?;
    }
    // What never ran in this build is not known of another.
    let base = base.map(|base| {
        let Opened { record, texts, coder, .. } = base;
        let (record, marks) = marked(record, &*texts, &coder, marks_wanted(&is_marked, &[]));
        (record, marks, texts)
    });
    let base_lens = base
        .as_ref()
        .map(|(record, marks, _)| look(record, Some(config), marks.clone()))
        .transpose()?;
    let (record, marks) = marked(record, &*texts, &coder, marks_wanted(&is_marked, &recordings));
    // As it would be, a build is judged by what it would load; its texts would be others.
    let planned = plan.map(|plan| as_if(&plan, &record, config, &marks, &*texts, &coder));
    let planned = planned.transpose()?;
    let no_texts = SavedTexts::default();
    let costs = TracedCosts::new(&record, &*texts, &coder);
    let aids = Aids {
        texts: &*texts,
        costs: Some(&costs),
        languages: &config.languages,
        texts_of_base: base.as_ref().map_or(&no_texts as &dyn Texts, |(.., texts)| &**texts),
        base: base_lens.as_ref(),
        waivers: &config.waivers,
        today: today(arguments.today),
    };
    let lens = match &planned {
        None => look(&record, Some(config), marks)?,
        Some((record, reach)) => {
            groups::with_groups(Lens::with_reach(record, reach.clone()), &config.groups)?
        }
    };
    let aids = match &planned {
        None => aids,
        Some(_) => Aids { texts: &no_texts, costs: None, ..aids },
    };
    let gate = gate(&lens, &config.budgets, config.strictness, aids)
        .map_err(|error| Failure::Gate { config: config.path.clone(), error: Box::new(error) })?;
    let entries = starts(&lens, base_lens.as_ref(), config.measure);
    Ok(One { gate, path, record, entries })
}

/// What is judged, for a headline: never a plan as if it were the build.
fn as_planned(arguments: &Arguments, label: String) -> String {
    match &arguments.plan {
        Some(plan) => format!("{label}, if changed by {plan},"),
        None => label,
    }
}

/// The build as a plan would leave it.
fn as_if(
    plan: &Steps,
    record: &Record,
    config: &Config,
    marks: &Marks,
    texts: &dyn Texts,
    coder: &Coder,
) -> Result<(Record, Vec<Reach>), Failure> {
    let lens = look(record, Some(config), marks.clone())?;
    let steps = plan.find(&lens, texts)?;
    let codings: Vec<Coding> = record.encoders.keys().copied().collect();
    let coder = at_levels_of(record, coder.clone());
    as_it_would_be(&lens, &steps, texts, &coder, &codings)
        .map_err(|error| Failure::Usage(format!("--if: {}", errors::what_if(&error))))
}
