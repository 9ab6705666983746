//! Budgets and waivers.

use uvlet_audit::{
    ask::gate::{
        budget::{Budget, Scope},
        limit::{Ceiling, LimitKind, Limits, Written},
        waiver::{About, Waiver},
    },
    select::selector::Selector,
};
use uvlet_record::sizes::Measure;
use uvlet_view::words::errors;

use super::{
    keys,
    reader::{Table, Wrong},
    size::{self, ValueError},
};

/// A budget; none if it is switched off.
pub fn budget(name: &str, table: &Table<'_>, measure: Measure) -> Result<Option<Budget>, Wrong> {
    let set: Vec<&str> = LimitKind::set().map(LimitKind::name).collect();
    table.only(&keys::names(&keys::budget()))?;
    if table.flag("off")?.unwrap_or(false) {
        return Ok(None);
    }
    let (key, scope) = scope(name, table)?;
    let limits = limits(table, LimitKind::set())?;
    let grows = limits.contains_key(&LimitKind::GrowAtMost);
    let at = |kind| limits.get(&kind).map(|ceiling| ceiling.of(0));
    match (&scope, at(LimitKind::AtMost), at(LimitKind::WarnAbove)) {
        (Scope::Absent(_), ..) if limits.is_empty() => {}
        (Scope::Absent(_), ..) => {
            return Err(table.wrong(&format!(
                "budget `{name}` forbids something with `absent`, which takes no limit"
            )));
        }
        _ if limits.is_empty() => {
            return Err(table.wrong(&format!("budget `{name}` has no limit; add {}", listed(&set))));
        }
        (Scope::Total(selector), ..) if selector.is_of_maps() && grows => {
            let message = "`kind(map)` takes no `grow_at_most`; forbid it, or set `at_most`";
            return Err(table.wrong_at("grow_at_most", message));
        }
        (Scope::Waste(kind), ..) if kind.is_found_in_texts() && grows => {
            let message = format!("`{}` takes no `grow_at_most`; set `at_most`", kind.name());
            return Err(table.wrong_at("grow_at_most", &message));
        }
        (Scope::Total(selector) | Scope::Each(selector), ..)
            if limits.contains_key(&LimitKind::RoundsAtMost)
                && !selector.text().trim().starts_with("startup(") =>
        {
            let message = "`rounds_at_most` is of startups; set it with each = \"startup(*)\"";
            return Err(table.wrong_at("rounds_at_most", message));
        }
        (Scope::Waste(_), ..) if limits.contains_key(&LimitKind::RoundsAtMost) => {
            let message = "`rounds_at_most` is of startups, not of waste";
            return Err(table.wrong_at("rounds_at_most", message));
        }
        (_, Some(at_most), Some(warn_above)) if warn_above > at_most => {
            return Err(table.wrong_at(
                "warn_above",
                "`warn_above` is over `at_most`, and could never warn before it breaks",
            ));
        }
        _ => {}
    }
    Ok(Some(Budget {
        name: name.to_owned(),
        scope,
        place: table.place(key),
        limits,
        measure: table.parsed("measure")?.unwrap_or(measure),
    }))
}

/// A waiver; none if its budget is one of `others`, which are not judged here.
pub fn waiver(
    table: &Table<'_>,
    budgets: &[Budget],
    others: &[&str],
) -> Result<Option<Waiver>, Wrong> {
    table.only(&keys::names(&keys::waiver()))?;
    let limits = limits(table, LimitKind::waivable())?;
    let within = table.selector("where")?;
    let about = match (table.string("budget")?, table.string("finding")?) {
        (Some(name), None) => {
            let names = budgets.iter().map(|budget| budget.name.as_str());
            let names = names.chain(others.iter().copied());
            let Some(budget) = budgets.iter().find(|budget| budget.name == name) else {
                if others.contains(&name) {
                    return Ok(None);
                }
                let message =
                    format!("no budget is called `{name}`, {}", errors::remedy(name, names));
                return Err(table.wrong_at("budget", &message));
            };
            if let Some(selector) = &within {
                if !matches!(budget.scope, Scope::Each(_)) {
                    let message = "`where` is for a budget with `each`; this one is held whole";
                    return Err(table.wrong_at("where", message));
                }
                selector.check_items().map_err(|error| {
                    let error = errors::selector(&error).replace("`each`", "`where`");
                    table.wrong_at("where", &error)
                })?;
            }
            let is_held = |kind: &LimitKind| budget.limits.contains_key(kind);
            if let Some(kind) = limits.keys().find(|kind| !is_held(kind)) {
                let key = kind.name();
                let message = format!("budget `{name}` has no `{key}` that this could waive");
                return Err(table.wrong_at(key, &message));
            }
            About::Budget { name: name.to_owned(), within }
        }
        (None, Some(id)) if within.is_none() => About::Finding(id.to_owned()),
        (None, Some(_)) => {
            return Err(table.wrong_at("where", "a finding is one thing, and takes no `where`"));
        }
        _ => return Err(table.wrong("a waiver names one `budget`, or one `finding`")),
    };
    if limits.is_empty() {
        return Err(table.wrong("a waiver has a ceiling: add `at_most`, or `grow_at_most`"));
    }
    let reason = table.string("reason")?.map(str::trim).filter(|reason| !reason.is_empty());
    let Some(reason) = reason else {
        return Err(table.wrong("a waiver says why: add `reason`"));
    };
    let Some(until) = table.date("until")? else {
        return Err(table.wrong("a waiver ends: add `until`, as in 2027-03-31"));
    };
    let reason = reason.to_owned();
    Ok(Some(Waiver { about, limits, reason, until }))
}

