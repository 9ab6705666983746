//! The build of a command, read as its words ask.

use std::{collections::BTreeMap, mem::ManuallyDrop, path::PathBuf, sync::Arc};

use jiff::{Timestamp, civil::Date, tz::TimeZone};
use uvlet_audit::{
    find::marks,
    lens::Lens,
    parts::marks::Marks,
    select::{groups, selector::Selector, words::Plain},
};
use uvlet_read::{Cache, Coder, Options, TracedCosts};
use uvlet_record::{
    Record, Recording, Texts,
    sizes::{Coding, Measure},
};
use uvlet_view::form::Form;

use crate::{
    args::{
        build::Build,
        measures::{Asked, MeasureChoice},
    },
    choose::{self, Chosen},
    config::{Config, load},
    failure::Failure,
    kept,
    progress::Watch,
};

/// The settings of the build's command.
pub fn settings(build: &Build) -> Result<Option<Config>, Failure> {
    Ok(load(build.config.as_deref(), build.app.as_deref())?)
}

/// What an opened build is read with.
pub struct Wanted<'a> {
    pub build: &'a Build,
    pub config: Option<&'a Config>,
    /// What sizes are needed in, besides the one that programs always find.
    pub measures: Measures,
    pub format: Form,
    /// Keep the texts in the record.
    pub sources: bool,
}

/// A build that was read.
pub struct Opened {
    pub path: PathBuf,
    /// What sizes are shown in, the table's own first.
    pub measures: Vec<Measure>,
    /// The process ends with the answer: giving a large record back piece by piece only takes time.
    pub record: ManuallyDrop<Record>,
    pub texts: Box<dyn Texts>,
    pub coder: Coder,
}

/// Reads the build, and makes sure that it has what is wanted.
pub fn open(wanted: Wanted<'_>) -> Result<Opened, Failure> {
    let Wanted { build, config, measures: Measures { mut list, all }, format, sources } = wanted;
    let Chosen { path, is_found } = choose::build(build.path.as_deref(), config)?;
    let mut levels = config.map(|config| config.levels.clone()).unwrap_or_default();
    levels.extend(build.levels.iter().copied());
    let coder = coder(build, &levels, &taken(&list, format));
    let options = Options {
        label: build.label.clone(),
        description: build
            .description
            .clone()
            .or_else(|| config.and_then(|config| config.description.clone())),
        maps: build.maps.clone(),
        root: build.root.clone(),
        precompressed: build.precompressed,
        sources,
        coder,
        target: build.target,
        base: config.and_then(|config| config.base.clone()),
        own: config.map(|config| config.own.clone()).unwrap_or_default(),
    };
    let watch = Watch::over(&options.coder.progress);
    let read = uvlet_read::open(&path, &options);
    drop(watch);
    let (mut record, texts) = read?;
    record.notices.extend(choose::remarks(&path, is_found, &record));
    record.notices.sort();
    let held: Vec<Measure> = record.measures().collect();
    if let Some(&measure) = list.iter().find(|measure| !all && !held.contains(measure)) {
        let taken: Vec<_> = held.iter().map(|measure| measure.name()).collect();
        return Err(Failure::Measure { path, measure, taken: taken.join(", ") });
    }
    list.retain(|measure| held.contains(measure));
    for (coding, asked) in levels {
        let held = record.encoders.get(&coding).map_or(asked, |encoder| encoder.level);
        if held != asked {
            return Err(Failure::Level { path, coding, held, asked });
        }
    }
    // A folder that is read with precompressed copies counts them, even if there are none.
    if build.precompressed
        && record.encoders.keys().any(|&coding| record.precompressed.get(coding).is_none())
    {
        return Err(Failure::NoPrecompressed(path));
    }
    if let Some(name) = &build.mark {
        kept::mark(build, &path, &record, name)?;
    }
    Ok(Opened {
        path,
        measures: list,
        record: ManuallyDrop::new(record),
        texts,
        coder: options.coder,
    })
}

/// A look at a record with the groups of the settings.
pub fn with_groups<'r>(record: &'r Record, config: Option<&Config>) -> Result<Lens<'r>, Failure> {
    look(record, config, Marks::default())
}

