//! Findings: what each is, what it comes from, and what to do.

use super::quote;
use uvlet_audit::{
    bundlers::Sharing,
    find::{
        about::{
            About, Awaited, DeadCause, Declared, Deferrable, Edition, Effect, Environment, Family,
            Install, Smaller, Twin,
        },
        finding::{Finding, NeverRan, PartText},
        patch::Does,
    },
};
use uvlet_record::Kind as FileKind;

use super::{counted, doubts::loading_helper, some};

/// Declarations, and functions, that a title names.
const NAMED: usize = 3;
/// Names of a package that a title lists.
const USED: usize = 4;

/// What a finding is, in a line.
#[must_use]
pub fn title(about: &About) -> String {
    match about {
        About::CopiedModule { modules, kin, files, of, .. } => {
            let kind = if *of == FileKind::Style { "style" } else { "script" };
            let modules = counted(*modules, "module");
            format!("{modules} of {kin} in {}", counted(files.len(), kind))
        }
        About::CopiedText { kept, again, parts } => {
            format!("{again} repeats {} of {kept}", counted(*parts, "part"))
        }
        About::SeveralVersions { name, versions, installs } => {
            let versions = match versions.len() {
                0 => String::new(),
                1 => format!(", all {}", versions.first().map_or("", String::as_str)),
                _ => format!(": {}", versions.iter().cloned().collect::<Vec<_>>().join(", ")),
            };
            format!("{name} is installed in {}{versions}", counted(installs.len(), "place"))
        }
        About::TwinPackages { share, twins: [small, large], modules, .. } => format!(
            "{share}% of the code of {} is in {}, too ({} of it)",
            twin(small),
            twin(large),
            counted(*modules, "module")
        ),
        About::CopiedHelper { names, functions, modules, .. } => {
            let shown: Vec<String> =
                names.iter().take(NAMED).map(|name| format!("`{name}`")).collect();
            let more = match functions - shown.len() {
                0 => String::new(),
                more if shown.is_empty() => counted(more, "function"),
                more => format!(" and {more} more"),
            };
            let verb = if *functions == 1 { "is" } else { "are" };
            format!("{}{more} {verb} written into {modules} modules", shown.join(", "))
        }
        About::WholeFamily { family: what, folder, files, .. } => {
            format!("{} of {} in {folder} are all included", counted(*files, "file"), family(*what))
        }
        About::UnreachedInEntry { file, entries, mostly } => format!(
            "{file} brings {} code that it does not use, mostly {mostly}",
            entries.join(", ")
        ),
        About::WrongEnvironment(environment) => match environment {
            Environment::Development(package) => {
                format!("{} is included in its development edition", package.name)
            }
            Environment::StandIn(package) => {
                format!("{} replaces what Node.js has", package.name)
            }
            Environment::Server(package) => format!("{} is a package for servers", package.name),
            Environment::Switch { variable, places, .. } => format!(
                "process.env.{variable} is still read at run time in {}",
                counted(*places, "place")
            ),
        },
        About::BarelyUsed { of, used, names, .. } => {
            let shown: Vec<&str> = used.iter().take(USED).map(String::as_str).collect();
            let more = match used.len() - shown.len() {
                0 => String::new(),
                more => format!(" and {more} more"),
            };
            format!(
                "{} of {names} names of {of} {} used: {}{more}",
                used.len(),
                if used.len() == 1 { "is" } else { "are" },
                shown.join(", ")
            )
        }
        About::BarrelPull { barrel, modules, entries, mostly } => {
            let (named, who) = match entries.as_slice() {
                [only] => (only.clone(), only.as_str()),
                [few @ .., last] if few.len() < 3 => {
                    (format!("{} and {last}", few.join(", ")), "they")
                }
                several => (format!("{} entries", several.len()), "they"),
            };
            let never = if who == "they" { "never use" } else { "never uses" };
            format!(
                "{barrel} pulls {} into {named} that {who} {never}, mostly {}",
                counted(*modules, "module"),
                mostly.as_deref().unwrap_or("own code")
            )
        }
        About::Deferrable(Deferrable { what, others, .. }) => {
            let more = match others {
                0 => String::new(),
                more => format!(", with {} that only it needs", counted(*more, "module")),
            };
            format!("{what} could load on demand{more}")
        }
        About::DeadDeclaration { declared, .. } => declarations(declared, "that nothing uses"),
        About::UnusedRules { of, rules, all, .. } => format!(
            "{rules} of {} of {of} match nothing in pages and scripts",
            counted(*all, "CSS rule")
        ),
        About::KeptForEffect { declared, .. } => {
            declarations(declared, "that nothing uses, kept for a possible effect")
        }
    }
}

