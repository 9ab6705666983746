//! The JSON form of webpack-style stats, as far as it is read.
//!
//! These files reach hundreds of megabytes, most of it reasons and texts. So everything borrows
//! from the file, reasons are folded while they are read, and what repeats (`chunks[].modules`) or
//! is only wanted now and then stays raw JSON.

use std::{borrow::Cow, fmt, marker::PhantomData};

use serde::{
    Deserialize, Deserializer,
    de::{MapAccess, SeqAccess, Visitor},
};
use serde_json::value::RawValue;

/// `./a.js` of `./a.js + 12 modules`.
pub fn whole(name: &str) -> &str {
    match name.strip_suffix(" modules").or(name.strip_suffix(" module")) {
        Some(rest) => match rest.rsplit_once(" + ") {
            Some((name, count)) if count.bytes().all(|b| b.is_ascii_digit()) => name,
            _ => name,
        },
        None => name,
    }
}

/// A string that borrows where nothing is escaped in it.
#[derive(Deserialize, Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[serde(transparent)]
pub struct Text<'a>(#[serde(borrow)] pub Cow<'a, str>);

#[derive(Deserialize, Default)]
#[serde(rename_all = "camelCase", default)]
pub struct Json<'a> {
    #[serde(borrow)]
    pub version: Option<Text<'a>>,
    #[serde(borrow)]
    pub rspack_version: Option<Text<'a>>,
    #[serde(borrow)]
    pub output_path: Option<Text<'a>>,
    #[serde(borrow)]
    pub assets: Option<Vec<Asset<'a>>>,
    #[serde(borrow)]
    pub chunks: Option<Vec<Chunk<'a>>>,
    #[serde(borrow, default, deserialize_with = "telling")]
    pub modules: Option<Vec<Module<'a>>>,
    pub filtered_modules: Option<u64>,
    #[serde(borrow)]
    pub entrypoints: Option<Groups<'a>>,
    #[serde(borrow)]
    pub named_chunk_groups: Option<Groups<'a>>,
    #[serde(borrow)]
    pub children: Option<Vec<Json<'a>>>,
    pub errors_count: Option<u64>,
    #[serde(borrow)]
    pub errors: Option<Vec<&'a RawValue>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
pub struct Asset<'a> {
    #[serde(borrow)]
    pub name: Option<Text<'a>>,
    pub size: Option<f64>,
    #[serde(borrow, default)]
    pub chunks: Option<Vec<&'a RawValue>>,
    #[serde(borrow)]
    pub info: Option<AssetInfo<'a>>,
    /// Members, where this is a group of assets.
    #[serde(borrow, default)]
    pub children: Option<Vec<Asset<'a>>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
pub struct AssetInfo<'a> {
    /// The module that it is a copy of, relative to the project.
    #[serde(borrow)]
    pub source_filename: Option<Text<'a>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
pub struct Chunk<'a> {
    #[serde(borrow)]
    pub id: Option<&'a RawValue>,
    #[serde(borrow)]
    pub names: Option<Vec<Text<'a>>>,
    #[serde(borrow)]
    pub files: Option<Vec<Text<'a>>>,
    #[serde(borrow)]
    pub auxiliary_files: Option<Vec<Text<'a>>>,
    #[serde(borrow)]
    pub origins: Option<Vec<Origin<'a>>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
pub struct Origin<'a> {
    #[serde(borrow)]
    pub module_name: Option<Text<'a>>,
    #[serde(borrow)]
    pub request: Option<Text<'a>>,
    #[serde(borrow)]
    pub loc: Option<Text<'a>>,
}

/// Named groups of chunks in the order written.
pub struct Groups<'a>(pub Vec<(Text<'a>, Group<'a>)>);

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
pub struct Group<'a> {
    #[serde(borrow)]
    pub chunks: Option<Vec<&'a RawValue>>,
    #[serde(borrow)]
    pub assets: Option<Vec<GroupAsset<'a>>>,
}

/// An asset of a group: an object today, a plain name in older versions.
#[derive(Deserialize)]
#[serde(untagged)]
pub enum GroupAsset<'a> {
    Object {
        #[serde(borrow)]
        name: Text<'a>,
    },
    Name(#[serde(borrow)] Text<'a>),
}

impl GroupAsset<'_> {
    pub fn name(&self) -> &str {
        match self {
            Self::Object { name } | Self::Name(name) => &name.0,
        }
    }
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
pub struct Module<'a> {
    #[serde(borrow)]
    pub identifier: Option<Text<'a>>,
    #[serde(borrow)]
    pub name: Option<Text<'a>>,
    #[serde(borrow)]
    pub name_for_condition: Option<Text<'a>>,
    #[serde(borrow)]
    pub module_type: Option<Text<'a>>,
    #[serde(borrow)]
    pub r#type: Option<Text<'a>>,
    #[serde(borrow)]
    pub id: Option<&'a RawValue>,
    pub size: Option<f64>,
    #[serde(borrow)]
    pub chunks: Option<Vec<&'a RawValue>>,
    pub post_order_index: Option<i64>,
    #[serde(borrow)]
    pub reasons: Option<Reasons<'a>>,
    #[serde(borrow)]
    pub provided_exports: Option<&'a RawValue>,
    #[serde(borrow)]
    pub used_exports: Option<&'a RawValue>,
    #[serde(borrow)]
    pub optimization_bailout: Option<&'a RawValue>,
    #[serde(borrow)]
    pub source: Option<&'a RawValue>,
    /// Modules merged into this one.
    #[serde(borrow, default, deserialize_with = "telling")]
    pub modules: Option<Vec<Module<'a>>>,
    pub filtered_modules: Option<u64>,
    /// Members, where this is a group of modules.
    #[serde(borrow, default, deserialize_with = "telling")]
    pub children: Option<Vec<Module<'a>>>,
    pub filtered_children: Option<u64>,
}

