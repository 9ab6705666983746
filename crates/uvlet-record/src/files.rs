//! Sets of a record's files: a bit each, as thousands of pages may each reach thousands of files.

use std::{marker::PhantomData, ops::Deref};

use fixedbitset::FixedBitSet;

use crate::ids::FileId;

/// Something that stands at a place of a record's list.
pub trait Placed: Copy {
    /// The one at a place.
    fn new(at: usize) -> Self;
    /// Its place.
    fn at(self) -> usize;
}

impl Placed for FileId {
    fn new(at: usize) -> Self {
        Self::new(at)
    }

    fn at(self) -> usize {
        self.at()
    }
}

impl Placed for usize {
    fn new(at: usize) -> Self {
        at
    }

    fn at(self) -> usize {
        self
    }
}

/// A set of what stands in one list, in the order of that list.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct IdSet<T> {
    bits: FixedBitSet,
    of: PhantomData<T>,
}

/// A set of files.
pub type FileSet = IdSet<FileId>;

impl<T> Default for IdSet<T> {
    fn default() -> Self {
        Self { bits: FixedBitSet::new(), of: PhantomData }
    }
}

impl<T: Placed> IdSet<T> {
    /// Tells whether one is in the set.
    #[must_use]
    pub fn contains(&self, one: &T) -> bool {
        self.bits.contains(one.at())
    }

    /// All of them.
    pub fn iter(&self) -> impl Iterator<Item = T> + Clone + '_ {
        self.bits.ones().map(T::new)
    }

    /// How many they are.
    #[must_use]
    pub fn len(&self) -> usize {
        self.bits.count_ones(..)
    }

    /// Tells whether there is none.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.bits.is_clear()
    }

    /// Adds one; tells whether it is new.
    pub fn insert(&mut self, one: T) -> bool {
        if one.at() >= self.bits.len() {
            self.bits.grow(one.at() + 1);
        }
        !self.bits.put(one.at())
    }

    /// Adds what another holds.
    pub fn add(&mut self, other: &Self) {
        self.bits.union_with(&other.bits);
    }
}

impl<T: Placed> FromIterator<T> for IdSet<T> {
    fn from_iter<I: IntoIterator<Item = T>>(ids: I) -> Self {
        let mut set = Self::default();
        ids.into_iter().for_each(|one| {
            set.insert(one);
        });
        set
    }
}

/// Files in an order of their own, each once.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct FileList {
    order: Vec<FileId>,
    set: FileSet,
}

impl FileList {
    /// Tells whether a file is among them.
    #[must_use]
    pub fn contains(&self, file: &FileId) -> bool {
        self.set.contains(file)
    }
}

impl From<Vec<FileId>> for FileList {
    fn from(order: Vec<FileId>) -> Self {
        let set = order.iter().copied().collect();
        Self { order, set }
    }
}

impl Deref for FileList {
    type Target = [FileId];

    fn deref(&self) -> &[FileId] {
        &self.order
    }
}

impl<'a> IntoIterator for &'a FileList {
    type Item = &'a FileId;
    type IntoIter = std::slice::Iter<'a, FileId>;

    fn into_iter(self) -> Self::IntoIter {
        self.order.iter()
    }
}
