//! How deep a script may nest, at most: known before it is parsed, since a parser recurses as deep and
//! a stack that is full ends the program.
//!
//! Counted on tokens: every token that does not begin a statement, an element or an argument anew may
//! be a level of its own (`a+b+c`, `new new a`, `if(a)if(b)`, `a()()`), on top of the brackets around
//! it. Texts, comments and regular expressions are one token each.

/// At least how deep the code nests.
pub fn nesting(text: &str) -> usize {
    let mut scan = Scan {
        bytes: text.as_bytes(),
        at: 0,
        levels: Vec::new(),
        row: 0,
        around: 0,
        deepest: 0,
        before: Before::Start,
    };
    scan.run();
    scan.deepest
}

/// What stands before the place, as far as it tells a regular expression from a division and the end
/// of a statement from the middle of one.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Before {
    Start,
    /// A word that an operand follows, such as `return`.
    Operator,
    /// A name, number, text, or the end of something in brackets.
    Operand,
    /// The head of `if`, `for`, `while` or `with`.
    Head,
    /// The end of something in braces.
    Block,
}

/// An open bracket.
struct Level {
    /// Tokens before it in its row.
    row: usize,
    /// It holds the head of a statement.
    is_head: bool,
    /// It is `${` of a template.
    is_hole: bool,
}

struct Scan<'t> {
    bytes: &'t [u8],
    at: usize,
    levels: Vec<Level>,
    /// Tokens since the row began: since the last separator at this level.
    row: usize,
    /// The rows of all open levels together.
    around: usize,
    deepest: usize,
    before: Before,
}

/// Words that an operand follows.
const OPERATORS: [&[u8]; 15] = [
    b"return",
    b"typeof",
    b"case",
    b"delete",
    b"void",
    b"in",
    b"of",
    b"new",
    b"instanceof",
    b"do",
    b"else",
    b"throw",
    b"await",
    b"yield",
    b"extends",
];

impl Scan<'_> {
    fn run(&mut self) {
        while let Some(&byte) = self.bytes.get(self.at) {
            match byte {
                b' ' | b'\t' | b'\r' | b'\n' => self.at += 1,
                b'/' => self.slash(),
                b'"' | b'\'' => {
                    self.quoted(byte);
                    self.token(Before::Operand);
                }
                b'`' => {
                    self.at += 1;
                    self.template();
                }
                b'(' | b'[' | b'{' => self.open(byte),
                b')' | b']' | b'}' => self.close(byte),
                b';' | b',' => {
                    self.at += 1;
                    (self.row, self.before) = (0, Before::Start);
                }
                _ if byte.is_ascii_alphanumeric()
                    || byte == b'_'
                    || byte == b'$'
                    || byte >= 0x80 =>
                {
                    self.word();
                }
                _ => {
                    self.at += 1;
                    self.token(Before::Operator);
                }
            }
        }
    }

    fn token(&mut self, before: Before) {
        self.row += 1;
        self.before = before;
        self.deepest = self.deepest.max(self.around + self.row);
    }

    fn word(&mut self) {
        let start = self.at;
        let is_part =
            |byte: &u8| byte.is_ascii_alphanumeric() || b"_$".contains(byte) || *byte >= 0x80;
        let length = self.bytes[start..].iter().take_while(|byte| is_part(byte)).count();
        self.at += length;
        let word = &self.bytes[start..self.at];
        // What follows a block and does not go on with it is a statement of its own.
        let goes_on: [&[u8]; 5] = [b"else", b"catch", b"finally", b"while", b"instanceof"];
        if self.before == Before::Block && !goes_on.contains(&word) && word != b"in" {
            self.row = 0;
        }
        let is_head: [&[u8]; 4] = [b"if", b"for", b"while", b"with"];
        let before = match word {
            word if is_head.contains(&word) => Before::Head,
            word if OPERATORS.contains(&word) => Before::Operator,
            _ => Before::Operand,
        };
        self.token(before);
    }

    fn open(&mut self, byte: u8) {
        self.at += 1;
        let is_head = byte == b'(' && self.before == Before::Head;
        self.token(Before::Start);
        self.levels.push(Level { row: self.row, is_head, is_hole: false });
        self.around += self.row;
        self.row = 0;
    }

    fn close(&mut self, byte: u8) {
        self.at += 1;
        let Some(level) = self.levels.pop() else { return };
        self.around -= level.row;
        self.row = level.row;
        if level.is_hole {
            return self.template();
        }
        self.before = match byte {
            b'}' => Before::Block,
            _ if level.is_head => Before::Operator,
            _ => Before::Operand,
        };
    }

    /// A comment, a division, or a regular expression.
    fn slash(&mut self) {
        let rest = &self.bytes[self.at..];
        if rest.starts_with(b"//") {
            self.at += memchr::memchr(b'\n', rest).unwrap_or(rest.len());
        } else if rest.starts_with(b"/*") {
            self.at += memchr::memmem::find(rest, b"*/").map_or(rest.len(), |end| end + 2);
        } else if self.before == Before::Operand {
            self.at += 1;
            self.token(Before::Operator);
        } else {
            self.at += expression(rest);
            self.token(Before::Operand);
        }
    }

    fn quoted(&mut self, quote: u8) {
        self.at += 1;
        while let Some(&byte) = self.bytes.get(self.at) {
            self.at += if byte == b'\\' { 2 } else { 1 };
            if byte == quote || byte == b'\n' {
                return;
            }
        }
    }

    /// The text of a template up to its end or to the next hole.
    fn template(&mut self) {
        while let Some(&byte) = self.bytes.get(self.at) {
            match byte {
                b'\\' => self.at += 2,
                b'`' => {
                    self.at += 1;
                    return self.token(Before::Operand);
                }
                b'$' if self.bytes.get(self.at + 1) == Some(&b'{') => {
                    self.at += 2;
                    self.token(Before::Start);
                    self.levels.push(Level { row: self.row, is_head: false, is_hole: true });
                    self.around += self.row;
                    self.row = 0;
                    return;
                }
                _ => self.at += 1,
            }
        }
    }
}

