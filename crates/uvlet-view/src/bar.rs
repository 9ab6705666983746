//! A bar whose parts differ in pattern as well as in colour.

use anstyle::{Ansi256Color, AnsiColor, Color, Style};

/// One part of a bar.
pub struct Part {
    /// What it stands for.
    pub word: &'static str,
    /// Its pattern.
    pub pattern: char,
    /// Its colour.
    pub style: Style,
}

const fn coloured(color: AnsiColor) -> Style {
    Style::new().fg_color(Some(Color::Ansi(color)))
}

/// A grey of its own, which reads on light and on dark.
const GREY: Style = Style::new().fg_color(Some(Color::Ansi256(Ansi256Color(244))));

/// The parts of startup in the order they are drawn, then what is deferred.
pub const PARTS: [Part; 6] = [
    Part { word: "own", pattern: '█', style: coloured(AnsiColor::Cyan) },
    Part { word: "third-party", pattern: '▒', style: coloured(AnsiColor::Yellow) },
    Part { word: "glue", pattern: '=', style: coloured(AnsiColor::BrightBlack) },
    Part { word: "assets", pattern: ':', style: coloured(AnsiColor::Blue) },
    Part { word: "unattributed", pattern: '?', style: coloured(AnsiColor::Magenta) },
    Part { word: "deferred", pattern: '─', style: GREY },
];

/// Draws the parts at `columns` per `scale` bytes. Widths follow the running sum, so that the bar's
/// length is right even where parts are narrower than a column.
pub fn draw(bytes: &[u64], scale: u64, columns: usize) -> String {
    let mut text = String::new();
    let mut sum = 0;
    let mut drawn = 0;
    for (part, bytes) in PARTS.iter().zip(bytes) {
        sum += bytes;
        let until =
            (u128::from(sum) * columns as u128 + u128::from(scale) / 2) / u128::from(scale.max(1));
        let until = usize::try_from(until).unwrap_or(columns);
        if until > drawn {
            let run: String = std::iter::repeat_n(part.pattern, until - drawn).collect();
            text.push_str(&format!("{}{run}{}", part.style.render(), part.style.render_reset()));
            drawn = until;
        }
    }
    text
}
