//! How the code is laid out: no two files of a crate need each other, and the crate that computes says
//! nothing to people.

use std::{
    collections::{BTreeMap, BTreeSet},
    fs,
    path::{Path, PathBuf},
};

use proc_macro2::{TokenStream, TokenTree};
use rstest::rstest;
use syn::visit::{self, Visit};

/// A module by its path from the crate's root.
type Module = Vec<String>;

/// What a file names, and the texts in it.
#[derive(Default)]
struct Said {
    paths: BTreeSet<Vec<String>>,
    texts: Vec<String>,
}

impl Said {
    fn used(&mut self, tree: &syn::UseTree, before: &[String]) {
        let with = |name: &syn::Ident| [before, &[name.to_string()]].concat();
        match tree {
            syn::UseTree::Path(path) => self.used(&path.tree, &with(&path.ident)),
            syn::UseTree::Name(name) => {
                self.paths.insert(with(&name.ident));
            }
            syn::UseTree::Rename(name) => {
                self.paths.insert(with(&name.ident));
            }
            syn::UseTree::Glob(_) => {
                self.paths.insert(before.to_vec());
            }
            syn::UseTree::Group(group) => {
                group.items.iter().for_each(|item| self.used(item, before));
            }
        }
    }

    fn token(&mut self, tokens: TokenStream) {
        let mut is_attribute = false;
        for token in tokens {
            let is_next = matches!(&token, TokenTree::Punct(mark) if mark.as_char() == '#');
            match token {
                TokenTree::Group(group) if !is_attribute => self.token(group.stream()),
                TokenTree::Group(_) => {}
                TokenTree::Literal(literal) => {
                    if let Ok(text) = syn::parse_str::<syn::LitStr>(&literal.to_string()) {
                        self.texts.push(text.value());
                    }
                }
                TokenTree::Ident(_) | TokenTree::Punct(_) => {}
            }
            is_attribute = is_next;
        }
    }
}

impl<'a> Visit<'a> for Said {
    fn visit_item(&mut self, item: &'a syn::Item) {
        let is_test = |attributes: &[syn::Attribute]| {
            let is_cfg = |one: &&syn::Attribute| one.path().is_ident("cfg");
            attributes
                .iter()
                .filter(is_cfg)
                .any(|one| one.parse_args::<syn::Path>().is_ok_and(|path| path.is_ident("test")))
        };
        match item {
            syn::Item::Mod(module) if is_test(&module.attrs) => {}
            syn::Item::Use(used) => self.used(&used.tree, &[]),
            _ => visit::visit_item(self, item),
        }
    }

    fn visit_path(&mut self, path: &'a syn::Path) {
        // One name alone is a thing at hand, whatever module is called so.
        if path.segments.len() > 1 {
            self.paths.insert(path.segments.iter().map(|part| part.ident.to_string()).collect());
        }
        visit::visit_path(self, path);
    }

    fn visit_macro(&mut self, called: &'a syn::Macro) {
        // What only a developer sees is no sentence to people.
        let is_check = ["debug_assert", "matches"].iter().any(|check| called.path.is_ident(check));
        if !is_check {
            self.token(called.tokens.clone());
        }
    }

    fn visit_expr_method_call(&mut self, call: &'a syn::ExprMethodCall) {
        // Nor is the reason why something cannot fail.
        if call.method != "expect" {
            return visit::visit_expr_method_call(self, call);
        }
        self.visit_expr(&call.receiver);
    }

    fn visit_lit_str(&mut self, text: &'a syn::LitStr) {
        self.texts.push(text.value());
    }