fn declarations(Declared { of, number, names }: &Declared, which: &str) -> String {
    let shown: Vec<&str> = names.iter().take(NAMED).map(String::as_str).collect();
    let more = match names.len() - shown.len() {
        0 => String::new(),
        more => format!(" and {more} more"),
    };
    format!("{} of {of} {which}: {}{more}", counted(*number, "declaration"), shown.join(", "))
}

fn twin(twin: &Twin) -> String {
    match twin.edition {
        Some(Edition::Es) => format!("{} in ES modules", twin.name),
        Some(Edition::CommonJs) => format!("{} in CommonJS form", twin.name),
        None => twin.name.clone(),
    }
}

fn family(family: Family) -> &'static str {
    match family {
        Family::Languages => "languages",
        Family::Icons => "icons",
        Family::Themes => "themes",
        Family::Fallbacks => "fallbacks for old browsers",
        Family::Grammars => "grammars",
        Family::Texts => "texts",
    }
}

/// What a finding comes from, with what recordings saw of it.
#[must_use]
pub fn cause(finding: &Finding) -> String {
    let cause = cause_of(&finding.about);
    match finding.never_ran {
        Some(NeverRan { percent, recordings }) => {
            format!("{cause}; {percent}% of it never ran in {}", counted(recordings, "recording"))
        }
        None => cause,
    }
}

fn cause_of(about: &About) -> String {
    match about {
        About::CopiedModule { files, in_one_visit, .. } => {
            let shown: Vec<&str> = files.iter().take(3).map(String::as_str).collect();
            let more = if files.len() > 3 { " and others" } else { "" };
            let names = format!("{}{more}", shown.join(", "));
            match in_one_visit {
                true => format!("{names} each hold them, and one page loads several of these"),
                false => format!(
                    "{names} each hold them: who loads several of these files downloads them again"
                ),
            }
        }
        About::CopiedText { .. } => {
            "both scripts were given a copy; without a source map it is not known of what"
                .to_owned()
        }
        About::SeveralVersions { installs, .. } => {
            installs.iter().map(install).collect::<Vec<_>>().join("; ")
        }
        About::TwinPackages { twins, .. } => twins.each_ref().map(asked_for).join("; "),
        About::CopiedHelper { .. } => {
            "each module has its own copy (compiler helper or copy-paste)".to_owned()
        }
        About::WholeFamily { index, .. } => match index {
            Some(index) => format!("{index} imports all of them"),
            None => "an index that left no bytes imports all of them".to_owned(),
        },
        About::UnreachedInEntry { file, .. } => format!(
            "the bundler put into {file} what several entries load, and not all of them need all of it"
        ),
        About::WrongEnvironment(environment) => match environment {
            Environment::Development(package)
            | Environment::StandIn(package)
            | Environment::Server(package) => match &package.asked_by {
                Some(path) => format!("{path} imports it"),
                None => "its importer is not known".to_owned(),
            },
            Environment::Switch { first, .. } => {
                format!("the build did not replace it, first in {first}")
            }
        },
        About::BarelyUsed { of, modules, is_module, .. } => {
            let form = match is_module {
                true => "gives out one object that holds all names",
                false => "is in CommonJS form",
            };
            format!("{of} {form}, which bundlers take whole: {} of it", counted(*modules, "module"))
        }
        About::BarrelPull { barrel, .. } => format!(
            "{barrel} re-exports all of them, and the bundler may not leave out what could have an effect"
        ),
        About::Deferrable(Deferrable { askers, events, active, .. }) => {
            let mut events: Vec<String> = events.iter().map(awaited).collect();
            events.sort();
            let active = active.as_ref().map(|(first, more)| {
                let others = match more {
                    0 => String::new(),
                    more => format!(" and of {}", counted(*more, "more module")),
                };
                format!(
                    "; evaluating {first}{others} may do something, which would happen later, too"
                )
            });
            format!(
                "{} uses it only in code that waits for {}{}",
                askers.join(" and "),
                events.join(" or "),
                active.unwrap_or_default()
            )
        }
        About::DeadDeclaration { why, bailout, is_believed, .. } => {
            let why = match why {
                DeadCause::Members => {
                    "they are members of a module that is used as one object, which is kept whole"
                }
                DeadCause::AddedTo => "statements that only add to them keep them",
                DeadCause::Imported => "other scripts import them and do not use them",
                DeadCause::Unseen => {
                    "the bundler did not see that only they use each other, or was not asked to look"
                }
            };
            let mut parts = vec![why.to_owned()];
            parts.extend(bailout.as_ref().map(|note| format!("the bundler says: {note}")));
            let believed = "a comment in their source says that what they call has no effect";
            parts.extend(is_believed.then(|| believed.to_owned()));
            parts.join("; ")
        }
        About::UnusedRules { perhaps, entries, unseen, .. } => {
            let mut said = vec![format!(
                "no page or script of {} contains their classes, ids or elements",
                some(entries, USED)
            )];
            said.extend(match perhaps {
                0 => None,
                1 => Some("1 more rule may match a name that is composed at run time".to_owned()),
                more => Some(format!("{more} more may match names that are composed at run time")),
            });
            if !unseen.is_empty() {
                said.push(format!("what {} serves was not seen", some(unseen, USED)));
            }
            said.join("; ")
        }
        About::KeptForEffect { effects, .. } => {
            let mut effects: Vec<&str> = effects.iter().map(|one| effect(*one)).collect();
            effects.sort_unstable();
            format!("evaluating them involves {}, which may have an effect", effects.join(" or "))
        }
    }
}

