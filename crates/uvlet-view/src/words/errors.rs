//! Why a question has no answer: selectors that mean nothing, names that are not there, builds that cannot be
//! compared.

use uvlet_audit::{
    ask::{compare::sides::CompareError, declaration::DeclarationError, gate::GateError},
    find::kind::{Kind, UnknownKind},
    graph::few::Wide,
    predict::outcome::WhatIfError,
    select::{
        nearest::Known,
        selection::{Lack, Missing, Unmarked},
        selector::{SelectorError, Wrong},
        subject::SubjectError,
        words::{MAPS, Named},
    },
};

use super::some;

/// Candidates that are listed.
const LISTED: usize = 8;

/// What there is instead of a name: `did you mean a or b?`, else a list.
#[must_use]
pub fn known(known: &Known) -> String {
    match known {
        Known::Near(names) => format!("did you mean {}?", names.join(" or ")),
        Known::All(names, 0) if names.is_empty() => "there are none".to_owned(),
        Known::All(names, 0) => format!("there are {}", names.join(", ")),
        Known::All(names, more) => format!("there are {} and {more} more", names.join(", ")),
    }
}

/// What there is instead of a name, out of all names.
pub fn remedy<'a>(wrong: &str, names: impl Iterator<Item = &'a str> + Clone) -> String {
    known(&Known::of(wrong, names))
}

/// `, did you mean a or b?`, where something is close.
fn near(names: &[String]) -> String {
    match names {
        [] => String::new(),
        names => format!(", did you mean {}?", names.join(" or ")),
    }
}

/// What one of a set is called.
#[must_use]
pub fn noun(set: Named) -> &'static str {
    set.noun()
}

/// Why a selector means nothing.
#[must_use]
pub fn selector(error: &SelectorError) -> String {
    let wrong = match &error.wrong {
        Wrong::NoJoin => "expected `and`, `or`, `except` or the end".to_owned(),
        Wrong::TooDeep => "too many parentheses within parentheses".to_owned(),
        Wrong::NoSet => "expected a set, such as startup(*) or third-party".to_owned(),
        Wrong::NoArgument(word) => format!("expected `(`, as in {word}(*)"),
        Wrong::Argument(word) => format!("`{word}` takes no argument"),
        Wrong::UnknownSet(word, names) => format!("there is no set `{word}`, {}", known(names)),
        Wrong::OpenQuote => "the quote is not closed".to_owned(),
        Wrong::NoName => "expected a name or a glob; `*` names all".to_owned(),
        Wrong::OpenParenthesis => "expected `)`".to_owned(),
        Wrong::ItemsJoined => {
            "`each` takes one set of names, filtered by `and` or `except`, not `or`".to_owned()
        }
        Wrong::NoItems => {
            "`each` begins with a set of names, such as chunk(*) or startup(*)".to_owned()
        }
    };
    format!("selector `{}` column {}: {wrong}", error.text, error.column)
}

/// Why a selection does not tell what was asked.
#[must_use]
pub fn lack(lack: &Lack) -> String {
    match lack {
        Lack::Name(name) => missing(name),
        Lack::Mark(mark) => unmarked(*mark).to_owned(),
    }
}

/// What a mark lacks.
#[must_use]
pub fn unmarked(mark: Unmarked) -> &'static str {
    match mark {
        Unmarked::Leftovers => {
            "`leftovers` is found in texts, and the record holds none; make it with --with-texts, \
             or name the build's folder"
        }
        Unmarked::NeverRan => {
            "`never-ran` is told by recordings of a browser; name them with --coverage FILE"
        }
    }
}

/// What is missing, and what is close.
#[must_use]
pub fn missing(missing: &Missing) -> String {
    let Missing { set, name, near: close, several, route_of, .. } = missing;
    if let Some(entry) = route_of {
        return format!(
            "no entry is called `{name}`: it is a route that {entry} opens; route({name}) is what \
             a visit of it fetches"
        );
    }
    if !several.is_empty() {
        return format!("`{name}` is the name of several chunks: {}", several.join(", "));
    }
    if *set == Named::Kind && name == MAPS {
        return "maps count in no set; a budget over kind(map) alone holds those that lie in the \
                folder"
            .to_owned();
    }
    format!("no {} is called `{name}`{}", noun(*set), near(close))
}

/// What is to be said where something is not found in a build whose owners are not all known.
#[must_use]
pub fn unseen(unattributed_percent: u64) -> String {
    match unattributed_percent {
        0 => String::new(),
        percent => format!(
            "; {percent}% of the script bytes are unattributed and may include it, which source maps would show"
        ),
    }
}

/// Why a name means no package or module.
#[must_use]
pub fn subject(error: &SubjectError) -> String {
    match error {
        SubjectError::Ambiguous { text, candidates } => {
            format!("`{text}` may be any of {}", some(candidates, LISTED))
        }
        SubjectError::Unknown { text, near: close, unattributed_percent } => format!(
            "no package or module is called `{text}`{}{}",
            near(close),
            unseen(*unattributed_percent)
        ),
        SubjectError::Missing { text, missing } => format!("selector `{text}`: {}", lack(missing)),
        SubjectError::Selector(error) => selector(error),
    }
}

