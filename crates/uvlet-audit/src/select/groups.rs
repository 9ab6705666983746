//! Named groups of bytes, each of which a selector says.

use crate::{
    lens::{Group, Lens},
    parts::sets::Sets,
    select::{
        evaluate::select,
        selection::Selection,
        selector::{Selector, SelectorError},
    },
};

/// Gives a look named groups; none of them sees another.
///
/// # Errors
/// When a selector cannot be evaluated.
pub fn with_groups<'r>(
    mut lens: Lens<'r>,
    groups: &[(String, Selector)],
) -> Result<Lens<'r>, SelectorError> {
    let group = |(name, selector): &(String, Selector)| {
        let Selection { cells, least, most, .. } = select(selector, &lens)?;
        Ok(Group { name: name.clone(), sets: Sets { cells, least, most } })
    };
    lens.groups = groups.iter().map(group).collect::<Result<_, SelectorError>>()?;
    Ok(lens)
}
