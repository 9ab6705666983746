//! Generated builds of the shape that real ones have: one huge line per script, some text outside
//! ASCII, a mapping every six bytes, sources four times as long as what is emitted.

pub mod site;

/// A generated script with its source map.
pub struct Script {
    /// Minified code.
    pub text: String,
    /// Its map.
    pub map: String,
    /// Number of modules.
    pub modules: usize,
}

/// A chunk of a generated build.
pub struct Chunk {
    /// Minified code.
    pub text: String,
    /// Its map.
    pub map: String,
    /// What it is made of.
    pub modules: Vec<Module>,
}

/// A module of a chunk, as stats describe it.
pub struct Module {
    /// The key in the chunk's table.
    pub id: usize,
    /// Path on the machine that built.
    pub identifier: String,
    /// Path from the project's folder.
    pub name: String,
    /// Bytes before minification.
    pub bytes: usize,
}

/// Bytes of emitted code per module.
const MODULE: usize = 1600;

/// Generates a script of about `bytes` bytes; `seed` makes it differ from others.
#[must_use]
pub fn script(bytes: usize, seed: u64) -> Script {
    let Chunk { text, map, modules } = generated(bytes, seed, None);
    Script { text, map, modules: modules.len() }
}

/// Generates a chunk of about `bytes` bytes whose modules stand in a table of functions.
#[must_use]
pub fn table(bytes: usize, id: usize) -> Chunk {
    generated(bytes, id as u64, Some(id))
}

fn generated(bytes: usize, seed: u64, table: Option<usize>) -> Chunk {
    let mut random = Random(seed.wrapping_mul(2) + 1);
    let mut text = String::with_capacity(bytes + 200);
    let mut mappings = String::with_capacity(bytes * 11 / 10);
    let mut contents = Vec::new();
    let mut sources = Vec::new();
    let mut last = [0_i64; 4];
    let mut columns = 0_i64;
    let mut modules: Vec<Module> = Vec::new();
    // Text of the bundler's own: a mapping without a source.
    let glue = |glue: &str,
                text: &mut String,
                mappings: &mut String,
                columns: &mut i64,
                last: &mut i64| {
        vlq(*columns - *last, mappings);
        mappings.push(',');
        *last = *columns;
        text.push_str(glue);
        *columns += i64::try_from(glue.len()).unwrap_or(0);
    };
    if let Some(id) = table {
        let open = format!("(self.webpackChunksite=self.webpackChunksite||[]).push([[{id}],{{");
        glue(&open, &mut text, &mut mappings, &mut columns, &mut last[0]);
    }
    while text.len() < bytes {
        let module = sources.len();
        let chunk = table.map(|id| format!("{id}-")).unwrap_or_default();
        let name = match module % 4 {
            0 => format!("src/pages/part{chunk}{module}.js"),
            n => {
                format!("node_modules/package{chunk}{}/lib/file{module}.js", (module / 40) * 3 + n)
            }
        };
        let id = table.unwrap_or(0) * 100_000 + module;
        if table.is_some() {
            let open = format!("{id}:(e,t,n)=>{{");
            glue(&open, &mut text, &mut mappings, &mut columns, &mut last[0]);
            sources.push(format!("webpack://site/./{name}"));
        } else {
            sources.push(format!("../{name}"));
        }
        let start = text.len();
        let mut line = 0_i64;
        while text.len() - start < MODULE {
            for token in statement(&mut random) {
                let now = [columns, i64::try_from(module).unwrap_or(0), line, random.below(60)];
                for (value, last) in now.iter().zip(&mut last) {
                    vlq(value - *last, &mut mappings);
                    *last = *value;
                }
                mappings.push(',');
                columns += i64::try_from(token.encode_utf16().count()).unwrap_or(0);
                text.push_str(&token);
            }
            line += 1;
        }
        let content = source(&text[start..]);
        let bytes = content.len();
        modules.push(Module {
            id,
            identifier: format!("/site/{name}"),
            name: format!("./{name}"),
            bytes,
        });
        contents.push(content);
        if table.is_some() {
            glue("},", &mut text, &mut mappings, &mut columns, &mut last[0]);
        }
    }
    if table.is_some() {
        glue("}]);", &mut text, &mut mappings, &mut columns, &mut last[0]);
    }
    let map = serde_json::json!({
        "version": 3, "sources": sources, "sourcesContent": contents, "names": [], "mappings": mappings,
    });
    Chunk { text, map: map.to_string(), modules }
}

/// The emitted text as a person might have written it: four times as long.
fn source(emitted: &str) -> String {
    let mut text = String::with_capacity(emitted.len() * 3);
    for part in emitted.split_inclusive([';', '{', '}']) {
        text.push_str(
            "    // what comes next is needed by the page, since the timetable may change\n    ",
        );
        text.push_str(part);
        text.push('\n');
    }
    text
}

fn statement(random: &mut Random) -> Vec<String> {
    let name = |random: &mut Random| {
        const LETTERS: &[u8] = b"abcdefghijklmnopqrstuvwxyz";
        let letter = |random: &mut Random| {
            char::from(LETTERS[usize::try_from(random.below(26)).unwrap_or(0)])
        };
        format!("{}{}", letter(random), letter(random))
    };
    let word = ["tide", "ferry", "harbour", "crossing", "café", "船", "timetable", "passenger"];
    let text = word[usize::try_from(random.below(8)).unwrap_or(0)];
    let (a, b, c) = (name(random), name(random), name(random));
    let n = random.below(900);
    match random.below(4) {
        0 => vec![
            "function ".into(),
            format!("${a}{n}("),
            format!("{b},{c}){{"),
            format!("return {b}."),
            format!("{c}("),
            format!("\"{text}\"+{n})}}"),
        ],
        1 => vec![
            "var ".into(),
            format!("${a}{n}="),
            format!("{b}=>"),
            format!("{b}.{c}+"),
            format!("{n};"),
        ],
        2 => vec![format!("globalThis.{a}("), format!("\"{text} {n}\","), format!("{n});")],
        _ => vec![
            "if(".into(),
            format!("globalThis.{a}>"),
            format!("{n})"),
            format!("globalThis.{b}="),
            format!("[{n},"),
            format!("\"{text}\"];"),
        ],
    }
}

/// A small generator, so that every run measures the same input.
struct Random(u64);

impl Random {
    fn below(&mut self, most: i64) -> i64 {
        self.0 =
            self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        i64::try_from(self.0 >> 33).unwrap_or(0) % most
    }
}

fn vlq(value: i64, text: &mut String) {
    const DIGITS: &[u8] = b"ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    let mut rest = value.unsigned_abs() << 1 | u64::from(value < 0);
    loop {
        let more = u64::from(rest > 31) << 5;
        text.push(char::from(DIGITS[usize::try_from(rest & 31 | more).unwrap_or(0)]));
        rest >>= 5;
        if more == 0 {
            return;
        }
    }
}
