//! A folder of many like siblings that one index draws in as a whole: locales, languages, icons,
//! themes, polyfills.
//!
//! A barrel of which a program takes many names by name is no such index: what of it is shipped is
//! what was asked for.

use std::collections::{BTreeMap, BTreeSet};

use uvlet_record::{CellId, EdgeKind, ModuleFormat, ModuleId, Used};

use crate::{
    find::{
        about::{About, Family},
        context::Ground,
        finding::{Bound, Found},
    },
    select::overlap::cells_of_modules,
};

/// Siblings from which on a folder may be a family.
const SIBLINGS: usize = 8;

/// Folders whose files are alike by their name.
const FOLDERS: [&str; 14] = [
    "locale",
    "locales",
    "lang",
    "langs",
    "language",
    "languages",
    "i18n",
    "l10n",
    "translations",
    "icons",
    "themes",
    "styles",
    "polyfills",
    "grammars",
];

pub fn find(ground: &Ground<'_>) -> Vec<Found> {
    let record = ground.record();
    let cells = cells_of_modules(record, &ground.apart);
    let mut folders: BTreeMap<&str, Vec<ModuleId>> = BTreeMap::new();
    for &id in cells.keys() {
        if let Some((folder, _)) = record.module(id).path.rsplit_once('/') {
            folders.entry(folder).or_default().push(id);
        }
    }
    let mut found = Vec::new();
    for (folder, siblings) in folders.into_iter().filter(|(_, ids)| ids.len() >= SIBLINGS) {
        let Some(family) = family_kind(ground, folder, &siblings) else { continue };
        let index = index(ground, &siblings);
        match index {
            // Own code that lists them means them.
            Some(index) if !record.module(index).third_party => continue,
            Some(index) if !may_hand_on(ground, index) => {}
            None if family != Family::Languages || !is_of_one_package(ground, &siblings) => {
                continue;
            }
            _ if takes_by_name(ground, siblings[0], siblings.len()) => continue,
            _ => {}
        }
        let is_wanted = |id: &ModuleId| family == Family::Languages && is_wanted(ground, *id);
        let mut siblings = siblings;
        siblings.retain(|id| Some(*id) != index);
        let others: Vec<ModuleId> = siblings.iter().copied().filter(|id| !is_wanted(id)).collect();
        if others.is_empty()
            || (family == Family::Languages && !ground.languages.is_empty() && others.len() < 2)
        {
            continue;
        }
        let known = family == Family::Languages && !ground.languages.is_empty();
        let owned = others.iter().flat_map(|id| cells[id].iter().copied());
        let about = About::WholeFamily {
            family,
            folder: folder.to_owned(),
            files: siblings.len(),
            index: index.map(|index| record.module(index).path.clone()),
            languages_wanted: !ground.languages.is_empty(),
        };
        found.push(Found {
            names: [folder.to_owned()].into(),
            cells: owned.collect::<Vec<CellId>>().into_iter().collect(),
            bound: if known { Bound::Exact } else { Bound::AtMost },
            ..Found::of(about)
        });
    }
    found
}

/// What a folder's files are, if they are a family: by the folder's name, or by theirs.
fn family_kind(ground: &Ground<'_>, folder: &str, siblings: &[ModuleId]) -> Option<Family> {
    let record = ground.record();
    let stems = || siblings.iter().map(|&id| stem(&record.module(id).path));
    let languages = stems().filter(|stem| is_language(stem)).count();
    if languages * 10 >= siblings.len() * 7 {
        return Some(Family::Languages);
    }
    let name = folder.rsplit('/').next().unwrap_or(folder);
    let is_of_polyfills = name == "modules" && folder.contains("core-js");
    if !is_of_polyfills && !FOLDERS.contains(&name) {
        return None;
    }
    Some(match name {
        "icons" => Family::Icons,
        "themes" | "styles" => Family::Themes,
        "polyfills" | "modules" => Family::Fallbacks,
        "language" | "languages" | "grammars" | "lang" | "langs" => Family::Grammars,
        _ => Family::Texts,
    })
}

/// The name of a file without the endings that scripts and data have.
fn stem(path: &str) -> &str {
    const ENDINGS: [&str; 10] =
        ["js", "mjs", "cjs", "ts", "json", "min", "esm", "umd", "es", "module"];
    let mut name = path.rsplit('/').next().unwrap_or(path);
    while let Some((stem, ending)) = name.rsplit_once('.') {
        // `es.js` is a script for Spanish, `da.es.js` one in modules for Danish.
        if !ENDINGS.contains(&ending) {
            break;
        }
        name = stem;
    }
    name
}

/// Whether a name is that of a language, as `da`, `pt-BR` and `zh_hans` are (BCP 47: a primary subtag of
/// ISO 639-1, or of the few of ISO 639-2 that libraries have, with a script or region).
fn is_language(stem: &str) -> bool {
    let mut parts = stem.split(['-', '_']);
    let first = parts.next().unwrap_or_default();
    let is_alphabetic = |part: &str| part.bytes().all(|byte| byte.is_ascii_alphabetic());
    // A script, a region, or how a language is written: `tlh`, `latn`, `BR`, `419`, `valencia`.
    let is_rest = |part: &str| match part.len() {
        2 | 4..=8 => is_alphabetic(part),
        3 => part.bytes().all(|byte| byte.is_ascii_digit()),
        _ => false,
    };
    let (second, third) = (parts.next(), parts.next());
    LANGUAGES.split(',').any(|language| language == first)
        && second.is_none_or(is_rest)
        && third.is_none_or(is_rest)
        && parts.next().is_none()
}

