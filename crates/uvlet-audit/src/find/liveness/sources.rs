//! What sources declare at their tops, by place.

use std::{
    collections::HashMap,
    sync::{Arc, Mutex},
};

use uvlet_record::{ModuleId, Place, Texts};
use uvlet_script::declarations::{SourceDeclaration, declared_in_source};

use crate::parts::lines::{At, Lines};

/// Declarations of a module.
#[derive(Default)]
struct Places {
    /// By where their names stand, and where they begin.
    exact: HashMap<At, SourceDeclaration>,
    /// Names of variables with where they begin and end, in order.
    variables: Vec<(At, At, String)>,
}

/// Sources that were looked at.
pub struct Sources<'t> {
    texts: &'t dyn Texts,
    known: Mutex<HashMap<ModuleId, Arc<Places>>>,
}

impl<'t> Sources<'t> {
    pub fn new(texts: &'t dyn Texts) -> Self {
        Self { texts, known: Mutex::default() }
    }

    /// What is declared at a place: there its name stands, or it begins.
    pub fn declaration(&self, place: Place) -> Option<SourceDeclaration> {
        self.places(place.module)?.exact.get(&(place.line, place.column)).cloned()
    }

    /// The variable in whose declaration a place stands.
    pub fn around(&self, place: Place) -> Option<String> {
        let places = self.places(place.module)?;
        let at = (place.line, place.column);
        let before = places.variables.partition_point(|(start, ..)| *start <= at);
        let (_, end, name) = places.variables.get(before.checked_sub(1)?)?;
        (at < *end).then(|| name.clone())
    }

    fn places(&self, module: ModuleId) -> Option<Arc<Places>> {
        let known = self.known.lock().ok()?.get(&module).cloned();
        if known.is_some() {
            return known;
        }
        let places = Arc::new(self.read(module));
        self.known.lock().ok()?.insert(module, Arc::clone(&places));
        Some(places)
    }

    fn read(&self, module: ModuleId) -> Places {
        let Some(text) = self.texts.source(module) else { return Places::default() };
        let Ok(declared) = declared_in_source(&text) else { return Places::default() };
        let lines = Lines::new(&text);
        let mut places = Places::default();
        for one in declared {
            if one.is_variable {
                let (start, end) = (lines.place(one.range.start), lines.place(one.range.end));
                places.variables.push((start, end, one.name.clone()));
            }
            places.exact.insert(lines.place(one.start), one.clone());
            places.exact.insert(lines.place(one.head.start), one);
        }
        places.variables.sort();
        places
    }
}
