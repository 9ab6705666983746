//! `uvlet demo`: unpacks the sample builds and walks through the commands on them.

use std::{
    env, fs, io,
    path::{Path, PathBuf},
};

use clap::Args;
use flate2::read::GzDecoder;

use crate::{
    args::show::Color,
    failure::{Failure, Status},
    output,
};

#[derive(Debug, Args)]
pub struct Arguments {
    /// Keep the sample builds in this new folder.
    #[arg(long, value_name = "DIR")]
    pub into: Option<PathBuf>,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

/// The sample builds, packed by the build script.
const PACKED: &[u8] = include_bytes!(concat!(env!("OUT_DIR"), "/demo.tar.gz"));

/// What is shown, in the order in which people ask.
const WALK: [(&str, &[&str]); 12] = [
    (
        "What does each page make a visitor download before it can run?",
        &["survey", "esbuild-before"],
    ),
    (
        "Whose bytes does the booking page wait for?",
        &[
            "attribute",
            "esbuild-before",
            "--by",
            "package",
            "--in",
            "startup(booking) and third-party",
        ],
    ),
    (
        "The heaviest of them, module by module:",
        &[
            "attribute",
            "esbuild-before",
            "--by",
            "module",
            "--in",
            "package(moorline)",
            "--top",
            "5",
        ],
    ),
    (
        "Why is the chart drawer on the booking page, which draws nothing?",
        &["why", "esbuild-before", "burgee-plot", "--from", "booking"],
    ),
    ("What could be removed?", &["waste", "esbuild-before", "--top", "4"]),
    ("What would a change save, without a rebuild?", &["what-if", "vite-before", "--suggest"]),
    (
        "Whose code did a browser never run on the booking page?",
        &[
            "coverage",
            "esbuild-before",
            "load=recordings/load.json",
            "click=recordings/click.json",
            "--top",
            "5",
        ],
    ),
    ("Did it request what was predicted?", &["requests", "vite-after", "recordings/visit.har"]),
    ("Does the build meet the budgets of uvlet.toml?", &["gate", "esbuild-before"]),
    ("The same site after its faults were mended:", &["survey", "esbuild-after"]),
    (
        "What moved, and what does somebody fetch again who was here before?",
        &["compare", "esbuild-before", "esbuild-after", "--top", "6"],
    ),
    ("And its budgets:", &["gate", "esbuild-after"]),
];

/// Runs a command of the walk, as it was typed, and whether how sizes are meant was explained.
type Run = dyn Fn(&[&str], bool) -> Result<Status, Failure>;

pub fn run(arguments: &Arguments, run: &Run) -> Result<Status, Failure> {
    let kept;
    let passing;
    let folder = match &arguments.into {
        Some(folder) => {
            kept = folder.clone();
            make_new(&kept)?;
            &kept
        }
        None => {
            passing = tempfile::tempdir().map_err(Failure::Output)?;
            passing.path()
        }
    };
    let failed = |source| Failure::Write { path: folder.to_owned(), source };
    tar::Archive::new(GzDecoder::new(PACKED)).unpack(folder).map_err(failed)?;
    let came_from = env::current_dir().map_err(Failure::Output)?;
    // The commands read as they would be typed beside the sample builds.
    env::set_current_dir(folder).map_err(failed)?;
    // Kept builds are there to be tried; the walk is for who only looks.
    let walk = if arguments.into.is_some() { &[][..] } else { &WALK[..] };
    let mut attributed = 0;
    let shown = walk.iter().try_for_each(|(question, words)| {
        attributed += usize::from(words.first() == Some(&"attribute"));
        show(question, words, (arguments.color, run), attributed > 1)
    });
    let shown = shown.and_then(|()| {
        // Where nothing is kept, the page is: it is there to be opened.
        let page = match arguments.into {
            Some(_) => PathBuf::from(PAGE),
            // In a folder of its own: whoever shares the machine may have put a link at a known name.
            None => tempfile::Builder::new()
                .prefix("uvlet-")
                .tempdir()
                .map_err(Failure::Output)?
                .keep()
                .join(PAGE),
        };
        let page = page.to_string_lossy();
        let words = ["report", "esbuild-after", "--against", "esbuild-before", "-o", &page];
        show(
            "And all of it for people who would rather look than read:",
            &words,
            (arguments.color, run),
            false,
        )
    });
    env::set_current_dir(came_from).map_err(Failure::Output)?;
    shown?;
    output::write(&farewell(arguments.into.as_deref()), None, arguments.color)?;
    Ok(Status::Held)
}

/// The page of the sample site.
const PAGE: &str = "uvlet-kelpwick.html";

fn make_new(folder: &Path) -> Result<(), Failure> {
    let failed = |source| Failure::Write { path: folder.to_owned(), source };
    match fs::read_dir(folder) {
        Ok(mut entries) => match entries.next() {
            None => Ok(()),
            Some(_) => Err(Failure::Usage(format!(
                "{}: is not empty; name a new folder with --into",
                folder.display()
            ))),
        },
        Err(error) if error.kind() == io::ErrorKind::NotFound => {
            fs::create_dir_all(folder).map_err(failed)
        }
        Err(error) => Err(failed(error)),
    }
}

/// Prints a command as it would be typed, and its output; a broken gate is part of the show.
fn show(
    question: &str,
    words: &[&str],
    (shade, run): (Color, &Run),
    is_explained: bool,
) -> Result<(), Failure> {
    let typed: Vec<String> = words
        .iter()
        .map(
            |word| if word.contains(['(', ' ']) { format!("'{word}'") } else { (*word).to_owned() },
        )
        .collect();
    let rule = "─".repeat(output::width(None).min(80));
    let head =
        format!("\x1b[2m{rule}\x1b[0m\n{question}\n\x1b[1m$ uvlet {}\x1b[0m\n\n", typed.join(" "));
    output::write(&head, None, shade)?;
    let color = match shade {
        Color::Auto => "--color=auto",
        Color::Always => "--color=always",
        Color::Never => "--color=never",
    };
    let line: Vec<&str> = ["uvlet"].iter().chain(words).copied().chain([color]).collect();
    let status = run(&line, is_explained)?;
    let ending = if words.first() == Some(&"gate") {
        format!("(exit status {})\n\n", if status == Status::Broken { 1 } else { 0 })
    } else {
        "\n".to_owned()
    };
    output::write(&ending, None, shade)
}

fn farewell(kept: Option<&Path>) -> String {
    let next = match kept {
        Some(folder) => {
            format!("The sample builds are in {0}. Try next:\n  cd {0}\n", folder.display())
        }
        None => {
            "Keep the sample builds and try next:\n  uvlet demo --into kelpwick && cd kelpwick\n"
                .to_owned()
        }
    };
    format!(
        "{next}  uvlet attribute esbuild-before --by module --in 'package(ropework)'\n  \
         uvlet survey esbuild-after --format json\n\
         and on your own build:\n  uvlet survey dist\n"
    )
}
