//! Where answers go: standard output or a file, the latter whole or not at all.

use crate::args::show::Color;
use std::{
    borrow::Cow,
    fs,
    io::{self, IsTerminal, Write},
    path::{Component, Path},
};

use anstream::{AutoStream, ColorChoice};

use crate::failure::Failure;

/// Writes an answer. A reader that closed the pipe has seen enough: that is no failure.
pub fn write(text: &str, file: Option<&Path>, color: Color) -> Result<(), Failure> {
    if let Some(path) = file {
        return replace(path, anstream::adapter::strip_str(&tamed(text)).to_string().as_bytes());
    }
    if is_closed() {
        return Err(Failure::Output(io::Error::other("standard output is closed")));
    }
    let text = tamed(text);
    let stdout = io::stdout();
    let choice = match color {
        Color::Always => ColorChoice::Always,
        Color::Never => ColorChoice::Never,
        Color::Auto => AutoStream::choice(&stdout),
    };
    let mut stream = AutoStream::new(stdout.lock(), choice);
    match stream.write_all(text.as_bytes()).and_then(|()| stream.flush()) {
        Err(error) if error.kind() != io::ErrorKind::BrokenPipe => Err(Failure::Output(error)),
        _ => Ok(()),
    }
}

/// Writes beside the file and renames, so that a reader never sees half of it. A link stays a link,
/// and a file keeps its mode; what is no plain file is written to. A path inside the working folder
/// stays inside: links of a checkout are written by whoever wrote the checkout.
pub fn replace(path: &Path, bytes: &[u8]) -> Result<(), Failure> {
    let failed = |source| Failure::Write { path: path.to_owned(), source };
    let is_link = fs::symlink_metadata(path).is_ok_and(|metadata| metadata.is_symlink());
    let old = fs::metadata(path).ok();
    let is_plain = old.as_ref().is_none_or(|metadata| metadata.is_file() || metadata.is_dir());
    let target = match is_link {
        true => path.canonicalize().unwrap_or_else(|_| path.to_owned()),
        false => path.to_owned(),
    };
    if path.components().all(|part| matches!(part, Component::Normal(_) | Component::CurDir)) {
        let near = if is_link { target.as_path() } else { path };
        let above = near.parent().filter(|above| !above.as_os_str().is_empty());
        let above = above.unwrap_or(Path::new(".")).canonicalize().map_err(failed)?;
        if !above.starts_with(Path::new(".").canonicalize().map_err(failed)?) {
            let said = format!(
                "a link leads out of this folder, to {}; name the place itself",
                above.display()
            );
            return Err(failed(io::Error::other(said)));
        }
    }
    // `/dev/stdout` is a link to whatever that is, which somebody holds open.
    if !is_plain || path.starts_with("/dev") || path.starts_with("/proc") {
        let mut device = fs::OpenOptions::new().write(true).open(path).map_err(failed)?;
        return device.write_all(bytes).map_err(failed);
    }
    let folder = match target.parent() {
        Some(folder) if !folder.as_os_str().is_empty() => folder,
        _ => Path::new("."),
    };
    let mut builder = tempfile::Builder::new();
    // Temporary files are private; an answer is as public as the system's mask makes new files.
    #[cfg(unix)]
    builder.permissions(std::os::unix::fs::PermissionsExt::from_mode(0o666));
    let mut beside = builder.tempfile_in(folder).map_err(failed)?;
    if let Some(old) = old.filter(|metadata| metadata.is_file()) {
        beside.as_file().set_permissions(old.permissions()).map_err(failed)?;
    }
    beside.write_all(bytes).map_err(failed)?;
    beside.as_file().sync_all().map_err(failed)?;
    beside.persist(&target).map_err(|error| failed(error.error))?;
    Ok(())
}

/// Whether standard output was closed before the program began. Rust then opens the null device in
/// its place, for reading too, which a shell's redirection never does; a service whose every stream
/// is the null device is not meant.
#[cfg(target_os = "linux")]
fn is_closed() -> bool {
    let is_null = |stream: u32| {
        let link = fs::read_link(format!("/proc/self/fd/{stream}"));
        let flags = fs::read_to_string(format!("/proc/self/fdinfo/{stream}")).unwrap_or_default();
        let flags = flags.lines().find_map(|line| line.strip_prefix("flags:"));
        let flags = flags.and_then(|flags| u32::from_str_radix(flags.trim(), 8).ok());
        const READ_AND_WRITE: u32 = 2;
        link.is_ok_and(|link| link == Path::new("/dev/null"))
            && flags.is_some_and(|flags| flags & 3 == READ_AND_WRITE)
    };
    is_null(1) && !is_null(0)
}

#[cfg(not(target_os = "linux"))]
fn is_closed() -> bool {
    false
}

/// Text in which nothing is a command to a continuous integration system, since a name from outside
/// says so; it reads the same. Some systems look for `##word[` anywhere in a line, others for `::word`
/// at its start.
fn tamed(text: &str) -> Cow<'_, str> {
    let is_word = |c: char| c.is_ascii_alphabetic();
    let is_hashed = |at: usize| text[at + 2..].trim_start_matches(is_word).starts_with('[');
    let opens = |line: &str| line.strip_prefix("::").is_some_and(|rest| rest.starts_with(is_word));
    let mut cuts: Vec<usize> =
        text.match_indices("##").filter(|(at, _)| is_hashed(*at)).map(|(at, _)| at + 1).collect();
    let mut start = 0;
    for line in text.split_inclusive(['\n', '\r']) {
        let bare = line.trim_start();
        if opens(bare) {
            cuts.push(start + line.len() - bare.len() + 1);
        }
        start += line.len();
    }
    if cuts.is_empty() {
        return text.into();
    }
    cuts.sort_unstable();
    let mut tame = String::with_capacity(text.len() + 4 * cuts.len());
    let mut from = 0;
    for cut in cuts {
        tame.push_str(&text[from..cut]);
        tame.push('\u{2060}');
        from = cut;
    }
    tame.push_str(&text[from..]);
    tame.into()
}

/// Columns to lay out in: the terminal's, or 80 where there is none.
pub fn width(file: Option<&Path>) -> usize {
    const PIPED: usize = 80;
    if file.is_some() || !io::stdout().is_terminal() {
        return PIPED;
    }
    terminal_size::terminal_size().map_or(PIPED, |(width, _)| usize::from(width.0))
}

/// Says something on standard error, where the answer does not go.
pub fn say(text: &str) {
    let _ = writeln!(io::stderr(), "{}", tamed(text.trim_end()));
}

/// Whether a person sees the answer as it comes.
pub fn is_seen(file: Option<&Path>) -> bool {
    file.is_none() && io::stdout().is_terminal()
}

/// Says on standard error why there is no answer. If even that cannot be written, the exit status
/// still says it.
pub fn complain(failure: &Failure) {
    let line = failure.to_string().replace(['\n', '\r'], " ");
    let _ = writeln!(io::stderr(), "uvlet: {}", tamed(&uvlet_view::plain(&line)));
}
