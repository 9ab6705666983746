//! Packs the sample builds into the program, so that `uvlet demo` works anywhere.

use std::{
    env,
    fs::File,
    io,
    path::{Path, PathBuf},
};

use flate2::{Compression, write::GzEncoder};

/// The promises of the sample site.
const SETTINGS: [&str; 2] = ["uvlet.toml", "company.toml"];

fn main() -> io::Result<()> {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    for folder in ["builds", "recordings"] {
        println!("cargo::rerun-if-changed={}", demo.join(folder).display());
    }
    for file in SETTINGS {
        println!("cargo::rerun-if-changed={}", demo.join(file).display());
    }
    let out = PathBuf::from(env::var_os("OUT_DIR").unwrap_or_default()).join("demo.tar.gz");
    let mut archive = tar::Builder::new(GzEncoder::new(File::create(out)?, Compression::best()));
    // The machine's owners and times are nobody's business, and would change every build.
    archive.mode(tar::HeaderMode::Deterministic);
    archive.append_dir_all(".", demo.join("builds"))?;
    archive.append_dir_all("recordings", demo.join("recordings"))?;
    for file in SETTINGS {
        archive.append_path_with_name(demo.join(file), file)?;
    }
    archive.into_inner()?.finish()?;
    Ok(())
}