/// What evaluating something is that may have an effect.
fn effect(effect: Effect) -> &'static str {
    match effect {
        Effect::Call => "a call",
        Effect::Construct => "a constructor",
        Effect::PropertyRead => "a property read",
        Effect::Assignment => "an assignment",
        Effect::StaticCode => "code of a class that runs as it is made",
        Effect::Decorator => "a decorator",
        Effect::Spread => "a spread",
        Effect::Conversion => "a conversion of a value",
        Effect::Global => "a global name",
        Effect::Wait => "a wait",
    }
}

fn install(Install { place, version, asked_by }: &Install) -> String {
    let version = version.as_ref().map(|version| format!(" ({version})")).unwrap_or_default();
    match asked_by {
        Some(path) => format!("{place}{version} for {path}"),
        None => format!("{place}{version}"),
    }
}

fn asked_for(one: &Twin) -> String {
    let name = twin(one);
    match &one.asked_by {
        Some(path) => format!("{path} imports {name}"),
        None => format!("the importer of {name} is not known"),
    }
}

/// What a use waits for.
#[must_use]
pub fn awaited(awaited: &Awaited) -> String {
    match awaited {
        Awaited::Event(name) => format!("`{name}`"),
        Awaited::State(name) => format!("the state `{name}`, which is false at first"),
        Awaited::Route(path) => format!("a visit of /{path}"),
        Awaited::Given(name) => format!("the event that `{name}` gives it to"),
    }
}

