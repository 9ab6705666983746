//! What each source says: its digest, in which kind of module it is written, what it asks for.

use rayon::iter::{IntoParallelIterator, ParallelIterator};
use uvlet_record::{ModuleFormat, ModuleId, Package, Record, SideEffects, Texts, glob::Glob};
use uvlet_script::{
    Dialect,
    requests::{Kind, Request, Requests, requests},
};

use crate::files::style;

/// What one source says.
#[derive(Debug, Default)]
pub struct SourceFacts {
    digest: String,
    format: Option<ModuleFormat>,
    bytes: u64,
    /// What it asks for and gives.
    pub requests: Requests,
}

/// Reads every source that is at hand, in the order of the record's modules.
pub fn read(record: &Record, texts: &dyn Texts) -> Vec<Option<SourceFacts>> {
    let of_module = |at: usize| {
        let text = texts.source(ModuleId::new(at))?;
        Some(facts(&record.modules[at].path, &text))
    };
    (0..record.modules.len()).into_par_iter().map(of_module).collect()
}

/// Facts of a text; `path` tells the language.
pub fn facts(path: &str, text: &str) -> SourceFacts {
    let digest = digest(text);
    let bytes = text.len() as u64;
    let ending = path.rsplit_once('.').map_or("", |(_, ending)| ending);
    match ending {
        "json" => SourceFacts {
            digest,
            format: Some(ModuleFormat::Json),
            bytes,
            requests: Requests::default(),
        },
        "css" | "scss" | "sass" | "less" | "styl" | "pcss" => {
            let imports = style::imports(text).into_iter();
            let ask = |specifier| Request::plain(specifier, Kind::Style);
            let requests = Requests { asks: imports.map(ask).collect(), ..Requests::default() };
            SourceFacts { digest, format: Some(ModuleFormat::Style), bytes, requests }
        }
        "vue" | "svelte" | "astro" => {
            let requests = script_of_component(text)
                .and_then(|script| parsed(&script, false))
                .unwrap_or_default();
            SourceFacts { digest, format: Some(ModuleFormat::Es), bytes, requests }
        }
        _ => {
            let is_typed = matches!(ending, "ts" | "tsx" | "mts" | "cts");
            let requests = parsed(text, is_typed);
            let format = requests.as_ref().and_then(|requests| {
                let is_commonjs = || {
                    let requires = |ask: &Request| ask.kind == Kind::Require;
                    !requests.gives.is_empty() || requests.asks.iter().any(requires)
                };
                match requests.is_module {
                    true => Some(ModuleFormat::Es),
                    false => is_commonjs().then_some(ModuleFormat::CommonJs),
                }
            });
            SourceFacts { digest, format, bytes, requests: requests.unwrap_or_default() }
        }
    }
}

/// The digest of a source. Code that Rollup and Rolldown put in the place of a picture holds an id that may
/// differ from run to run (`import.meta.ROLLUP_FILE_URL_…`): left in, every build would look edited.
fn digest(text: &str) -> String {
    const MARK: &str = "import.meta.ROLL";
    let mut parts = text.split(MARK);
    let mut hasher = blake3::Hasher::new();
    hasher.update(parts.next().unwrap_or_default().as_bytes());
    for part in parts {
        let is_id = |c: char| c.is_ascii_alphanumeric() || matches!(c, '_' | '$' | '-');
        let drawn = ["UP_FILE_URL_", "DOWN_FILE_URL_"].iter().find_map(|of| part.strip_prefix(of));
        hasher.update(MARK.as_bytes());
        hasher.update(drawn.map_or(part, |rest| rest.trim_start_matches(is_id)).as_bytes());
    }
    hasher.finalize().to_hex()[..32].to_owned()
}

fn parsed(text: &str, is_typed: bool) -> Option<Requests> {
    uvlet_script::read(text, Dialect::Source, |script| requests(script, is_typed)).ok()
}

/// The scripts of a component that is written in one file with its markup.
fn script_of_component(text: &str) -> Option<String> {
    let mut scripts = String::new();
    // Astro fences what runs when the page is made.
    if let Some((fenced, _)) = text.strip_prefix("---").and_then(|rest| rest.split_once("\n---")) {
        scripts.push_str(fenced);
    }
    let mut rest = text;
    while let Some((_, after)) = rest.split_once("<script") {
        let (_, body) = after.split_once('>')?;
        let (script, after) = body.split_once("</script>").unwrap_or((body, ""));
        scripts.push_str(script);
        scripts.push_str("\n;");
        rest = after;
    }
    Some(scripts)
}

/// Gives modules what their sources and packages say of them, where the bundler did not.
pub fn describe(record: &mut Record, facts: &[Option<SourceFacts>]) {
    let declared: Vec<Option<bool>> =
        (0..record.modules.len()).map(|at| declared_of(record, ModuleId::new(at))).collect();
    for ((module, facts), declared) in record.modules.iter_mut().zip(facts).zip(declared) {
        module.side_effects = module.side_effects.or(declared);
        let Some(facts) = facts else { continue };
        module.source_digest = Some(facts.digest.clone());
        module.format = module.format.or(facts.format);
        module.source_bytes = module.source_bytes.or(Some(facts.bytes));
        if module.exports.is_none() && facts.requests.is_module {
            let mut names: Vec<String> =
                facts.requests.gives.iter().map(|give| give.name.clone()).collect();
            names.sort();
            names.dedup();
            module.exports = facts.requests.gives_all_of.is_empty().then_some(names);
        }
    }
}

fn declared_of(record: &Record, id: ModuleId) -> Option<bool> {
    declared(record.package_of(id)?, &record.location_of(id))
}

/// What a package declares of the file at a place (`sideEffects`, by globs from the package's folder).
pub fn declared(package: &Package, location: &str) -> Option<bool> {
    let globs = match package.side_effects.as_ref()? {
        SideEffects::None => return Some(false),
        SideEffects::Undeclared => return None,
        SideEffects::In(globs) => globs,
    };
    let inside = location.strip_prefix(&package.place)?.trim_start_matches('/');
    let is_in = |glob: &String| {
        let glob = glob.trim_start_matches("./").trim_start_matches('/');
        // A glob without a folder is meant in every folder.
        let anywhere = if glob.contains('/') { glob.to_owned() } else { format!("**/{glob}") };
        [glob.to_owned(), anywhere].iter().any(|glob| Glob::new(glob, true).is_match(inside))
    };
    Some(globs.iter().any(is_in))
}

#[cfg(test)]
mod tests {
    use super::facts;

    #[test]
    fn components_ask_by_their_scripts() {
        let text = "<script>export const a = 1</script>\n<script setup lang=\"ts\">import B from './B.vue'</script><template><B/></template>";
        let asks = facts("src/A.vue", text).requests.asks;
        assert_eq!(asks.iter().map(|ask| ask.specifier.as_str()).collect::<Vec<_>>(), ["./B.vue"]);
        let text = "---\nimport Card from './Card.astro';\n---\n<Card/>";
        assert_eq!(facts("src/a.astro", text).requests.asks.len(), 1);
    }

    #[test]
    fn ids_that_are_drawn_anew_are_no_edits() {
        let digest = |text: &str| facts("src/tide.svg", text).digest;
        let of = |id: &str| digest(&format!("export default import.meta.ROLLDOWN_FILE_URL_{id};a"));
        assert_eq!(of("VRAku6-_$"), of("b2"));
        assert_ne!(of("a"), digest("export default import.meta.ROLLDOWN_FILE_URL_a;b"));
        assert_eq!(digest("a"), blake3::hash(b"a").to_hex()[..32]);
    }
}