/// Why a declaration cannot be told of.
#[must_use]
pub fn declaration(error: &DeclarationError) -> String {
    match error {
        DeclarationError::Module(error) => subject(error),
        DeclarationError::Several(name) => {
            format!("`{name}` is several modules, name one by its path")
        }
        DeclarationError::NoSource(path) => {
            format!("the source of {path} is not at hand, in which its declarations stand")
        }
        DeclarationError::Unknown { module, name, near: close } => {
            format!("{module} declares no `{name}` at its top{}", near(close))
        }
    }
}

/// Why two builds are not compared.
#[must_use]
pub fn compare(error: &CompareError) -> String {
    match error {
        CompareError::Targets { before, after, of } => format!(
            "{before} is for the {}, {after} for the {}: they are never subtracted",
            of.0.name(),
            of.1.name()
        ),
        CompareError::Encoders { coding, encoders } => {
            let ((before, before_level), (after, after_level)) = &**encoders;
            format!(
                "{coding} was taken by {before} level {before_level} before, and by {after} level {after_level} after: such sizes are never subtracted"
            )
        }
        CompareError::Measure { label, measure } => format!("{label} holds no {measure}"),
        CompareError::Precompressed => {
            "one of the builds counts precompressed copies and the other does not".to_owned()
        }
    }
}

/// Why nothing can be predicted.
#[must_use]
pub fn what_if(error: &WhatIfError) -> String {
    match error {
        WhatIfError::Root { change, subject, entry } => format!(
            "--{} {subject}: {entry} begins there, so that nothing would be left of it",
            change.name()
        ),
        WhatIfError::Visit { name, known: names } => {
            format!("--visits {name}: no entry or route is called that, {}", known(names))
        }
        WhatIfError::Within(why) => format!("--in: {}", lack(why)),
        WhatIfError::Selector(error) => format!("--in: {}", selector(error)),
        WhatIfError::NoEdges => {
            "no import graph is available for this build, so nothing can be predicted".to_owned()
        }
    }
}

/// Why budgets cannot be judged.
#[must_use]
pub fn gate(error: &GateError) -> String {
    format!("budget `{}`: {}", error.budget, selector(&error.source))
}

/// A word that is no kind of finding.
#[must_use]
pub fn unknown_kind(UnknownKind(name): &UnknownKind) -> String {
    let kinds = Kind::ALL.iter().map(|kind| kind.name());
    format!("there is no kind `{name}`, {}", remedy(name, kinds))
}

/// Why it is not told what of something a program reads.
#[must_use]
pub fn wide(why: &Wide) -> String {
    match why {
        Wide::NotAsked => "no importer of it is known".to_owned(),
        Wide::OtherWays => {
            "it is not imported by `import` of one file alone, so that not all uses of it are seen"
                .to_owned()
        }
        Wide::NoMembers => {
            "it gives out no object whose names are written out, or its source is not at hand"
                .to_owned()
        }
        Wide::Apart => "it exports its names one by one".to_owned(),
        Wide::Open => "a module uses it as a whole, so that any name of it may be read".to_owned(),
        Wide::Strange(name) => {
            format!("`{name}` is read of it, and what gives it that name is not seen")
        }
        Wide::NoPlaces => "no source map says which bytes of the build are its".to_owned(),
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;
    use uvlet_audit::select::{
        nearest::Known,
        selection::Missing,
        selector::Selector,
        words::{MAPS, Named},
    };

    use super::{known, missing, selector};

    #[rstest]
    #[case("", "selector `` column 1: expected a set, such as startup(*) or third-party")]
    #[case("own own", "selector `own own` column 5: expected `and`, `or`, `except` or the end")]
    #[case("startup", "selector `startup` column 8: expected `(`, as in startup(*)")]
    #[case("own(x)", "selector `own(x)` column 4: `own` takes no argument")]
    #[case(
        "own or sytles",
        "selector `own or sytles` column 8: there is no set `sytles`, did you mean styles?"
    )]
    fn selectors_that_mean_nothing(#[case] text: &str, #[case] sentence: &str) {
        let error = text.parse::<Selector>().map_err(|error| selector(&error));
        assert_eq!(error.err().as_deref(), Some(sentence));
    }

    #[test]
    fn what_there_is_instead() {
        let names = ["booking", "crew", "timetable"];
        let of = |wrong: &str| known(&Known::of(wrong, names.into_iter()));
        assert_eq!(of("bokings"), "did you mean booking?");
        assert_eq!(of("x"), "there are booking, crew, timetable");
        assert_eq!(known(&Known::of("x", std::iter::empty())), "there are none");
    }

    #[rstest]
    #[case(Named::Chunk, "c", None, "no chunk is called `c`")]
    #[case(Named::Startup, "tow", Some("two"), "no entry is called `tow`, did you mean two?")]
    #[case(
        Named::Kind,
        MAPS,
        None,
        "maps count in no set; a budget over kind(map) alone holds those that lie in the folder"
    )]
    fn names_that_are_missing(
        #[case] set: Named,
        #[case] name: &str,
        #[case] near: Option<&str>,
        #[case] sentence: &str,
    ) {
        let found = Missing {
            set,
            name: name.to_owned(),
            is_pattern: false,
            near: near.map(str::to_owned).into_iter().collect(),
            several: Vec::new(),
            route_of: None,
            at: 0,
        };
        assert_eq!(missing(&found), sentence);
    }
}
