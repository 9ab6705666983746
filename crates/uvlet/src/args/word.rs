//! Words of a closed list, which the library declares once: what each is called, and what it means.

use clap::builder::{PossibleValue, PossibleValuesParser, TypedValueParser};
use strum::{EnumMessage, VariantArray};

/// Takes any word of a list.
pub fn word<T>() -> impl TypedValueParser<Value = T>
where
    T: VariantArray + EnumMessage + Into<&'static str> + Clone + Copy + Send + Sync + 'static,
{
    one_of(T::VARIANTS)
}

/// Takes some words of a list.
pub fn one_of<T>(words: &'static [T]) -> impl TypedValueParser<Value = T>
where
    T: EnumMessage + Into<&'static str> + Clone + Copy + Send + Sync + 'static,
{
    let listed = words.iter().map(|word| {
        let help = word.get_documentation().unwrap_or_default();
        PossibleValue::new((*word).into()).help(help.strip_suffix('.').unwrap_or(help))
    });
    PossibleValuesParser::new(listed.collect::<Vec<_>>()).try_map(move |text| {
        let named = |word: &&T| Into::<&'static str>::into(**word) == text;
        words.iter().find(named).copied().ok_or("is none of the words")
    })
}
