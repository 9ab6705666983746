//! The gate: one sentence per limit that tells something, what it is first; those that are met are folded
//! into a count.

use crate::words::reasons::{self, of_gate};
use anstyle::{AnsiColor, Color, Style};
use uvlet_audit::ask::gate::{
    limit::{Counted, LimitKind},
    verdict::{BudgetRow, Gate, Verdict},
};
use uvlet_record::{Record, sizes::Measure};

use crate::name::plain;
use crate::screen::{Screen, count, measures_said, styled, wrapped};

/// Contributors that a sentence names.
const NAMED: usize = 3;

/// Which limits are listed.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, strum::EnumMessage, strum::IntoStaticStr, strum::VariantArray,
)]
#[strum(serialize_all = "lowercase")]
pub enum Shown {
    /// Broken, undecided and warned ones; the others are counted.
    Telling,
    /// Broken and undecided ones; the others are counted.
    Broken,
    /// Every one.
    All,
}

/// The rows of one verdict as a person wants them.
pub(crate) struct Standing<'g> {
    pub verdict: Verdict,
    /// Rows that get a sentence.
    pub listed: Vec<&'g BudgetRow>,
    /// Rows that are counted only.
    pub counted: usize,
    /// Why they are only counted.
    pub note: &'static str,
}

/// Every row once, by verdict.
pub(crate) fn standing(gate: &Gate, shown: Shown) -> Vec<Standing<'_>> {
    use Verdict::{Broken, Met, Undecided, Unjudged, Waived, Warned};
    let is_listed = |row: &&BudgetRow| match row.verdict {
        _ if shown == Shown::All => true,
        Broken | Undecided => true,
        _ if shown == Shown::Broken => false,
        // What is broken need not be warned of as well.
        Warned | Unjudged if row.limit_kind == LimitKind::WarnAbove => {
            !gate.budgets.iter().any(|other| {
                matches!(other.verdict, Broken | Undecided | Waived)
                    && (&other.name, &other.item) == (&row.name, &row.item)
            })
        }
        Met => false,
        _ => true,
    };
    let of = |verdict| {
        let rows = gate.budgets.iter().filter(move |row| row.verdict == verdict);
        let (listed, counted): (Vec<&BudgetRow>, Vec<&BudgetRow>) = rows.partition(is_listed);
        let is_said_above = verdict != Met && shown == Shown::Telling;
        let note = if is_said_above { " in budgets listed above" } else { "" };
        Standing { verdict, listed, counted: counted.len(), note }
    };
    let standing = [Broken, Undecided, Warned, Waived, Unjudged, Met].map(of);
    standing.into_iter().filter(|one| !one.listed.is_empty() || one.counted > 0).collect()
}

/// Shows how the budgets stand.
#[must_use]
pub fn gate(gate: &Gate, label: &str, record: &Record, screen: &Screen, shown: Shown) -> String {
    let standing = standing(gate, shown);
    let first = headline(gate, &plain(label), str::to_uppercase);
    let mut text = styled(style_of(gate.verdict), &wrapped(&first, screen.columns(), 0));
    text.push('\n');
    for reason in &gate.reasons {
        text.push_str(&wrapped(&format!("  {}", plain(&of_gate(reason))), screen.columns(), 4));
        text.push('\n');
    }
    text.push('\n');
    for Standing { verdict, listed, counted, note } in &standing {
        let mut lines: Vec<String> = listed.iter().map(|row| sentence(row, screen)).collect();
        if *counted > 0 {
            lines.push(format!("{}{note}", count(*counted, "limit")));
        }
        // The word stands once, before the first of its rows.
        let mut word = verdict.name();
        for line in &lines {
            let line = wrapped(&format!("  {word:<9}  {line}"), screen.columns(), 15);
            let painted = styled(style_of(*verdict), word);
            text.push_str(&match word {
                "" => line,
                word => line.replacen(word, &painted, 1),
            });
            text.push('\n');
            word = "";
        }
    }
    if let Some(said) = sizes_said(gate, record) {
        text.push_str(&format!("\n{}\n", wrapped(&said, screen.columns(), 0)));
    }
    text
}

/// How a verdict is set off from others.
fn style_of(verdict: Verdict) -> Style {
    let color = match verdict {
        Verdict::Broken => Some(AnsiColor::Red),
        Verdict::Undecided | Verdict::Warned => Some(AnsiColor::Yellow),
        Verdict::Met => Some(AnsiColor::Green),
        Verdict::Waived | Verdict::Unjudged => None,
    };
    Style::new().bold().fg_color(color.map(Color::Ansi))
}