/// A look at a record with its marks and the groups of the settings.
pub fn look<'r>(
    record: &'r Record,
    config: Option<&Config>,
    marks: Marks,
) -> Result<Lens<'r>, Failure> {
    let groups = config.map_or(&[][..], |config| config.groups.as_slice());
    Ok(groups::with_groups(Lens::new(record).with_marks(marks), groups)?)
}

/// The marks that selectors and the groups of the settings speak of.
pub fn marks_named<'s>(
    selectors: impl IntoIterator<Item = &'s Selector>,
    config: Option<&'s Config>,
) -> Vec<Plain> {
    let groups = config.map_or(&[][..], |config| config.groups.as_slice());
    let all: Vec<&Selector> =
        selectors.into_iter().chain(groups.iter().map(|(_, selector)| selector)).collect();
    let marks = [Plain::Leftovers, Plain::NeverRan];
    marks.into_iter().filter(|mark| all.iter().any(|one| one.names(*mark))).collect()
}

/// What is to be marked for selectors that speak of it.
pub fn marks_wanted<'a>(named: &[Plain], recordings: &'a [Recording]) -> marks::Wanted<'a> {
    let is_recorded = named.contains(&Plain::NeverRan) && !recordings.is_empty();
    marks::Wanted {
        leftovers: named.contains(&Plain::Leftovers),
        recordings: is_recorded.then_some(recordings),
        exports: false,
    }
}

/// A record cut by the marks that are wanted.
pub fn marked(
    record: ManuallyDrop<Record>,
    texts: &dyn Texts,
    coder: &Coder,
    wanted: marks::Wanted<'_>,
) -> (ManuallyDrop<Record>, Marks) {
    if !wanted.leftovers && wanted.recordings.is_none() && !wanted.exports {
        return (record, Marks::default());
    }
    let costs = TracedCosts::new(&record, texts, coder);
    let (record, marks) = marks::marked(&record, texts, Some(&costs), wanted);
    (ManuallyDrop::new(record), marks)
}

/// How sizes in these measures are taken.
fn coder(build: &Build, levels: &BTreeMap<Coding, u32>, measures: &[Measure]) -> Coder {
    let codings = measures.iter().filter_map(|measure| measure.coding());
    let levels = codings
        .map(|coding| (coding, levels.get(&coding).copied().unwrap_or_else(|| coding.level())));
    let folder = kept::cache_folder().filter(|_| !build.no_cache);
    let cache = folder.map(|folder| Arc::new(Cache::new(folder.join("uvlet"))));
    Coder { levels: levels.collect(), cache, ..Coder::default() }
}

/// What sizes are needed in.
pub struct Measures {
    pub list: Vec<Measure>,
    /// Every measure was asked for: of a record, those that it holds.
    pub all: bool,
}

/// What sizes are shown in: as asked for, else as configured. The first is the table's own.
pub fn measures(choice: &MeasureChoice, config: Option<&Config>) -> Measures {
    let usual = config.map_or_else(|| Config::none().measure, |config| config.measure);
    let asked = choice.measures.iter().flat_map(|asked| match asked {
        Asked::All => [&[usual], &Measure::ALL[..]].concat(),
        Asked::One(measure) => vec![*measure],
    });
    let mut list: Vec<Measure> = Vec::new();
    for measure in asked {
        if !list.contains(&measure) {
            list.push(measure);
        }
    }
    if list.is_empty() {
        list.push(usual);
    }
    Measures { list, all: choice.measures.contains(&Asked::All) }
}

/// What sizes are taken in besides those that are shown: programs find gzip in every answer.
fn taken(shown: &[Measure], format: Form) -> Vec<Measure> {
    let gzip = Measure::Coded(Coding::Gzip);
    match format.is_for_programs() && !shown.contains(&gzip) {
        true => [shown, &[gzip]].concat(),
        false => shown.to_owned(),
    }
}

/// The levels of a record may be others than this run's.
pub fn at_levels_of(record: &Record, coder: Coder) -> Coder {
    let levels = record.encoders.iter().map(|(&coding, encoder)| (coding, encoder.level));
    Coder { levels: levels.collect(), ..coder }
}

/// The day that waivers are held against: the one that was named, else today in UTC.
pub fn today(named: Option<Date>) -> Date {
    named.unwrap_or_else(|| Timestamp::now().to_zoned(TimeZone::UTC).date())
}