    fn visit_attribute(&mut self, _: &'a syn::Attribute) {}
}

/// What each file of a crate says, by its module.
fn crate_said(name: &str) -> BTreeMap<Module, Said> {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("..").join(name).join("src");
    let mut said = BTreeMap::new();
    let mut open: Vec<PathBuf> = vec![root.clone()];
    while let Some(path) = open.pop() {
        if path.is_dir() {
            open.extend(fs::read_dir(&path).unwrap().map(|entry| entry.unwrap().path()));
            continue;
        }
        let is_code = path.extension().is_some_and(|ending| ending == "rs");
        let is_test = path.file_stem().is_some_and(|stem| stem == "tests");
        if !is_code || is_test {
            continue;
        }
        let short = path.strip_prefix(&root).unwrap().with_extension("");
        let mut module: Module =
            short.iter().map(|part| part.to_str().unwrap().to_owned()).collect();
        if matches!(module[0].as_str(), "lib" | "main") {
            module.clear();
        }
        let mut one = Said::default();
        one.visit_file(&syn::parse_file(&fs::read_to_string(&path).unwrap()).unwrap());
        said.insert(module, one);
    }
    said
}

/// The modules that a module needs, besides itself.
fn needs(module: &Module, said: &BTreeMap<Module, Said>) -> BTreeSet<Module> {
    let is_child =
        |name: &String| said.contains_key(&[&module[..], std::slice::from_ref(name)].concat());
    let mut needed = BTreeSet::new();
    for path in &said[module].paths {
        let ups = path.iter().take_while(|part| *part == "super").count();
        let begins = match path[0].as_str() {
            "crate" => Module::new(),
            "super" => module[..module.len().saturating_sub(ups)].to_vec(),
            "self" => module.clone(),
            _ if is_child(&path[0]) => module.clone(),
            _ => continue,
        };
        let rest = match path[0].as_str() {
            "crate" | "self" => &path[1..],
            _ => &path[ups..],
        };
        let mut found = begins;
        for part in rest {
            let next = [&found[..], std::slice::from_ref(part)].concat();
            if !said.contains_key(&next) {
                break;
            }
            found = next;
        }
        needed.insert(found);
    }
    needed.remove(module);
    needed
}

#[rstest]
#[case("uvlet-ledger", 10)]
#[case("uvlet-script", 20)]
#[case("uvlet-record", 10)]
#[case("uvlet-read", 80)]
#[case("uvlet-audit", 80)]
#[case("uvlet-view", 30)]
#[case("uvlet-forge", 3)]
#[case("uvlet", 30)]
fn no_two_files_need_each_other(#[case] name: &str, #[case] at_least: usize) {
    let said = crate_said(name);
    assert!(said.len() > at_least, "{} files", said.len());
    let mut left: BTreeMap<&Module, BTreeSet<Module>> =
        said.keys().map(|module| (module, needs(module, &said))).collect();
    assert!(left.values().any(|needed| !needed.is_empty()));
    // What needs nothing that is left is in no circle.
    loop {
        let known: BTreeSet<Module> = left.keys().map(|module| (*module).clone()).collect();
        let before = left.len();
        left.retain(|_, needed| needed.iter().any(|one| known.contains(one)));
        if left.len() == before {
            break;
        }
    }
    // Nor is what nothing that is left needs.
    loop {
        let needed: BTreeSet<Module> = left.values().flatten().cloned().collect();
        let before = left.len();
        left.retain(|module, _| needed.contains(*module));
        if left.len() == before {
            break;
        }
    }
    assert!(left.is_empty(), "files in circles: {:#?}", left.keys());
}

/// Three words of small letters beside each other, one of which only joins others.
fn is_sentence(text: &str) -> bool {
    const JOINING: [&str; 16] = [
        "a", "an", "and", "are", "for", "has", "in", "is", "no", "not", "of", "or", "that", "the",
        "to", "with",
    ];
    let words: Vec<&str> = text.split(' ').collect();
    words.windows(3).any(|three| {
        let is_word = |word: &&str| {
            let word = word.trim_end_matches([',', ';', ':', '.']);
            !word.is_empty() && word.bytes().all(|byte| byte.is_ascii_lowercase())
        };
        three.iter().all(is_word) && three.iter().any(|word| JOINING.contains(word))
    })
}

/// Errors say what they are by their type, as all errors do: those texts are attributes.
#[rstest]
#[case("uvlet-record")]
#[case("uvlet-script")]
#[case("uvlet-read")]
#[case("uvlet-audit")]
fn what_computes_holds_no_sentence(#[case] name: &str) {
    assert!(is_sentence("{name} is not of this build"));
    assert!(!is_sentence("output: { codeSplitting: { groups: ["));
    let said = crate_said(name);
    let texts = said.iter().flat_map(|(module, said)| {
        let texts = said.texts.iter().filter(|text| is_sentence(text));
        texts.map(move |text| format!("{}: {text}", module.join("::")))
    });
    assert_eq!(texts.collect::<Vec<_>>(), Vec::<String>::new());
}
