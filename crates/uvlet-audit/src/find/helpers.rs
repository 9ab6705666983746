//! One function written into many modules: a compiler's helpers, and what people copy by hand.
//!
//! Functions are compared by what they do, whatever their names are ([`uvlet_script::shapes`]); such a
//! one depends on nothing around it, so that one of them could serve all.

use std::{
    collections::{BTreeMap, BTreeSet, HashMap},
    ops::Range,
};

use uvlet_record::{FileId, ModuleId, Segment};

use crate::{
    find::{
        about::About,
        context::{Ground, module_at},
        finding::{Bound, Found, Part, PartText},
        liveness::{follow::segment_at, sources::Sources},
    },
    parts::spans::Spans,
};

/// Modules from which on a function is one that many hold.
const MODULES: usize = 3;

/// Bytes that all copies but one must come to.
const LEAST: u64 = 300;

/// Characters of emitted text that are shown of each.
const EXCERPT: usize = 160;

/// A function in its place.
struct Copy {
    file: FileId,
    module: ModuleId,
    range: Range<u64>,
    head: Option<u64>,
}

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let mut groups: HashMap<u64, Vec<Copy>> = HashMap::new();
    for (file, shapes) in ground.shapes() {
        for helper in &shapes.helpers {
            let range = helper.range.start as u64..helper.range.end as u64;
            let Some(module) = module_at(record, *file, range.start) else { continue };
            if module_at(record, *file, range.end - 1) == Some(module) {
                let head = helper.head.map(|head| head as u64);
                let copy = Copy { file: *file, module, range, head };
                groups.entry(helper.digest).or_default().push(copy);
            }
        }
    }
    // Versions of one package hold the same functions, which another finding says.
    let inner = |id: ModuleId| {
        let path = record.module(id).path.as_str();
        path.rsplit_once("node_modules/").map_or(path, |(_, inner)| inner)
    };
    groups.retain(|_, copies| {
        let modules: BTreeSet<&str> = copies.iter().map(|copy| inner(copy.module)).collect();
        modules.len() >= MODULES && spare(copies) >= LEAST
    });
    let mut groups: Vec<Vec<Copy>> = groups.into_values().collect();
    groups.sort_by_key(|copies| {
        (std::cmp::Reverse(spare(copies)), copies[0].file, copies[0].range.start)
    });
    let mut told: BTreeMap<FileId, Vec<Range<u64>>> = BTreeMap::new();
    // Those that the same modules hold are one finding.
    let mut by_modules: BTreeMap<BTreeSet<ModuleId>, Vec<Vec<Copy>>> = BTreeMap::new();
    for copies in groups {
        // What stands in a function that was told of is told with it.
        let is_told = |copy: &Copy| {
            told.get(&copy.file).is_some_and(|told| {
                told.iter().any(|one| one.start <= copy.range.start && copy.range.end <= one.end)
            })
        };
        if copies.iter().all(is_told) {
            continue;
        }
        for copy in &copies {
            told.entry(copy.file).or_default().push(copy.range.clone());
        }
        let modules = copies.iter().map(|copy| copy.module).collect();
        by_modules.entry(modules).or_default().push(copies);
    }
    let sources = Sources::new(ground.texts);
    by_modules
        .iter()
        .map(|(modules, groups)| helper_finding(ground, &sources, modules, groups))
        .collect()
}

/// What all copies but the largest come to.
fn spare(copies: &[Copy]) -> u64 {
    let bytes = || copies.iter().map(|copy| copy.range.end - copy.range.start);
    bytes().sum::<u64>() - bytes().max().unwrap_or(0)
}

fn helper_finding(
    ground: &Ground<'_>,
    sources: &Sources<'_>,
    modules: &BTreeSet<ModuleId>,
    groups: &[Vec<Copy>],
) -> Found {
    let record = ground.record();
    let mut origins: BTreeMap<FileId, Vec<Segment>> = BTreeMap::new();
    for copy in groups.iter().flatten() {
        let read = || ground.texts.origins(copy.file).unwrap_or_default();
        origins.entry(copy.file).or_insert_with(read);
    }
    let mut spans = Spans::default();
    let mut parts: Vec<Part> = Vec::new();
    let mut names: Vec<String> = Vec::new();
    for copies in groups {
        let length = |copy: &Copy| copy.range.end - copy.range.start;
        let kept =
            copies.iter().max_by_key(|copy| (length(copy), std::cmp::Reverse(copy.range.start)));
        let kept = kept.map(|copy| (copy.file, copy.range.start));
        for copy in copies.iter().filter(|copy| Some((copy.file, copy.range.start)) != kept) {
            spans.add(copy.file, copy.range.clone());
        }
        let here: Vec<Part> =
            copies.iter().map(|copy| part(ground, sources, copy, &origins[&copy.file])).collect();
        let named: BTreeSet<&String> =
            here.iter().map(|part| &part.name).filter(|name| !name.is_empty()).collect();
        names.extend(named.first().map(|name| (*name).clone()));
        parts.extend(here);
    }
    let is_own = |id: &ModuleId| !record.module(*id).third_party;
    parts.truncate(crate::find::finding::PARTS);
    Found {
        names: modules.iter().map(|&id| record.module(id).path.clone()).collect(),
        spans: spans.joined(),
        parts,
        bound: Bound::AtMost,
        ..Found::of(About::CopiedHelper {
            names,
            functions: groups.len(),
            modules: modules.len(),
            is_own: modules.iter().any(is_own),
        })
    }
}

fn part(ground: &Ground<'_>, sources: &Sources<'_>, copy: &Copy, origins: &[Segment]) -> Part {
    let text = ground.texts.emitted(copy.file).unwrap_or_default();
    let at = |byte: u64| usize::try_from(byte).unwrap_or(usize::MAX).min(text.len());
    let start = String::from_utf8_lossy(&text[at(copy.range.start)..at(copy.range.end)]);
    let name = copy.head.and_then(|head| {
        let place = segment_at(origins, head)?.origin?;
        Some(sources.declaration(place)?.name)
    });
    Part {
        name: name.unwrap_or_default(),
        module: Some(ground.record().module(copy.module).path.clone()),
        emitted: copy.range.end - copy.range.start,
        text: PartText::Excerpt(start.chars().take(EXCERPT).collect()),
        ..Part::default()
    }
}
