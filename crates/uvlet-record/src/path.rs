//! What a normal module path looks like: forward slashes, from the project's folder, with nothing
//! before it that a bundler or a plugin put there. Names are only compared, never opened.

/// Whether a path is one that a module of a record may have.
#[must_use]
pub fn is_normal(path: &str) -> bool {
    !path.is_empty()
        && !path.starts_with("./")
        && !path.starts_with('/')
        && !path.contains('\\')
        && !path.contains('\0')
}

/// Whether a path begins at the root of a disk.
#[must_use]
pub fn is_absolute(path: &str) -> bool {
    let mut chars = path.chars();
    path.starts_with('/')
        || (chars.next().is_some_and(|c| c.is_ascii_alphabetic()) && path[1..].starts_with(":/"))
}

/// Removes `.`, empty parts and `x/..`; what leads above the start stays in front as `../`.
#[must_use]
pub fn resolve(path: &str) -> String {
    let mut above = 0;
    let mut parts: Vec<&str> = Vec::new();
    for part in path.split('/') {
        match part {
            "" | "." => {}
            ".." if parts.pop().is_none() => above += 1,
            ".." => {}
            _ => parts.push(part),
        }
    }
    let mut resolved = "../".repeat(above);
    if is_absolute(path) {
        resolved = if path.starts_with('/') { "/".to_owned() } else { String::new() };
    }
    resolved.push_str(&parts.join("/"));
    resolved
}
