//! Is it a production build? Judged by positive marks only.

use uvlet_record::{Mode, ModeBasis, Module};

use crate::files::marks::CodeMarks;

/// White space in a thousand bytes below which code is taken for minified: real minified scripts hold 20
/// to 60 (in texts), scripts as written 150 and more.
const MINIFIED_SPACE: u64 = 100;

/// Judges the mode, with the evidence.
pub fn judge<'m>(
    marks: &[(&str, &CodeMarks)],
    modules: impl Iterator<Item = &'m Module>,
    said: Option<&(Mode, ModeBasis)>,
) -> (Mode, Vec<ModeBasis>) {
    let mut evidence = Vec::new();
    if let Some((path, _)) = marks.iter().find(|(_, marks)| marks.evaluates) {
        evidence.push(ModeBasis::Evaluates { file: (*path).to_owned() });
    }
    for module in modules {
        let path = module.path.as_str();
        let live = ["webpack-dev-server/client/", "webpack/hot/", "vite/dist/client/"];
        let installed = path.rsplit("node_modules/").next().filter(|_| module.package.is_some());
        if installed.is_some_and(|inside| live.iter().any(|mark| inside.starts_with(mark))) {
            evidence.push(ModeBasis::LiveReload { module: path.to_owned() });
        } else if path.contains(".development.") && module.package.is_some() {
            evidence.push(ModeBasis::DevelopmentEdition { module: path.to_owned() });
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
        return (Mode::Unclear, vec![ModeBasis::NoCode]);
    }
    let per_mille = (space * 1000 + bytes / 2) / bytes;
    let is_minified = space * 1000 < bytes * MINIFIED_SPACE;
    let mode = if is_minified { Mode::Production } else { Mode::Unclear };
    (mode, vec![ModeBasis::WhiteSpace { per_mille, is_minified }])
}