/// How the gate stands, in a word that `word` gives its form, and the counts, which add up to the
/// number of limits.
pub(crate) fn headline(gate: &Gate, label: &str, word: impl Fn(&str) -> String) -> String {
    let warned = gate.budgets.iter().filter(|row| row.verdict == Verdict::Warned).count();
    let (stands, with) = match gate.verdict {
        Verdict::Broken => ("broken", String::new()),
        Verdict::Undecided => ("undecided", String::new()),
        Verdict::Unjudged => ("not judged", String::new()),
        Verdict::Warned | Verdict::Waived | Verdict::Met if warned > 0 => {
            ("met", format!(" with {}", count(warned, "warning")))
        }
        Verdict::Warned | Verdict::Waived | Verdict::Met => ("met", String::new()),
    };
    format!("{}{with}: {}", word(stands), counts(gate, label))
}

fn counts(gate: &Gate, label: &str) -> String {
    let of = |verdict| gate.budgets.iter().filter(|row| row.verdict == verdict).count();
    let limits = count(gate.budgets.len(), "limit");
    let others = |verdicts: &[Verdict]| {
        let said = verdicts.iter().filter(|verdict| of(**verdict) > 0);
        said.map(|verdict| format!(", {} {}", of(*verdict), verdict.name())).collect::<String>()
    };
    let broken = of(Verdict::Broken);
    let rest =
        [Verdict::Undecided, Verdict::Warned, Verdict::Waived, Verdict::Unjudged, Verdict::Met];
    match gate.verdict {
        Verdict::Broken if broken == 0 => {
            format!("{label} is rejected; of {limits}{}.", others(&rest).trim_start_matches(','))
        }
        Verdict::Broken => {
            let taken = if gate.reasons.is_empty() { "" } else { "is rejected, and " };
            format!("{label} {taken}breaks {broken} of {limits}{}.", others(&rest))
        }
        Verdict::Undecided => {
            let undecided = of(Verdict::Undecided);
            format!(
                "{undecided} of {limits} cannot be judged of {label}{}.",
                others(&[Verdict::Warned, Verdict::Waived, Verdict::Unjudged, Verdict::Met])
            )
        }
        Verdict::Unjudged => format!("no limit of {label} could be checked ({limits})."),
        Verdict::Warned | Verdict::Waived | Verdict::Met => {
            let unjudged = others(&[Verdict::Waived, Verdict::Unjudged]);
            format!(
                "{label} meets {} of {limits}{unjudged}.",
                of(Verdict::Met) + of(Verdict::Warned)
            )
        }
    }
}

/// The measures that limits are in, with their encoders.
pub(crate) fn sizes_said(gate: &Gate, record: &Record) -> Option<String> {
    let judged =
        |measure: &Measure| gate.budgets.iter().any(|row| row.measure == Counted::Bytes(*measure));
    let said = measures_said(Measure::ALL.into_iter().filter(judged), record);
    (!said.is_empty()).then(|| format!("Sizes are {said}."))
}

/// A sentence that begins with a capital letter.
fn capital(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map(|first| first.to_uppercase().chain(chars).collect()).unwrap_or_default()
}

/// One limit: what it is, and what that means.
pub(crate) fn sentence(row: &BudgetRow, screen: &Screen) -> String {
    let item = row.item.as_ref().filter(|item| **item != row.name);
    let item = item.map(|item| format!(" {}", plain(item))).unwrap_or_default();
    let app = row.app.as_ref().map(|app| format!("{}/", plain(app))).unwrap_or_default();
    format!("{app}{}{item}: {}", plain(&row.name), what(row, screen))
}

/// The parts that sentences of a row are made of.
struct Said<'a> {
    row: &'a BudgetRow,
    screen: &'a Screen,
    /// How much there is, with its unit.
    is: String,
    /// What that is counted in.
    measure: &'static str,
    /// ` Heaviest: …`, or nothing.
    heaviest: String,
    /// Reasons, without a full stop.
    because: String,
}

impl<'a> Said<'a> {
    fn of(row: &'a BudgetRow, screen: &'a Screen) -> Self {
        let units = screen.units;
        let (measure, bytes) = match row.measure {
            Counted::Bytes(measure) => (measure.name(), Some(measure)),
            Counted::Files | Counted::Rounds => ("in all", None),
        };
        let is = row.is.unwrap_or(row.least);
        let is = match bytes {
            Some(_) => units.size(is),
            None => {
                let noun = if row.measure == Counted::Files { "file" } else { "round" };
                count(usize::try_from(is).unwrap_or(usize::MAX), noun)
            }
        };
        // A budget on one package says no more of what is heaviest in it.
        let is_about = |name: &str| {
            row.item.as_deref() == Some(name) || row.selector == format!("package({name})")
        };
        let heaviest = match row.heaviest.as_slice() {
            [only] if is_about(&only.name) => &[][..],
            heaviest => heaviest,
        };
        let heaviest = heaviest.iter().take(NAMED).filter_map(|heavy| {
            Some(format!("{} {}", plain(&heavy.name), units.size(heavy.sizes.get(bytes?))))
        });
        let heaviest = match heaviest.collect::<Vec<_>>() {
            none if none.is_empty() => String::new(),
            some => format!(" Heaviest: {}.", some.join(", ")),
        };
        let because = row.because.iter().map(reasons::sentence);
        let because: Vec<String> = because.map(|said| plain(&said).into_owned()).collect();
        Self { row, screen, is, measure, heaviest, because: because.join("; ") }
    }