/// A list of modules without those that say nothing, but for the first: `{}` takes two bytes in a file
/// and hundreds in memory.
fn telling<'de: 'a, 'a, D: Deserializer<'de>>(
    deserializer: D,
) -> Result<Option<Vec<Module<'a>>>, D::Error> {
    struct Telling<'a>(PhantomData<&'a ()>);
    impl<'de: 'a, 'a> Visitor<'de> for Telling<'a> {
        type Value = Option<Vec<Module<'a>>>;

        fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
            formatter.write_str("modules")
        }

        fn visit_unit<E>(self) -> Result<Self::Value, E> {
            Ok(None)
        }

        fn visit_seq<A: SeqAccess<'de>>(self, mut list: A) -> Result<Self::Value, A::Error> {
            let mut modules: Vec<Module<'a>> = Vec::new();
            let mut has_empty = false;
            while let Some(module) = list.next_element::<Module<'a>>()? {
                let is_empty = module.name.is_none()
                    && module.identifier.is_none()
                    && module.name_for_condition.is_none()
                    && module.children.is_none()
                    && module.modules.is_none()
                    && module.filtered_children.is_none();
                if !is_empty || !std::mem::replace(&mut has_empty, true) {
                    modules.push(module);
                }
            }
            Ok(Some(modules))
        }
    }
    deserializer.deserialize_any(Telling(PhantomData))
}

/// Why a module is there, each reason once.
#[derive(Debug, Default)]
pub struct Reasons<'a>(pub Vec<Reason<'a>>);

#[derive(Debug, PartialEq, Eq)]
pub struct Reason<'a> {
    /// The module that asks; none for an entry.
    pub from: Option<Text<'a>>,
    /// The same by its identifier, where its name stands for several.
    pub identifier: Option<Text<'a>>,
    pub r#type: Text<'a>,
    pub request: Option<Text<'a>>,
    /// Name of the entry, for an entry.
    pub entry: Option<Text<'a>>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct RawReason<'a> {
    #[serde(borrow)]
    resolved_module: Option<Text<'a>>,
    #[serde(borrow)]
    resolved_module_identifier: Option<Text<'a>>,
    #[serde(borrow)]
    module_identifier: Option<Text<'a>>,
    #[serde(borrow)]
    module_name: Option<Text<'a>>,
    #[serde(borrow)]
    r#type: Option<Text<'a>>,
    #[serde(borrow)]
    user_request: Option<Text<'a>>,
    active: Option<bool>,
    #[serde(borrow)]
    loc: Option<Text<'a>>,
    /// Members, where this is a group of reasons.
    #[serde(borrow)]
    children: Option<Reasons<'a>>,
}

impl<'de: 'a, 'a> Deserialize<'de> for Reasons<'a> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        struct Fold<'a>(PhantomData<&'a ()>);
        impl<'de: 'a, 'a> Visitor<'de> for Fold<'a> {
            type Value = Reasons<'a>;

            fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
                formatter.write_str("reasons")
            }

            fn visit_seq<A: SeqAccess<'de>>(self, mut list: A) -> Result<Reasons<'a>, A::Error> {
                let mut reasons: Vec<Reason<'a>> = Vec::new();
                while let Some(raw) = list.next_element::<RawReason<'a>>()? {
                    // A connection that is not active was optimised away.
                    if raw.active == Some(false) {
                        continue;
                    }
                    if let Some(members) = raw.children {
                        reasons.extend(members.0);
                        continue;
                    }
                    let r#type = raw.r#type.unwrap_or(Text(Cow::Borrowed("")));
                    let from = raw.resolved_module.or(raw.module_name);
                    let entry = raw.loc.filter(|_| from.is_none());
                    // A name that stands for several does not say which of them asks.
                    let stands_for_several =
                        from.as_ref().is_some_and(|name| whole(&name.0) != name.0);
                    let identifier = raw.resolved_module_identifier.or(raw.module_identifier);
                    let identifier = identifier.filter(|_| stands_for_several);
                    let request = raw.user_request;
                    let reason = Reason { from, identifier, r#type, request, entry };
                    // One importer says the same for each name it uses, in a row.
                    if reasons.last() != Some(&reason) {
                        reasons.push(reason);
                    }
                }
                Ok(Reasons(reasons))
            }
        }
        deserializer.deserialize_seq(Fold(PhantomData))
    }
}

impl<'de: 'a, 'a> Deserialize<'de> for Groups<'a> {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        struct InOrder<'a>(PhantomData<&'a ()>);
        impl<'de: 'a, 'a> Visitor<'de> for InOrder<'a> {
            type Value = Groups<'a>;

            fn expecting(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
                formatter.write_str("chunk groups by name")
            }

            fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<Groups<'a>, A::Error> {
                let mut groups = Vec::new();
                while let Some(group) = map.next_entry()? {
                    groups.push(group);
                }
                Ok(Groups(groups))
            }
        }
        deserializer.deserialize_map(InOrder(PhantomData))
    }
}

/// An id as text: ids are numbers, strings or null.
pub fn id_text(raw: &RawValue) -> Option<String> {
    match raw.get() {
        "null" | "\"\"" => None,
        text if text.starts_with('"') => serde_json::from_str(text).ok(),
        text => Some(text.to_owned()),
    }
}

pub(super) fn has_output(stats: &Json<'_>) -> bool {
    stats.assets.is_some() || stats.chunks.is_some() || stats.modules.is_some()
}

/// Whether a child compilation is a build of its own rather than a plugin's part of its parent.
pub(super) fn is_own_build(parent: &Json<'_>, child: &Json<'_>) -> bool {
    !has_output(parent) || child.output_path != parent.output_path
}
