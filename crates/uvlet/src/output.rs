//! Where answers go: standard output or a file, the latter whole or not at all.

use std::{
    fs,
    io::{self, IsTerminal, Write},
    path::Path,
};

use anstream::{AutoStream, ColorChoice};

use crate::{cli::Color, failure::Failure};

/// Writes an answer. A reader that closed the pipe has seen enough: that is no failure.
pub fn write(text: &str, file: Option<&Path>, color: Color) -> Result<(), Failure> {
    if let Some(path) = file {
        return replace(path, anstream::adapter::strip_str(text).to_string().as_bytes());
    }
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

/// Writes beside the file and renames, so that a reader never sees half of it.
pub fn replace(path: &Path, bytes: &[u8]) -> Result<(), Failure> {
    let failed = |source| Failure::Write { path: path.to_owned(), source };
    // A pipe or a device is written to, not replaced by a file.
    if fs::metadata(path).is_ok_and(|metadata| !metadata.is_file() && !metadata.is_dir()) {
        let mut device = fs::OpenOptions::new().write(true).open(path).map_err(failed)?;
        return device.write_all(bytes).map_err(failed);
    }
    let folder = match path.parent() {
        Some(folder) if !folder.as_os_str().is_empty() => folder,
        _ => Path::new("."),
    };
    let mut builder = tempfile::Builder::new();
    // Temporary files are private; an answer is as public as the system's mask makes new files.
    #[cfg(unix)]
    builder.permissions(std::os::unix::fs::PermissionsExt::from_mode(0o666));
    let mut beside = builder.tempfile_in(folder).map_err(failed)?;
    beside.write_all(bytes).map_err(failed)?;
    beside.as_file().sync_all().map_err(failed)?;
    beside.persist(path).map_err(|error| failed(error.error))?;
    Ok(())
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
    let _ = writeln!(io::stderr(), "{}", text.trim_end());
}

/// Whether a person sees the answer as it comes.
pub fn is_seen(file: Option<&Path>) -> bool {
    file.is_none() && io::stdout().is_terminal()
}

/// Says on standard error why there is no answer. If even that cannot be written, the exit status
/// still says it.
pub fn complain(failure: &Failure) {
    let line = failure.to_string().replace(['\n', '\r'], " ");
    let plain: String = line
        .chars()
        .flat_map(|c| if c.is_control() { c.escape_default().collect() } else { vec![c] })
        .collect();
    let _ = writeln!(io::stderr(), "uvlet: {plain}");
}
