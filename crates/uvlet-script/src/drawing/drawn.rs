//! What is drawn, as data.

/// The slot that everything stands in that has no other name.
pub const CHILDREN: &str = "default";

/// Something that is drawn.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Drawn {
    /// A component that is loaded on demand.
    Load {
        /// The first byte of the `import()`, or of what stands for it.
        at: u32,
        /// The export that is the component.
        name: String,
        /// What is put inside, by the name of the slot.
        given: Given,
    },
    /// A component of another script, or of another module of a table.
    Imported {
        /// What is asked for: a specifier, or a module's id.
        request: String,
        /// The export.
        name: String,
        /// What is put inside, by the name of the slot.
        given: Given,
    },
    /// What a component's user puts inside, by the name of the slot.
    Slot(String),
}

/// What is put inside a component, by the name of the slot.
pub type Given = Vec<(String, Vec<Drawn>)>;

/// A component that others can import: the module of a table that it is in, if any, and the export.
pub type Export = (Option<String>, String);

/// What a component that is nothing but another passes on to it.
pub(super) fn passed_on() -> Given {
    vec![(CHILDREN.to_owned(), vec![Drawn::Slot(CHILDREN.to_owned())])]
}

/// Puts what is given where a component draws it.
#[must_use]
pub fn fill(draws: Vec<Drawn>, given: &Given) -> Vec<Drawn> {
    let within = |inner: Given| -> Given {
        let filled = inner.into_iter().map(|(slot, drawn)| (slot, fill(drawn, given)));
        filled.collect()
    };
    let filled = draws.into_iter().flat_map(|drawn| match drawn {
        Drawn::Slot(name) => {
            let of_slot = given.iter().find(|(slot, _)| *slot == name);
            of_slot.map_or_else(Vec::new, |(_, drawn)| drawn.clone())
        }
        Drawn::Load { at, name, given: inner } => {
            vec![Drawn::Load { at, name, given: within(inner) }]
        }
        Drawn::Imported { request, name, given: inner } => {
            vec![Drawn::Imported { request, name, given: within(inner) }]
        }
    });
    filled.collect()
}