    /// So many bytes, or files.
    fn amount(&self, amount: u64) -> String {
        match self.row.measure {
            Counted::Bytes(_) => self.screen.units.size(amount),
            Counted::Files | Counted::Rounds => amount.to_string(),
        }
    }

    fn limit(&self) -> String {
        self.amount(self.row.allowed.unwrap_or(0))
    }

    /// The reasons as a sentence of their own, after a space.
    fn reasons(&self) -> String {
        match self.because.as_str() {
            "" => String::new(),
            because => format!(" {}.", capital(because)),
        }
    }

    /// How a limit on growth stands.
    fn growth(&self) -> String {
        let Self { row, screen, is, measure, because, .. } = self;
        let units = screen.units;
        let base = row.base.unwrap_or(0);
        let may = units.size(row.allowed.unwrap_or(0).saturating_sub(base));
        let grew = row.is.unwrap_or(0).checked_sub(base);
        let more = units.size(grew.unwrap_or(0));
        match (row.verdict, grew) {
            (Verdict::Unjudged, _) => format!("nothing to judge: {because}."),
            (Verdict::Undecided, _) => format!("cannot be judged: {because}."),
            (Verdict::Waived, _) => {
                format!("{is} {measure}, {more} more than before, waived {because}.")
            }
            (Verdict::Met, None) => format!("{is} {measure}, less than before."),
            (Verdict::Met, Some(_)) => {
                format!("{is} {measure}, {more} more than before; allowed growth {may}.")
            }
            (Verdict::Broken | Verdict::Warned, _) => {
                let most = row.grew.iter();
                let most: Vec<String> = most
                    .map(|grew| format!("{} by {}", plain(&grew.name), units.size(grew.by)))
                    .collect();
                let most = match most.is_empty() {
                    true => String::new(),
                    false => format!(" Grew: {}.", most.join(", ")),
                };
                let because = self.reasons();
                format!(
                    "{is} {measure}, {more} more than before; allowed growth {may}.{because}{most}"
                )
            }
        }
    }

    /// What cannot be told.
    fn untold(&self) -> String {
        let Self { row, measure, because, .. } = self;
        let (least, most) = (self.amount(row.least), self.amount(row.most));
        match row.limit_kind {
            LimitKind::Absent => format!("up to {most} {measure} of it may be there: {because}."),
            _ => format!(
                "undecided: between {least} and {most} {measure}, limit {}: {because}.",
                self.limit()
            ),
        }
    }
}

fn what(row: &BudgetRow, screen: &Screen) -> String {
    let said = Said::of(row, screen);
    let Said { is, measure, heaviest, because, .. } = &said;
    let limit = said.limit();
    match (row.verdict, row.limit_kind) {
        (_, LimitKind::GrowAtMost) => said.growth(),
        (Verdict::Undecided | Verdict::Unjudged, _) if row.most > row.least => said.untold(),
        (Verdict::Undecided, _) => format!("cannot be judged: {because}."),
        (Verdict::Unjudged, _) => format!("nothing to judge: {because}."),
        (Verdict::Broken, LimitKind::Absent) => {
            let because = match because.as_str() {
                "" => String::new(),
                because => format!(" {because}."),
            };
            format!("{is} {measure} found; this budget allows none.{heaviest}{because}")
        }
        (Verdict::Broken, _) => {
            let over = said.amount(row.over_by);
            format!("{is} {measure}, {over} over its {limit}.{heaviest}{}", said.reasons())
        }
        (Verdict::Waived, _) => format!("{is} {measure}, over its {limit}, waived {because}."),
        (Verdict::Warned, _) => {
            let over = screen.units.size(row.over_by);
            format!("{is} {measure}, {over} over its warning line of {limit}.{heaviest}")
        }
        (Verdict::Met, LimitKind::Absent) => "not included.".to_owned(),
        (Verdict::Met, kind) => {
            let left = said.amount(row.allowed.unwrap_or(0).saturating_sub(row.is.unwrap_or(0)));
            let line = if kind == LimitKind::WarnAbove { "warning line of " } else { "" };
            format!("{is} {measure}, {left} below its {line}{limit}.{}", said.reasons())
        }
    }
}
