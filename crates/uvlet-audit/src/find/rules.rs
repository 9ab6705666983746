//! Rules of styles that match nothing: their classes, ids, names for data and elements stand in no page and no
//! script of the entries that load the style.

pub(crate) mod names;
pub(crate) mod sheet;

use std::{
    collections::{BTreeMap, BTreeSet},
    ops::Range,
};

use uvlet_record::{FileId, Kind as FileKind};

use crate::{
    find::{
        about::About,
        context::{Ground, has_pages, module_at},
        finding::{Bound, Found, PARTS, Part, PartText},
        rules::{
            names::{Names, Stands},
            sheet::{Need, Sheet, sheet},
        },
    },
    parts::spans::Spans,
};

/// Elements that are there though nobody writes them.
const IMPLICIT: [&str; 6] = ["html", "head", "body", "tbody", "colgroup", "slot"];

/// Characters of a rule that are shown.
const EXCERPT: usize = 160;

/// Rules of one owner.
#[derive(Default)]
struct Group {
    is_installed: bool,
    spans: Spans,
    rules: usize,
    parts: Vec<Part>,
    entries: BTreeSet<String>,
    unseen: BTreeSet<String>,
}

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let mut known: BTreeMap<BTreeSet<FileId>, Names> = BTreeMap::new();
    let mut groups: BTreeMap<String, Group> = BTreeMap::new();
    let mut counts: BTreeMap<String, (usize, usize)> = BTreeMap::new();
    for file in (0..record.files.len()).map(FileId::new) {
        if record.file(file).kind != FileKind::Style || ground.apart.contains(&file) {
            continue;
        }
        if !has_pages(ground.lens, file) {
            continue;
        }
        let (entries, sources) = loaded_by(ground, file);
        let unseen = elsewhere(ground, &sources);
        let Some(text) = ground.texts.emitted(file) else { continue };
        let Ok(text) = std::str::from_utf8(&text) else { continue };
        let names = known.entry(sources).or_insert_with_key(|files| read(ground, files));
        let sheet = sheet(text);
        let stands: Vec<Stands> =
            sheet.rules.iter().map(|rule| of_any(names, &rule.selectors)).collect();
        for (rule, stands) in sheet.rules.iter().zip(&stands) {
            let (name, _) = owner(ground, file, rule.range.start);
            let count = counts.entry(name).or_default();
            count.0 += 1;
            count.1 += usize::from(*stands == Stands::Perhaps);
        }
        for range in gone(&sheet, &stands) {
            let (name, is_installed) = owner(ground, file, range.start);
            let group = groups.entry(name).or_default();
            group.is_installed = is_installed;
            group.spans.add(file, range.start as u64..range.end as u64);
            group.entries.extend(entries.iter().cloned());
            group.unseen.extend(unseen.iter().cloned());
        }
        for (rule, _) in sheet.rules.iter().zip(&stands).filter(|(_, one)| **one == Stands::Nowhere)
        {
            let (name, _) = owner(ground, file, rule.range.start);
            let Some(group) = groups.get_mut(&name) else { continue };
            group.rules += 1;
            let start: String = text[rule.range.clone()].chars().take(EXCERPT).collect();
            group.parts.push(Part {
                name: start.split('{').next().unwrap_or_default().trim().to_owned(),
                emitted: rule.range.len() as u64,
                text: PartText::Excerpt(start),
                ..Part::default()
            });
        }
    }
    let found = groups.into_iter().map(|(name, mut group)| {
        group.parts.sort_by(|a, b| b.emitted.cmp(&a.emitted).then_with(|| a.name.cmp(&b.name)));
        group.parts.truncate(PARTS);
        let (all, perhaps) = counts.get(&name).copied().unwrap_or_default();
        Found {
            names: BTreeSet::from([name.clone()]),
            spans: group.spans.joined(),
            parts: group.parts,
            bound: Bound::AtMost,
            ..Found::of(About::UnusedRules {
                of: name,
                is_installed: group.is_installed,
                rules: group.rules,
                all,
                perhaps,
                entries: group.entries.into_iter().collect(),
                unseen: group.unseen.into_iter().collect(),
            })
        }
    });
    found.collect()
}

