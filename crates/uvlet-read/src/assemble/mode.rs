//! Is it a production build? Judged by positive marks only.

use uvlet_record::{Mode, Module};

use crate::files::marks::CodeMarks;

/// Share of white space below which code is taken for minified: real minified scripts hold 2 to 6%
/// (in texts), scripts as written 15% and more.
const MINIFIED_SPACE: f64 = 0.10;

/// Judges the mode, with the evidence.
pub fn judge<'m>(
    marks: &[(&str, &CodeMarks)],
    modules: impl Iterator<Item = &'m Module>,
    said: Option<&(Mode, String)>,
) -> (Mode, Vec<String>) {
    let mut evidence = Vec::new();
    if let Some((path, _)) = marks.iter().find(|(_, marks)| marks.evaluates) {
        evidence.push(format!("{path} evaluates module bodies from strings"));
    }
    for module in modules {
        let path = module.path.as_str();
        let live = ["webpack-dev-server/client/", "webpack/hot/", "vite/dist/client/"];
        let installed = path.rsplit("node_modules/").next().filter(|_| module.package.is_some());
        if installed.is_some_and(|inside| live.iter().any(|mark| inside.starts_with(mark))) {
            evidence.push(format!("{path} is a live-reload client"));
        } else if path.contains(".development.") && module.package.is_some() {
            evidence.push(format!("{path} is a library's development edition"));
        }
    }
    if let Some((Mode::Development, said)) = said {
        evidence.push(said.clone());
    }
    if !evidence.is_empty() {
        return (Mode::Development, evidence);
    }
    if let Some((mode, said)) = said {
        return (*mode, vec![said.clone()]);
    }
    let bytes: u64 = marks.iter().map(|(_, marks)| marks.bytes).sum();
    let space: u64 = marks.iter().map(|(_, marks)| marks.space).sum();
    if bytes == 0 {
        return (Mode::Unclear, vec!["there is no code to judge by".to_owned()]);
    }
    #[expect(clippy::cast_precision_loss, reason = "a share of white space needs three digits")]
    let share = space as f64 / bytes as f64;
    let said = format!("{:.1}% of the code is white space", 100.0 * share);
    if share < MINIFIED_SPACE {
        (Mode::Production, vec![format!("minified: {said}")])
    } else {
        (Mode::Unclear, vec![format!("not minified: {said}")])
    }
}