/// What to do about a finding.
#[must_use]
pub fn advice(about: &About) -> String {
    match about {
        About::CopiedModule { sharing, .. } => match sharing {
            Sharing::Splitting => "`splitting: true` with `format: \"esm\"` puts what entries share into scripts of its own",
            Sharing::AllChunks => "`optimization.splitChunks.chunks: \"all\"` puts what entries share into chunks of its own; small shared modules it leaves where they are",
            Sharing::Other => "let the bundler put what entries share into files of its own",
        }
        .to_owned(),
        About::CopiedText { .. } => "build with source maps to see which package it is, then let the bundler put what both share into a file of its own".to_owned(),
        About::SeveralVersions { name, .. } => format!(
            "ask for one version everywhere (`npm dedupe`, or `overrides` in package.json), and \
             update what holds {name} back"
        ),
        About::TwinPackages { twins: [small, large], is_part: true, .. } => format!(
            "{large} was published with that code inside; a newer version or another edition of it may \
             import {small} instead",
            large = twin(large),
            small = twin(small)
        ),
        About::TwinPackages { twins: [_, large], .. } => match large.edition {
            Some(_) => "have one edition serve both: an `import` in the place of each `require`, or an alias of the one to the other".to_owned(),
            None => format!("let {} serve both, or alias the one to the other", twin(large)),
        },
        About::CopiedHelper { is_own: true, .. } => "let the compiler import its helpers from one package (`importHelpers` of TypeScript, the runtime transform of Babel), or keep the function in one module that the others import".to_owned(),
        About::CopiedHelper { is_own: false, .. } => "the packages were published so: use editions of them for newer browsers, or newer versions".to_owned(),
        About::WholeFamily { family: what, languages_wanted, .. } => {
            let are_known = *what == Family::Languages && *languages_wanted;
            let config = match what {
                Family::Languages if !languages_wanted => {
                    "; `languages = [\"en\", …]` in uvlet.toml says which are wanted"
                }
                _ => "",
            };
            let those =
                if are_known { "those that are wanted" } else { "those that are used" };
            format!(
                "import the part of the package that has no {}, and {those} by their own paths{config}",
                family(*what)
            )
        }
        About::UnreachedInEntry { .. } => "let the bundler cut the file by the entries that need its parts, or load the part on demand".to_owned(),
        About::WrongEnvironment(environment) => match environment {
            Environment::Development(_) => "build with NODE_ENV set to production, and with the `production` condition for packages",
            Environment::StandIn(_) => "use what browsers have, or a package made for browsers, where it is imported",
            Environment::Server(_) => "keep the code that imports it out of what browsers load",
            Environment::Switch { variable, .. } if variable == "NODE_ENV" => "let the bundler replace `process.env.NODE_ENV` by \"production\": what it guards then leaves",
            Environment::Switch { variable, .. } => {
                return format!(
                    "let the bundler replace `process.env.{variable}` by its value: browsers have no `process`, and code that reads it fails"
                );
            }
        }
        .to_owned(),
        About::BarelyUsed { of, used, smaller, .. } => match smaller {
            Smaller::OwnPaths { request, files } => format!(
                "import each name by its own path, as from `{request}`: {}",
                counted(*files, "file")
            ),
            Smaller::Names => format!(
                "import the names themselves, as in `import {{ {} }} from \"{of}\"`: bundlers leave out the others",
                used.first().map(String::as_str).unwrap_or_default()
            ),
            Smaller::OwnExports => {
                "export each name by itself, and import the names: bundlers leave out what nobody imports".to_owned()
            }
            Smaller::Unknown => format!(
                "import each by its own path where {of} has one, or use an edition of it in ES modules"
            ),
        },
        About::BarrelPull { .. } => "import the names from the modules that declare them, or let the package say `sideEffects` in its package.json".to_owned(),
        About::Deferrable(Deferrable { what, request, first_load, .. }) => {
            let first_load = first_load.as_ref().map(|(entry, loading)| format!(
                "; {entry} loads nothing on demand yet; the first load adds {}",
                loading_helper(*loading)
            ));
            format!(
                "load it where it is used, with `import(\"{request}\")`; `uvlet what-if --defer {}` predicts the saving{}",
                quote::shell(what),
                first_load.unwrap_or_default()
            )
        }
        About::DeadDeclaration { why: DeadCause::Members, .. } => "import the names that are used, not the object of all of them (`import { a }`, not `import * as`), or from the paths of their own modules".to_owned(),
        About::DeadDeclaration { is_installed: true, .. } => {
            "turn on the bundler's tree shaking and minifier; if they are on, a newer version of the package may shake better".to_owned()
        }
        About::DeadDeclaration { .. } => {
            "take them out of the source, or turn on the bundler's tree shaking and minifier".to_owned()
        }
        About::UnusedRules { of, is_installed: true, .. } => format!(
            "import the parts of {of} that are used, where it has them; keep rules for HTML that a server or an editor adds later"
        ),
        About::UnusedRules { .. } => {
            "take them out; keep rules for HTML that a server or an editor adds later".to_owned()
        }
        About::KeptForEffect { is_installed: true, .. } => {
            "import from the paths of single modules where the package has them, or report it to its authors: they could mark what has no effect `/*#__PURE__*/`".to_owned()
        }
        About::KeptForEffect { effects, .. } => {
            match effects.contains(&Effect::Call) || effects.contains(&Effect::Construct) {
                true => "take them out; where the call does nothing else, mark it `/*#__PURE__*/` and the bundler takes it out".to_owned(),
                false => "take them out if nothing else comes of it".to_owned(),
            }
        }
    }
}

/// What is shown of a part.
#[must_use]
pub fn part_text(text: &PartText) -> String {
    match text {
        PartText::Excerpt(text) => text.clone(),
        PartText::Copy { here, there, of } => format!(
            "bytes {} to {} are bytes {} to {} of {of}",
            here.start, here.end, there.start, there.end
        ),
    }
}

/// What an edit does.
#[must_use]
pub fn does(does: &Does) -> String {
    match does {
        Does::DeclaresEffects { scripts, package, active } => {
            let active = if active.is_empty() { "none".to_owned() } else { active.join(", ") };
            format!(
                "says which of the {scripts} scripts of {package} do something as they are evaluated: {active}"
            )
        }
        Does::ImportsFromDeclarers => "imports from the modules that declare the names".to_owned(),
    }
}