/// The entries that load a style, and the files that may name what it styles.
fn loaded_by(ground: &Ground<'_>, file: FileId) -> (Vec<String>, BTreeSet<FileId>) {
    let record = ground.record();
    let (mut names, mut sources) = (Vec::new(), BTreeSet::new());
    for (entry, reach) in record.entries.iter().zip(&ground.lens.reach) {
        if !reach.startup.contains(&file) && !reach.deferred.contains(&file) {
            continue;
        }
        names.push(entry.name.clone());
        let is_page = |id: &FileId| entry.pages.contains(&record.file(*id).path);
        sources.extend((0..record.files.len()).map(FileId::new).filter(is_page));
        sources.extend(reach.startup.iter().copied().chain(reach.deferred.iter()));
    }
    // A load that cannot be followed may bring what no entry is known to load.
    let is_placed = |id: &FileId| {
        let mut all = ground.lens.reach.iter();
        all.any(|reach| reach.startup.contains(id) || reach.deferred.contains(id))
    };
    sources.extend((0..record.files.len()).map(FileId::new).filter(|id| !is_placed(id)));
    let names_things =
        |kind: FileKind| matches!(kind, FileKind::Page | FileKind::Script | FileKind::Data);
    sources.retain(|id| names_things(record.file(*id).kind));
    (names, sources)
}

/// What these ask of other hosts, where scripts may name anything.
fn elsewhere(ground: &Ground<'_>, files: &BTreeSet<FileId>) -> BTreeSet<String> {
    let asked = files.iter().flat_map(|id| &ground.record().file(*id).elsewhere);
    let hosts = asked.filter(|one| !one.url.is_empty()).map(|one| {
        let rest = one.url.split_once("//").map_or(one.url.as_str(), |(_, rest)| rest);
        rest.split(['/', '?', '#']).next().unwrap_or(rest).to_owned()
    });
    hosts.collect()
}

fn read(ground: &Ground<'_>, files: &BTreeSet<FileId>) -> Names {
    let record = ground.record();
    let mut names = Names::default();
    for file in files {
        if let Some(text) = ground.texts.emitted(*file)
            && let Ok(text) = std::str::from_utf8(&text)
        {
            names.add(text, record.file(*file).kind == FileKind::Script);
        }
    }
    names
}

/// Whether a rule may match: one of its selectors must, with all that it needs.
fn of_any(names: &Names, lists: &[Vec<Need>]) -> Stands {
    let of_list = |list: &Vec<Need>| {
        let of_need = |need: &Need| match need {
            Need::Name(name) => names.stands(name),
            Need::Element(name) if IMPLICIT.contains(&name.as_str()) => Stands::Written,
            Need::Element(name) => names.stands(name),
            Need::Any(lists) => of_any(names, lists),
        };
        list.iter().map(of_need).min().unwrap_or(Stands::Written)
    };
    lists.iter().map(of_list).max().unwrap_or(Stands::Written)
}

/// What goes of a style: rules, and at-rules of which all goes.
fn gone(sheet: &Sheet, stands: &[Stands]) -> Vec<Range<usize>> {
    let mut stays = vec![false; sheet.blocks.len()];
    let mut holds = vec![false; sheet.blocks.len()];
    for (rule, stands) in sheet.rules.iter().zip(stands) {
        let mut at = rule.within;
        while let Some(block) = at {
            holds[block] = true;
            stays[block] |= *stands != Stands::Nowhere;
            at = sheet.blocks[block].1;
        }
    }
    let goes = |block: usize| holds[block] && !stays[block];
    let blocks = (0..sheet.blocks.len()).filter(|&block| goes(block));
    let blocks = blocks.filter(|&block| !sheet.blocks[block].1.is_some_and(goes));
    let mut gone: Vec<Range<usize>> = blocks.map(|block| sheet.blocks[block].0.clone()).collect();
    let rules = sheet.rules.iter().zip(stands);
    let rules = rules
        .filter(|(rule, stands)| **stands == Stands::Nowhere && !rule.within.is_some_and(goes));
    gone.extend(rules.map(|(rule, _)| rule.range.clone()));
    gone.sort_by_key(|range| range.start);
    gone
}

/// Whose a rule is: a package, a module, or the file by the name of its chunk; and whether that is installed.
fn owner(ground: &Ground<'_>, file: FileId, at: usize) -> (String, bool) {
    let record = ground.record();
    match module_at(record, file, at as u64) {
        Some(module) => match record.package_of(module).filter(|package| !package.own) {
            Some(package) => (package.name.clone(), true),
            None => (record.module(module).path.clone(), false),
        },
        None => {
            let chunk = ground.lens.chunk_of(file).map(|chunk| chunk.name.clone());
            (chunk.unwrap_or_else(|| record.file(file).path.clone()), false)
        }
    }
}
