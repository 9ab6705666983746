//! What a system says of a file that it does not give.

use std::io;

/// What the system says, in small letters and without its error number.
#[must_use]
pub fn reason(error: &io::Error) -> String {
    let said = error.to_string();
    let number = error.raw_os_error().map(|code| format!(" (os error {code})"));
    let said = number.and_then(|number| said.strip_suffix(&number)).unwrap_or(&said);
    let mut letters = said.chars();
    letters.next().map(char::to_lowercase).into_iter().flatten().chain(letters).collect()
}
