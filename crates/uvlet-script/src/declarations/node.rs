//! Declarations as nodes, and who uses whom of them.

use std::{collections::BTreeMap, ops::Range};

use crate::declarations::{effects::Effect, layout::Layout};

/// What a script declares.
#[derive(Clone, Debug, Default)]
pub struct Declared {
    /// What is declared, imported, or a member of a namespace object.
    pub nodes: Vec<Node>,
    /// What code that runs uses.
    pub roots: Vec<Use>,
    /// What it exports, by the name that others see.
    pub exports: Vec<(String, Use)>,
    /// Modules whose exports it hands on.
    pub hands_on: Vec<String>,
    /// Modules that are imported for what they do.
    pub bare: Vec<String>,
    /// Namespace objects that a helper of another script makes, with the helper's node.
    pub made_by: Vec<(usize, usize)>,
    /// The nodes that members of namespace objects stand for.
    pub values: BTreeMap<usize, usize>,
    /// How the text can be cut.
    pub layout: Layout,
    /// Names may be used in ways that cannot be seen (`eval`, `with`).
    pub is_opaque: bool,
}

/// Something with a name.
#[derive(Clone, Debug)]
pub struct Node {
    /// What it is.
    pub kind: NodeKind,
    /// Its name in the text.
    pub name: String,
    /// First byte of the name where it is declared.
    pub head: usize,
    /// What its evaluation may do; it runs even if nobody uses its value.
    pub effect: Option<Effect>,
    /// That it has no effect was told by a `/*#__PURE__*/` comment.
    pub is_believed: bool,
    /// It is a helper that gives an object getters, as namespace objects are made.
    pub is_definer: bool,
    /// Called, it does not look at what it is called on.
    pub is_without_this: bool,
    /// What it uses.
    pub uses: Vec<Use>,
}

/// What a node is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum NodeKind {
    /// A function.
    Function,
    /// A class.
    Class,
    /// A variable.
    Variable,
    /// A call whose value nobody takes: perhaps all that is left of a variable.
    Statement,
    /// A name of another script's.
    Import {
        /// The specifier.
        request: String,
        /// The name that the other exports; none where all are imported as one object.
        name: Option<String>,
    },
    /// A member of the object that stands for a module.
    Member {
        /// The object's node.
        of: usize,
        /// The name of the member, as others read it.
        key: String,
    },
}

/// One use.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Use {
    /// Of a node; of a namespace object, of it and no member.
    Node(usize),
    /// Of a member of a namespace object, but not yet of what it stands for.
    Member(usize),
    /// Of a namespace object, or of what is imported, in a way that may read any member.
    All(usize),
    /// Of one member of what is imported.
    MemberOf(usize, String),
    /// The same, called, so that it sees the object as `this`.
    CalledOf(usize, String),
}

/// A top-level declaration of a source.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct SourceDeclaration {
    /// It is a variable.
    pub is_variable: bool,
    /// Its name.
    pub name: String,
    /// Bytes of the name.
    pub head: Range<usize>,
    /// First byte of the declaration.
    pub start: usize,
    /// All its bytes.
    pub range: Range<usize>,
    /// What its evaluation may do.
    pub effect: Option<Effect>,
    /// That it has no effect was told by a `/*#__PURE__*/` comment.
    pub is_believed: bool,
}
