//! Names as other languages take them: a shell, a selector.

/// A text as a POSIX shell takes it: in quotes where it needs them.
#[must_use]
pub fn shell(text: &str) -> String {
    let is_plain = |c: char| c.is_alphanumeric() || "/._-+@%,:=".contains(c);
    match !text.is_empty() && text.chars().all(is_plain) {
        true => text.to_owned(),
        false => format!("'{}'", text.replace('\'', "'\\''")),
    }
}
