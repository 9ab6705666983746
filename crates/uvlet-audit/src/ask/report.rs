//! All that one page shows of a build, each question asked once.

use jiff::civil::Date;
use uvlet_record::{
    Costs, ModuleId, Package, PackageId, Recording, SavedTexts, Texts, sizes::Measure,
};

use crate::{
    ask::{
        attribute::{By, Row, RowKind, Sort, attribute},
        compare::{
            Comparison, compare,
            sides::{CompareError, Half},
        },
        coverage::{Coverage, CoveredBy, coverage},
        gate::{
            GateError, bench,
            budget::{Budget, Strictness},
            gate,
            verdict::Gate,
            waiver::{Waiver, accept},
        },
        survey::{Survey, survey},
        why::{self, Why},
    },
    find::waste::{self, Waste, waste},
    lens::Lens,
    parts::recordings::TiedRecordings,
    select::subject::{Subject, SubjectKind},
};

/// Packages whose chains the page holds.
const WHYS: usize = 300;
/// Modules times packages that chains are followed for: beyond, the heaviest packages alone.
const EFFORT: usize = 300_000;

/// The build before.
#[derive(Clone, Copy)]
pub struct Base<'a> {
    /// A look at it.
    pub lens: &'a Lens<'a>,
    /// Its texts.
    pub texts: &'a dyn Texts,
}

/// What is asked, and what helps to answer.
#[derive(Clone, Copy)]
pub struct Asked<'a> {
    /// What rows are ordered by.
    pub measure: Measure,
    /// Texts, where they are at hand.
    pub texts: &'a dyn Texts,
    /// What stretches of files cost on the wire.
    pub costs: Option<&'a dyn Costs>,
    /// Languages that are wanted.
    pub languages: &'a [String],
    /// What a browser recorded.
    pub recordings: &'a [Recording],
    /// Budgets, and how strictly they are held.
    pub promises: (&'a [Budget], Strictness),
    /// Exceptions.
    pub waivers: &'a [Waiver],
    /// The day, in UTC, that they are held against.
    pub today: Date,
    /// The build before, where one is held against it.
    pub base: Option<Base<'a>>,
}

/// The answers.
#[derive(Debug)]
pub struct Report {
    /// What each page makes a visitor download.
    pub survey: Survey,
    /// Why each install of a package is here, the heaviest first.
    pub whys: Vec<(PackageId, Why)>,
    /// What need not be there.
    pub waste: Waste,
    /// How promises stand, where there are any.
    pub gate: Option<Gate>,
    /// What moved, where there is a build to hold it against.
    pub compare: Option<Comparison>,
    /// What ran in recordings of a browser, where there are any.
    pub coverage: Option<Coverage>,
}

/// Why there is no answer.
#[derive(Debug)]
pub enum ReportError {
    /// The builds cannot be compared.
    Compare(CompareError),
    /// Budgets cannot be judged.
    Gate(GateError),
}

/// Asks every question that the page answers.
///
/// # Errors
/// When the builds cannot be compared, or a promise cannot be judged.
pub fn report(lens: &Lens<'_>, asked: Asked<'_>) -> Result<Report, ReportError> {
    let Asked { measure, texts, costs, languages, recordings, waivers, today, .. } = asked;
    let compared = moved(lens, asked).map_err(ReportError::Compare)?;
    let everything = lens.cells(|_, _| true);
    let recorded =
        (!recordings.is_empty()).then(|| TiedRecordings::new(lens.record, recordings, texts));
    let covered = recorded.as_ref().map(|recorded| {
        coverage(lens, recorded, texts, costs, CoveredBy::Package, &everything, measure)
    });
    let ran = recorded.as_ref().map(|recorded| (&recorded.ran, recordings.len()));
    let aids = waste::Aids { texts, costs, languages, ran };
    let mut wasted = waste(lens, aids, &waste::Wanted::default(), measure);
    accept(&mut wasted.findings, waivers, today, measure);
    Ok(Report {
        survey: survey(lens),
        whys: whys(lens, measure),
        waste: wasted,
        gate: promised(lens, asked).map_err(ReportError::Gate)?,
        compare: compared,
        coverage: covered,
    })
}

/// What moved since the build before; none without one.
///
/// # Errors
/// When the builds cannot be compared.
pub fn moved(lens: &Lens<'_>, asked: Asked<'_>) -> Result<Option<Comparison>, CompareError> {
    let Some(base) = asked.base else { return Ok(None) };
    let before = Half { lens: base.lens, texts: base.texts, cells: base.lens.cells(|_, _| true) };
    let after = Half { lens, texts: asked.texts, cells: lens.cells(|_, _| true) };
    compare(&before, &after, asked.languages, &[asked.measure]).map(Some)
}

/// How promises stand; none without any.
fn promised(lens: &Lens<'_>, asked: Asked<'_>) -> Result<Option<Gate>, GateError> {
    let (budgets, strictness) = asked.promises;
    if budgets.is_empty() {
        return Ok(None);
    }
    let no_texts = SavedTexts::default();
    let aids = bench::Aids {
        texts: asked.texts,
        costs: asked.costs,
        languages: asked.languages,
        texts_of_base: asked.base.map_or(&no_texts as &dyn Texts, |base| base.texts),
        base: asked.base.map(|base| base.lens),
        waivers: asked.waivers,
        today: asked.today,
    };
    gate(lens, budgets, strictness, aids).map(Some)
}

/// Why installs of packages are here, the heaviest first, as many as can be followed in time.
fn whys(lens: &Lens<'_>, measure: Measure) -> Vec<(PackageId, Why)> {
    let record = lens.record;
    let everything = lens.cells(|_, _| true);
    let rows = attribute(lens, By::Package, &everything, None, Sort::Heaviest(measure)).rows;
    let install = |row: &Row| {
        let mut packages = record.packages.iter();
        let is_it = |one: &Package| one.name == row.name && Some(&one.place) == row.place.as_ref();
        packages.position(is_it).map(PackageId::new)
    };
    let installs = rows.iter().filter(|row| row.row == RowKind::Package).filter_map(install);
    let most = WHYS.min(EFFORT / record.modules.len().max(1)).max(10);
    let why = |id: PackageId| {
        let modules = (0..record.modules.len()).map(ModuleId::new);
        let modules = modules.filter(|module| record.module(*module).package == Some(id)).collect();
        let name = &record.packages[id.at()].name;
        let subject = Subject::of(name, SubjectKind::Package, modules, lens);
        (id, why::why(lens, &subject, &why::Wanted::default()))
    };
    installs.take(most).map(why).collect()
}
