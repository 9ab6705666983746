//! What the command line changes of the budgets: which are judged, and against what.

use uvlet_audit::ask::gate::{
    budget::{Budget, Scope},
    limit::LimitKind,
    waiver::About,
};
use uvlet_view::words::errors;

use crate::{
    config::{self, Config, ValueError, listed::Setting},
    failure::Failure,
};

/// Leaves the budgets of some names, and what is waived of them.
pub fn only(apps: &mut [Config], names: &[String]) -> Result<(), Failure> {
    if names.is_empty() {
        return Ok(());
    }
    for name in names {
        known(apps, name).map_err(|why| Failure::Usage(format!("--only {name}: {why}")))?;
    }
    for config in apps {
        config.budgets.retain(|budget| names.contains(&budget.name));
        let budgets = &config.budgets;
        config.waivers.retain(|waiver| match &waiver.about {
            About::Budget { name, .. } => names.contains(name),
            About::Finding(_) => budgets.iter().any(|one| matches!(one.scope, Scope::Waste(_))),
        });
    }
    Ok(())
}

/// Why a budget cannot be chosen, or its limit not be set.
#[derive(Debug, thiserror::Error)]
enum AskedError {
    #[error("no budget is called `{name}`, {remedy}")]
    NoBudget { name: String, remedy: String },
    #[error("no limit is called `{name}`, {remedy}")]
    NoLimit { name: String, remedy: String },
    #[error("`{0}` forbids something, and takes no limit")]
    TakesNone(String),
    #[error("write it like `start.at_most=150 kB`")]
    Form,
    #[error(transparent)]
    Value(#[from] ValueError),
}

fn known(apps: &[Config], name: &str) -> Result<(), AskedError> {
    let names = apps.iter().flat_map(|config| &config.budgets).map(|budget| budget.name.as_str());
    match names.clone().any(|known| known == name) {
        true => Ok(()),
        false => {
            let remedy = errors::remedy(name, names);
            Err(AskedError::NoBudget { name: name.to_owned(), remedy })
        }
    }
}

/// Sets limits as if the settings said them.
pub fn limits(apps: &mut [Config], tried: &[String]) -> Result<(), Failure> {
    for text in tried {
        let wrong = |why: AskedError| Failure::Usage(format!("--try {text}: {why}"));
        let tried = Tried::read(text).map_err(wrong)?;
        known(apps, tried.name).map_err(wrong)?;
        for config in &mut *apps {
            let named = config.budgets.iter_mut().find(|budget| budget.name == tried.name);
            let Some(budget) = named else { continue };
            tried.set(budget).map_err(wrong)?;
            let key = format!("budget.{}.{}", tried.name, tried.key);
            let value = format!("{:?}", tried.value);
            match config.listed.iter_mut().find(|setting| setting.key == key) {
                Some(setting) => (setting.value, setting.from) = (value, None),
                None => {
                    let app = config.app.clone();
                    config.listed.push(Setting { app, key, value, from: None });
                }
            }
        }
    }
    Ok(())
}

/// `start.at_most=150 kB`.
struct Tried<'t> {
    name: &'t str,
    key: &'t str,
    value: &'t str,
}

impl<'t> Tried<'t> {
    fn read(text: &'t str) -> Result<Self, AskedError> {
        let written = || AskedError::Form;
        let (place, value) = text.split_once('=').ok_or_else(written)?;
        let (name, key) = place.trim().rsplit_once('.').ok_or_else(written)?;
        Ok(Self { name, key, value: value.trim() })
    }

    fn set(&self, budget: &mut Budget) -> Result<(), AskedError> {
        let Self { name, key, value } = *self;
        if matches!(budget.scope, Scope::Absent(_)) {
            return Err(AskedError::TakesNone(name.to_owned()));
        }
        let Some(kind) = LimitKind::set().find(|kind| kind.name() == key) else {
            let remedy = errors::remedy(key, LimitKind::set().map(LimitKind::name));
            return Err(AskedError::NoLimit { name: key.to_owned(), remedy });
        };
        budget.limits.insert(kind, config::ceiling(kind, value)?);
        Ok(())
    }
}
