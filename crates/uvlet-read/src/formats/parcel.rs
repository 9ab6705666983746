//! Scripts of Parcel: modules that are registered by an id, beside others that stand at the top level.
//!
//! The first script says which file each id of a bundle means, `Object.assign(i.i??={},{"1UJ0M":
//! "Reports.29a12a4f.js",…})`. A load on demand names bundles by their ids, never by a file: alone,
//! `t("1UJ0M").then(…)`, or several in one `Promise.all([…])`, where it is needed, or in a module of its
//! own that others ask for, `i("jLWWm")`. For new browsers the page's import map takes the place of the
//! map, `import("1UJ0M")`.

use std::collections::BTreeMap;

use uvlet_record::Format;
use uvlet_script::{
    Script, Span,
    ast::{
        Argument, AssignmentExpression, AssignmentTarget, CallExpression, Expression,
        ImportExpression, ObjectExpression, ObjectPropertyKind, Program, Statement, StringLiteral,
    },
    functions::function_body,
    visit::Visit,
};

use super::{
    constants::{constant, is_method, used},
    file_names::key,
    format::{Chunks, Found, Opener, ScriptFormat, Walk},
};

/// Bytes of the longest id of a bundle.
const LONGEST: usize = 8;

/// Scripts of Parcel.
#[derive(Default)]
pub struct Parcel {
    is_it: bool,
    bundles: Vec<Opener>,
    modules: Vec<String>,
    /// Where the last group of bundles ends that were asked for together.
    group_end: u32,
    /// Where the last module ends that stands for a load.
    loader_end: u32,
}

impl ScriptFormat for Parcel {
    fn format(&self) -> Format {
        Format::Parcel
    }

    fn recognises(&self, _: &Script<'_>) -> bool {
        self.is_it
    }

    fn program(&mut self, program: &Program<'_>, found: &mut Found) {
        let text = program.source_text.as_bytes();
        self.is_it = memchr::memmem::find(text, b"parcelRequire").is_some();
        found.keys_are_guessed |= self.is_it;
    }

    fn call(&mut self, call: &CallExpression<'_>, found: &mut Found) {
        if !self.is_it {
            return;
        }
        let is_group = is_method(call, "Promise", "all") && call.span.start >= self.group_end;
        match call.arguments.as_slice() {
            [_, Argument::ObjectExpression(map)] if is_method(call, "Object", "assign") => {
                self.bundles.extend(bundles(map));
            }
            [Argument::StringLiteral(text)] if is_method(call, "JSON", "parse") => {
                let map: Result<BTreeMap<String, String>, _> = serde_json::from_str(&text.value);
                let map = map.unwrap_or_default().into_iter();
                self.bundles.extend(map.map(|(key, file)| Opener {
                    key,
                    files: vec![file],
                    opens: None,
                }));
            }
            [group @ Argument::ArrayExpression(_)] if is_group => {
                let mut ids = Ids::default();
                ids.visit_argument(group);
                self.group_end = call.span.end;
                let mut ids = ids.0.into_iter();
                if let Some(first) = ids.next() {
                    let mut asked = found.asked(first, call.span);
                    asked.along = ids.collect();
                    found.keyed.push(asked);
                }
            }
            [Argument::StringLiteral(module), loader] if is_id(&module.value) => {
                self.modules.push(module.value.to_string());
                if let Some(promise) = loader.as_expression().and_then(exported_promise) {
                    let then = promise.arguments.first().and_then(Argument::as_expression);
                    let opens = then.and_then(used);
                    let mut ids = Ids::default();
                    ids.visit_call_expression(promise);
                    self.group_end = call.span.end;
                    self.loader_end = call.span.end;
                    let key = module.value.to_string();
                    self.bundles.push(Opener { key, files: ids.0, opens });
                }
            }
            [Argument::StringLiteral(id)] => self.alone(&id.value, call.span, found),
            _ => {}
        }
    }

    /// `s="h1kkS"`, whose file is then fetched by way of the map.
    fn assignment(&mut self, assignment: &AssignmentExpression<'_>, found: &mut Found) -> Walk {
        if let (true, Some(id)) = (self.is_it, constant(&assignment.right)) {
            self.alone(&id, assignment.span, found);
        }
        Walk::Inside
    }

    fn knows_import(&self, import: &ImportExpression<'_>) -> bool {
        let is_inside = import.span.start < self.loader_end;
        self.is_it && (is_inside || constant(&import.source).is_none())
    }

    fn finish(self: Box<Self>, chunks: &mut Chunks) {
        chunks.openers.extend(self.bundles);
        chunks.modules.extend(self.modules);
    }
}

impl Parcel {
    fn alone(&mut self, id: &str, span: Span, found: &mut Found) {
        if span.start >= self.group_end && is_id(id) {
            found.keyed.push(found.asked(id.to_owned(), span));
        }
    }
}

/// What a module gives that does nothing else: a promise, as one does that stands for a load,
/// `u("jLWWm",function(e,n){e.exports=Promise.all([t("1UJ0M")]).then(()=>i("3MaWX"))})`.
fn exported_promise<'e, 'a>(module: &'e Expression<'a>) -> Option<&'e CallExpression<'a>> {
    let is_declaration =
        |statement: &&Statement<'_>| matches!(statement, Statement::VariableDeclaration(_));
    let mut statements = function_body(module)?.statements.iter().skip_while(is_declaration);
    let (Some(Statement::ExpressionStatement(only)), None) = (statements.next(), statements.next())
    else {
        return None;
    };
    let Expression::AssignmentExpression(assignment) = &only.expression else { return None };
    let AssignmentTarget::StaticMemberExpression(exports) = &assignment.left else { return None };
    let Expression::CallExpression(promise) = &assignment.right else { return None };
    let Expression::StaticMemberExpression(callee) = &promise.callee else { return None };
    (exports.property.name == "exports" && callee.property.name == "then").then_some(promise)
}

fn is_id(text: &str) -> bool {
    (3..=LONGEST).contains(&text.len()) && text.bytes().all(|byte| byte.is_ascii_alphanumeric())
}

/// The files of ids, if the object holds nothing else.
fn bundles(map: &ObjectExpression<'_>) -> Vec<Opener> {
    let bundle = |property: &ObjectPropertyKind<'_>| match property {
        ObjectPropertyKind::ObjectProperty(property) => match &property.value {
            Expression::StringLiteral(file) if file.value.contains('.') => {
                let files = vec![file.value.to_string()];
                Some(Opener { key: key(&property.key)?, files, opens: None })
            }
            _ => None,
        },
        ObjectPropertyKind::SpreadProperty(_) => None,
    };
    let bundles: Option<Vec<Opener>> = map.properties.iter().map(bundle).collect();
    bundles.unwrap_or_default()
}

/// Texts that may be ids, once each.
#[derive(Default)]
struct Ids(Vec<String>);

impl<'a> Visit<'a> for Ids {
    fn visit_string_literal(&mut self, text: &StringLiteral<'a>) {
        if is_id(&text.value) && !self.0.iter().any(|known| text.value == known.as_str()) {
            self.0.push(text.value.to_string());
        }
    }
}
