//! What a prediction does not know.

use uvlet_audit::{ask::doubts::Doubt, bundlers::Loading, predict::step::Change};

/// Doubts by their codes, each in a sentence.
#[must_use]
pub fn sentences(doubts: &[Doubt]) -> Vec<(&'static str, String)> {
    let mut sentences: Vec<_> = doubts.iter().map(|one| (one.code(), sentence(one))).collect();
    sentences.sort();
    sentences
}

fn sentence(doubt: &Doubt) -> String {
    match doubt {
        Doubt::LoadingHelper(loading) => format!(
            "the build loads nothing on demand yet: what the bundler needs for that is taken from its habit, {}",
            loading_helper(*loading)
        ),
        Doubt::NoSplitting => "esbuild puts what is loaded on demand into the same file unless it is asked to split; this is told as if it were, for this alone".to_owned(),
        Doubt::GatheredApart => "modules that are merged into one function now are wrapped one by one where several entries share their file: 1% to 3.5% more was seen in real builds".to_owned(),
        Doubt::NoBarrel(path) => format!(
            "{path} does more than re-export, or what it re-exports is not known: it stays with its importers"
        ),
        Doubt::Apart(subject) => format!(
            "{subject} exports its names one by one, and bundlers leave out those that nobody imports: to import them by other paths saves nothing"
        ),
        Doubt::LeastStays(subject) => format!(
            "the least of {subject} is predicted to stay: where its names come in many files of their own, their wrappers are not counted, and the saving was seen to be up to 12% less"
        ),
        Doubt::NothingMoves { subject, change: Change::Defer } => format!(
            "{subject} is not at startup of any entry by imports that could be deferred"
        ),
        Doubt::NothingMoves { subject, .. } => format!("{subject} is at startup of no entry"),
        Doubt::Elsewhere { subject, bytes } => format!(
            "{subject} is fetched from elsewhere then: {bytes} B as emitted here, which are no gain for who has not got it"
        ),
        Doubt::NoAsker { subject, entry } => format!(
            "no importer of {subject} is known at startup of {entry}; whatever else that importer needs is predicted to stay. `uvlet plugin`, or webpack's stats with modules and reasons, would name it"
        ),
        Doubt::NoTexts => {
            "texts are not at hand: shares of streams are summed, which may be off by 1%".to_owned()
        }
        Doubt::Styles { module, style } => format!(
            "{module} imports {style}, and no source map says which bytes of the styles are its: styles are predicted to stay where they are"
        ),
        Doubt::Edges => {
            "part of the import graph is read from sources, and may lack some imports; `uvlet plugin`, esbuild's metafile, or webpack's stats with modules and reasons would have all of them".to_owned()
        }
        Doubt::Requests { count, from, request } => {
            let more = match count - 1 {
                0 => String::new(),
                more => format!(" and {more} more"),
            };
            format!("imports could not be resolved: `{request}` in {from}{more}")
        }
    }
}

/// What a page's first load on demand brings along.
pub(crate) fn loading_helper(loading: Loading) -> &'static str {
    match loading {
        Loading::Preloader => "some 1.3 kB in a page's first load on demand",
        Loading::Runtime => {
            "some 2.5 kB of the runtime, 5 kB to 6 kB where styles are taken out of scripts"
        }
        Loading::SplitFiles => "its option `splitting` and a few hundred bytes",
        Loading::Little => "a few hundred bytes at most",
    }
}