/// Primary subtags of languages.
const LANGUAGES: &str = "aa,ab,ae,af,ak,am,an,ar,as,av,ay,az,ba,be,bg,bh,bi,bm,bn,bo,br,bs,ca,ce,ch,co,cr,cs,cu,cv,cy,da,de,\
    dv,dz,ee,el,en,eo,es,et,eu,fa,ff,fi,fj,fo,fr,fy,ga,gd,gl,gn,gu,gv,ha,he,hi,ho,hr,ht,hu,hy,hz,ia,id,\
    ie,ig,ii,ik,in,io,is,it,iu,iw,ja,ji,jv,ka,kg,ki,kj,kk,kl,km,kn,ko,kr,ks,ku,kv,kw,ky,la,lb,lg,li,ln,\
    lo,lt,lu,lv,mg,mh,mi,mk,ml,mn,mr,ms,mt,my,na,nb,nd,ne,ng,nl,nn,no,nr,nv,ny,oc,oj,om,or,os,pa,pi,pl,\
    ps,pt,qu,rm,rn,ro,ru,rw,sa,sc,sd,se,sg,sh,si,sk,sl,sm,sn,so,sq,sr,ss,st,su,sv,sw,ta,te,tg,th,ti,tk,\
    tl,tn,to,tr,ts,tt,tw,ty,ug,uk,ur,uz,ve,vi,vo,wa,wo,xh,yi,yo,za,zh,zu,ast,bel,ber,ces,ckb,cmn,csb,\
    dsb,fil,fur,gom,gsw,haw,hsb,kab,kmr,lld,mai,mfe,nds,pap,scn,sme,szl,tet,tlh,tzl,tzm,vec,yue";

fn is_wanted(ground: &Ground<'_>, id: ModuleId) -> bool {
    let stem = stem(&ground.record().module(id).path).to_ascii_lowercase().replace('_', "-");
    ground.languages.iter().any(|wanted| {
        let wanted = wanted.to_ascii_lowercase().replace('_', "-");
        stem == wanted || stem.split('-').next() == Some(wanted.as_str())
    })
}

/// The module that asks for nearly all siblings, itself none of them by its kind.
fn index(ground: &Ground<'_>, siblings: &[ModuleId]) -> Option<ModuleId> {
    let mut asked: BTreeMap<ModuleId, BTreeSet<ModuleId>> = BTreeMap::new();
    for &id in siblings {
        for edge in ground.network.askers(id).filter(|edge| !edge.kind.is_deferred()) {
            asked.entry(edge.from).or_default().insert(id);
        }
    }
    let (index, drawn) = asked.into_iter().max_by_key(|(_, asked)| asked.len())?;
    // Siblings build on each other here and there, and the index may lie among them.
    let others = siblings.iter().filter(|id| **id != index).count();
    (drawn.len() * 10 >= others * 8).then_some(index)
}

/// Whether siblings are of an installed package, and nobody outside asks for any of them.
fn is_of_one_package(ground: &Ground<'_>, siblings: &[ModuleId]) -> bool {
    let record = ground.record();
    let package = record.module(siblings[0]).package;
    let is_inside = |id: ModuleId| record.module(id).package == package;
    package.is_some()
        && record.module(siblings[0]).third_party
        && siblings
            .iter()
            .all(|&id| is_inside(id) && ground.network.askers(id).all(|edge| is_inside(edge.from)))
}

/// Whether the index may give the siblings' names on to others, instead of using them itself.
fn may_hand_on(ground: &Ground<'_>, index: ModuleId) -> bool {
    let Some(text) = ground.texts.source(index) else { return true };
    let mut exports =
        text.match_indices("export").map(|(at, word)| text[at + word.len()..].trim_start());
    exports.any(|rest| rest.starts_with(['*', '{']))
}

/// Whether those outside the package of one take so many names of it that siblings may have been
/// asked for one by one, or it cannot be told what they take.
fn takes_by_name(ground: &Ground<'_>, one: ModuleId, siblings: usize) -> bool {
    let record = ground.record();
    let package = record.module(one).package;
    let inside = |id: ModuleId| record.module(id).package == package;
    let edges = record.edges.iter().filter(|edge| inside(edge.to) && !inside(edge.from));
    // Files that are asked for by their own paths may all be called `default`.
    let mut names: BTreeSet<(ModuleId, &str)> = BTreeSet::new();
    for edge in edges.filter(|edge| !edge.kind.is_deferred()) {
        match &edge.names {
            Some(taken) => names.extend(taken.iter().map(|name| (edge.to, name.as_str()))),
            None if let Some(Used::Names(used)) = &record.module(edge.to).used => {
                names.extend(used.iter().map(|name| (edge.to, name.as_str())));
            }
            // What is required comes as a whole, whoever takes what of it.
            None if edge.kind == EdgeKind::Require => {}
            None if record.module(edge.to).format == Some(ModuleFormat::CommonJs) => {}
            None => return true,
        }
    }
    names.len() * 2 >= siblings
}
