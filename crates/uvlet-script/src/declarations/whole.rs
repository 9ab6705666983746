//! The declarations of a whole script: collected from its tree, then tied to who uses them.

use oxc_semantic::SemanticBuilder;

use crate::{
    declarations::{collect, node::Declared, uses},
    parse::Script,
};

pub(crate) fn of_script(script: &Script<'_>, is_module: bool) -> Declared {
    let built = SemanticBuilder::new().with_build_nodes(true).build(&script.program);
    let semantic = built.semantic;
    let collected = collect::collect(script, &semantic, is_module || script.is_module);
    uses::uses(&semantic, collected)
}
