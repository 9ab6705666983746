//! Budgets and waivers.

use uvlet_audit::{
    ask::gate::{
        budget::{Budget, Scope},
        waiver::{About, Waiver},
    },
    select::selector::Selector,
};
use uvlet_record::sizes::Measure;
use uvlet_view::words::errors;

use super::{
    Growth,
    reader::{Table, Wrong},
    size,
};

/// A budget; none if it is switched off.
pub fn budget(name: &str, table: &Table<'_>, measure: Measure) -> Result<Option<Budget>, Wrong> {
    table.only(&[
        "off",
        "total",
        "each",
        "absent",
        "waste",
        "at_most",
        "warn_above",
        "grow_at_most",
        "files_at_most",
        "measure",
    ])?;
    if table.flag("off")?.unwrap_or(false) {
        return Ok(None);
    }
    let (key, scope) = scope(name, table)?;
    let at_most = table.with("at_most", size::parse)?;
    let warn_above = table.with("warn_above", size::parse)?;
    let grow_at_most = table.with("grow_at_most", growth)?;
    let files_at_most = table.number("files_at_most", 0..=u32::MAX)?.map(u64::from);
    let has_others = grow_at_most.is_some() || files_at_most.is_some();
    match (&scope, at_most, warn_above) {
        (Scope::Absent(_), None, None) if !has_others => {}
        (Scope::Absent(_), ..) => {
            return Err(table.wrong(&format!(
                "budget `{name}` forbids something with `absent`, which takes no limit"
            )));
        }
        (_, None, None) if !has_others => {
            return Err(table.wrong(&format!(
                "budget `{name}` has no limit; add `at_most`, `warn_above`, `grow_at_most` or `files_at_most`"
            )));
        }
        (Scope::Total(selector), ..) if selector.is_of_maps() && grow_at_most.is_some() => {
            let message = "`kind(map)` takes no `grow_at_most`; forbid it, or set `at_most`";
            return Err(table.wrong_at("grow_at_most", message));
        }
        (Scope::Waste(kind), ..) if kind.is_found_in_texts() && grow_at_most.is_some() => {
            let message = format!("`{}` takes no `grow_at_most`; set `at_most`", kind.name());
            return Err(table.wrong_at("grow_at_most", &message));
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
        at_most,
        warn_above,
        grow_at_most,
        files_at_most,
        measure: table.parsed("measure")?.unwrap_or(measure),
    }))
}

/// A waiver; none if its budget is one of `others`, which are not judged here.
pub fn waiver(
    table: &Table<'_>,
    budgets: &[Budget],
    others: &[&str],
) -> Result<Option<Waiver>, Wrong> {
    table.only(&[
        "budget",
        "finding",
        "where",
        "at_most",
        "grow_at_most",
        "files_at_most",
        "reason",
        "until",
    ])?;
    let at_most = table.with("at_most", size::parse)?;
    let grow_at_most = table.with("grow_at_most", growth)?;
    let files_at_most = table.number("files_at_most", 0..=u32::MAX)?.map(u64::from);
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
            let limits = [
                ("at_most", at_most.is_some(), budget.at_most.is_some()),
                ("grow_at_most", grow_at_most.is_some(), budget.grow_at_most.is_some()),
                ("files_at_most", files_at_most.is_some(), budget.files_at_most.is_some()),
            ];
            if let Some((key, ..)) = limits.iter().find(|(_, has, is_held)| *has && !is_held) {
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
    if at_most.is_none() && grow_at_most.is_none() && files_at_most.is_none() {
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
    Ok(Some(Waiver { about, at_most, grow_at_most, files_at_most, reason, until }))
}

/// `2 kB`, or `1.5%`.
///
/// # Errors
/// What is wrong, and how it would be right.
pub fn growth(text: &str) -> Result<Growth, String> {
    let Some(percent) = text.trim().strip_suffix('%') else {
        return size::parse(text).map(Growth::Bytes);
    };
    let wrong = || format!("`{text}` is no growth; write it like `2 kB` or `1.5%`");
    let (whole, part) = percent.trim().split_once('.').unwrap_or((percent.trim(), ""));
    let is_number = |digits: &str| digits.bytes().all(|digit| digit.is_ascii_digit());
    if whole.is_empty() || part.len() > 3 || !is_number(whole) || !is_number(part) {
        return Err(wrong());
    }
    let milli = format!("{whole}{part:0<3}").parse().map_err(|_| wrong())?;
    Ok(Growth::Milli(milli))
}

/// A share of a whole, `95%`, in thousandths of a percent.
///
/// # Errors
/// What is wrong, and how it would be right.
pub fn share(text: &str) -> Result<u64, String> {
    match growth(text) {
        Ok(Growth::Milli(share)) if share <= 100_000 => Ok(share),
        _ => Err(format!("`{text}` is no share; write it like `95%`")),
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