/// The ceilings of some kinds.
fn limits(table: &Table<'_>, kinds: impl Iterator<Item = LimitKind>) -> Result<Limits, Wrong> {
    let mut limits = Limits::new();
    for kind in kinds {
        let key = kind.name();
        let ceiling = match kind.written() {
            Written::Number => {
                let number = table.number(key, 0..=u32::MAX)?;
                number.map(|number| Ceiling::Number(number.into()))
            }
            _ => table.with(key, |text| ceiling(kind, text))?,
        };
        limits.extend(ceiling.map(|ceiling| (kind, ceiling)));
    }
    Ok(limits)
}

/// The ceiling of a kind of limit.
///
/// # Errors
/// What is wrong, and how it would be right.
pub fn ceiling(kind: LimitKind, text: &str) -> Result<Ceiling, ValueError> {
    match kind.written() {
        Written::Growth => growth(text),
        Written::Size => size::parse(text).map(Ceiling::Number),
        Written::Number | Written::Never => match text.parse() {
            Ok(number) => Ok(Ceiling::Number(number)),
            Err(_) => Err(ValueError::FileCount),
        },
    }
}

/// `a`, `b` or `c`.
fn listed(keys: &[&str]) -> String {
    let keys: Vec<String> = keys.iter().map(|key| format!("`{key}`")).collect();
    match keys.split_last() {
        Some((last, [])) => last.clone(),
        Some((last, others)) => format!("{} or {last}", others.join(", ")),
        None => String::new(),
    }
}

/// `2 kB`, or `1.5%`.
///
/// # Errors
/// What is wrong, and how it would be right.
pub fn growth(text: &str) -> Result<Ceiling, ValueError> {
    let Some(percent) = text.trim().strip_suffix('%') else {
        return size::parse(text).map(Ceiling::Number);
    };
    let wrong = || ValueError::Growth(text.to_owned());
    let (whole, part) = percent.trim().split_once('.').unwrap_or((percent.trim(), ""));
    let is_number = |digits: &str| digits.bytes().all(|digit| digit.is_ascii_digit());
    if whole.is_empty() || part.len() > 3 || !is_number(whole) || !is_number(part) {
        return Err(wrong());
    }
    let milli = format!("{whole}{part:0<3}").parse().map_err(|_| wrong())?;
    Ok(Ceiling::Milli(milli))
}

/// A share of a whole, `95%`, in thousandths of a percent.
///
/// # Errors
/// What is wrong, and how it would be right.
pub fn share(text: &str) -> Result<u64, ValueError> {
    match growth(text) {
        Ok(Ceiling::Milli(share)) if share <= 100_000 => Ok(share),
        _ => Err(ValueError::Share(text.to_owned())),
    }
}

/// What a budget is about, and the key that says it.
fn scope(name: &str, table: &Table<'_>) -> Result<(&'static str, Scope), Wrong> {
    type Make = fn(Selector) -> Scope;
    let keys: [(&str, Make); 3] =
        [("total", Scope::Total), ("each", Scope::Each), ("absent", Scope::Absent)];
    let mut found = Vec::new();
    for (key, scope) in keys {
        if let Some(selector) = table.selector(key)? {
            if key == "each" {
                selector
                    .check_items()
                    .map_err(|error| table.wrong_at(key, &errors::selector(&error)))?;
            }
            found.push((key, scope(selector)));
        }
    }
    if let Some(kind) =
        table.with("waste", |text| text.parse().map_err(|error| errors::unknown_kind(&error)))?
    {
        found.push(("waste", Scope::Waste(kind)));
    }
    let second = found.get(1).map(|(key, _)| *key);
    match (found.into_iter().next(), second) {
        (Some(first), None) => Ok(first),
        (Some((first, _)), Some(second)) => {
            Err(table
                .wrong(&format!("budget `{name}` has both `{first}` and `{second}`; keep one")))
        }
        (None, _) => Err(table.wrong(&format!(
            "budget `{name}` says nothing of what; add `total`, `each`, `absent` or `waste`"
        ))),
    }
}
