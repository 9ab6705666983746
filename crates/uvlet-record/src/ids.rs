//! Dense indices, each of which only fits its own list.

/// Declares a dense index that only fits its own list.
macro_rules! index {
    ($(#[$doc:meta])* $name:ident) => {
        $(#[$doc])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, serde::Serialize, serde::Deserialize)]
        #[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
        #[serde(transparent)]
        pub struct $name(pub usize);

        impl $name {
            /// The index of a place in its list.
            #[must_use]
            pub fn new(at: usize) -> Self {
                Self(at)
            }

            /// The place in its list.
            #[must_use]
            pub fn at(self) -> usize {
                self.0
            }
        }
    };
}

index!(
    /// Index into `Record::cells`.
    CellId
);

index!(
    /// Index into `Record::files`.
    FileId
);

index!(
    /// Index into `Record::chunks`.
    ChunkId
);

index!(
    /// Index into `Record::modules`.
    ModuleId
);

index!(
    /// Index into `Record::packages`.
    PackageId
);

index!(
    /// Index into `Record::entries`.
    EntryId
);