/// Bytes of a regular expression with its slashes; 1 where the line ends before it does, as then it
/// was a division.
fn expression(text: &[u8]) -> usize {
    let (mut at, mut in_class) = (1, false);
    while let Some(&byte) = text.get(at) {
        match byte {
            b'\\' => at += 1,
            b'[' => in_class = true,
            b']' => in_class = false,
            b'/' if !in_class => return at + 1,
            b'\n' => return 1,
            _ => {}
        }
        at += 1;
    }
    1
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::nesting;

    const DEEPEST: usize = 10_000;

    #[rstest]
    #[case::brackets_in_texts("(\")\"+")]
    #[case::conditions("a?\";\":")]
    #[case::words("yield ")]
    #[case::classes("class extends ")]
    #[case::arrows("(a=\";\")=>")]
    #[case::heads("if(1)")]
    #[case::chains("if(a){b()}else ")]
    #[case::calls("a()")]
    #[case::sums("1+")]
    #[case::templates("`${")]
    #[case::brackets_in_expressions("(/[)/]/,")]
    fn what_nests_is_counted(#[case] part: &str) {
        assert!(nesting(&part.repeat(DEEPEST + 1)) > DEEPEST, "{part}");
    }

    #[rstest]
    #[case::statements("a(b,c);")]
    #[case::functions("function a(b){return b/2}")]
    #[case::elements("[{a:1,b:[2]},\"(\"],")]
    #[case::classes("class A{b(){return 1}c(){}}")]
    #[case::expressions("a=b.replace(/[\"'(]/g,\"\");")]
    #[case::divisions("a=(b+c)/d/e;")]
    #[case::templates("a=`(${b}(`;")]
    #[case::comments("/* ((( */a();// (((\n")]
    #[case::choices("if(a){b()}else{c()}")]
    fn what_stands_side_by_side_is_not(#[case] part: &str) {
        let text = part.repeat(DEEPEST);
        assert!(nesting(&text) < 60, "{part}: {}", nesting(&text));
    }
}
