//! What answers are laid out for: a screen, and sentences broken to its width.

use anstyle::Style;
use unicode_width::UnicodeWidthChar;
use uvlet_record::{Record, sizes::Measure};

use crate::units::Units;

/// How to show it.
#[derive(Clone, Debug)]
pub struct Screen {
    /// Columns of the terminal.
    pub width: usize,
    /// What sizes are shown in.
    pub units: Units,
    /// The one measure of the table.
    pub measure: Measure,
    /// Measures that were asked for besides, in further columns.
    pub also: Vec<Measure>,
    /// How sizes are meant was said before.
    pub brief: bool,
}

/// Narrower screens are laid out as this wide: below it no table reads.
const NARROWEST: usize = 40;

/// No screen is wider.
const WIDEST: usize = 2000;

impl Screen {
    pub(crate) fn columns(&self) -> usize {
        self.width.clamp(NARROWEST, WIDEST)
    }

    /// The same in each measure that was asked for besides.
    pub(crate) fn others(&self) -> impl Iterator<Item = Self> + '_ {
        self.also.iter().map(|measure| Self { measure: *measure, also: Vec::new(), ..self.clone() })
    }

    /// Its own measure, and those besides.
    pub(crate) fn measures(&self) -> impl Iterator<Item = Measure> + '_ {
        std::iter::once(self.measure).chain(self.also.iter().copied())
    }
}

/// `In br`, before what is said again in that measure.
pub(crate) fn in_measure(measure: Measure) -> String {
    match measure {
        Measure::Emitted => "As emitted".to_owned(),
        Measure::Coded(coding) => format!("In {coding}"),
    }
}

/// Measures, with the encoders behind them: `gzip by zlib 1.3.1, level 9`.
pub(crate) fn measures_said(measures: impl Iterator<Item = Measure>, record: &Record) -> String {
    let said: Vec<String> = measures.map(|measure| measure_said(measure, record)).collect();
    match said.split_last() {
        Some((last, rest)) if !rest.is_empty() => format!("{}, and {last}", rest.join("; ")),
        _ => said.concat(),
    }
}

fn measure_said(measure: Measure, record: &Record) -> String {
    let Measure::Coded(coding) = measure else { return "bytes as emitted".to_owned() };
    let Some(encoder) = record.encoders.get(&coding) else { return coding.to_string() };
    let precompressed = match record.precompressed.get(coding) {
        Some(&precompressed) if precompressed > 0 => {
            let files = count(usize::try_from(precompressed).unwrap_or(usize::MAX), "file");
            format!(" ({files} by the precompressed copy)")
        }
        _ => String::new(),
    };
    format!(
        "{coding} by {}, level {}{precompressed}",
        crate::name::plain(&encoder.name),
        encoder.level
    )
}

/// `1 file`, `2 files`, `3 entries`; of words without a plural as they are.
pub(crate) fn count(number: usize, noun: &str) -> String {
    let noun = match (number, noun.strip_suffix('y')) {
        (1, _) => noun.to_owned(),
        _ if matches!(noun, "data" | "wasm") => noun.to_owned(),
        (_, Some(stem)) => format!("{stem}ies"),
        (_, None) => format!("{noun}s"),
    };
    format!("{} {noun}", crate::units::grouped(number as u64))
}

pub(crate) fn bold(text: &str) -> String {
    styled(Style::new().bold(), text)
}

pub(crate) fn dim(text: &str) -> String {
    styled(Style::new().dimmed(), text)
}

pub(crate) fn styled(style: Style, text: &str) -> String {
    format!("{}{text}{}", style.render(), style.render_reset())
}

/// Breaks a sentence at spaces, with a hanging indent.
pub(crate) fn wrapped(text: &str, columns: usize, indent: usize) -> String {
    let body = text.trim_start_matches(' ');
    let mut used = text.len() - body.len();
    let mut lines = text[..used].to_owned();
    for (at, word) in unbroken(body).enumerate() {
        let width = crate::name::width(word);
        if at > 0 && used + 1 + width > columns {
            lines.push('\n');
            lines.push_str(&" ".repeat(indent));
            used = indent;
        } else if at > 0 {
            lines.push(' ');
            used += 1;
        }
        // A path that is longer than a line goes on in the next.
        let mut rest = word;
        while let Some(end) = break_in(rest, columns.saturating_sub(used)) {
            lines.push_str(&rest[..end]);
            lines.push('\n');
            lines.push_str(&" ".repeat(indent));
            used = indent;
            rest = &rest[end..];
        }
        lines.push_str(rest);
        used += crate::name::width(rest);
    }
    lines
}

/// Where a word that does not fit is broken: behind a slash if there is one.
fn break_in(word: &str, room: usize) -> Option<usize> {
    if room < 8 {
        return None;
    }
    // No more of the word is looked at than fits: it may be as long as a file.
    let (mut fits, mut slash, mut used) = (0, 0, 0);
    for (at, c) in word.char_indices() {
        used += c.width().unwrap_or(0);
        if used > room {
            return Some(if slash > 0 { slash } else { fits }).filter(|end| *end > 0);
        }
        fits = at + c.len_utf8();
        if c == '/' {
            slash = fits;
        }
    }
    None
}

/// The words of a sentence; a unit stays with its number.
fn unbroken(text: &str) -> impl Iterator<Item = &str> {
    let mut rest = Some(text);
    std::iter::from_fn(move || {
        let text = rest?;
        let mut spaces = text.match_indices(' ').map(|(at, _)| at);
        let end = spaces.find(|&at| {
            let next = text[at + 1..].split(' ').next().unwrap_or_default();
            let unit = next.trim_end_matches(|c: char| c.is_ascii_punctuation());
            !matches!(unit, "B" | "kB" | "KiB")
        });
        rest = end.map(|end| &text[end + 1..]);
        Some(end.map_or(text, |end| &text[..end]))
    })
}

#[cfg(test)]
mod tests {
    use super::wrapped;

    #[test]
    fn sentences_break_at_spaces_but_not_before_a_unit() {
        assert_eq!(wrapped("  it is 12 kB, and so", 12, 4), "  it is\n    12 kB,\n    and so");
        assert_eq!(wrapped("endless", 3, 0), "endless");
        assert_eq!(wrapped("in src/pages/booking.js", 14, 2), "in\n  src/pages/\n  booking.js");
    }
}
