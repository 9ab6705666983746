//! `generate FOLDER FACTOR`: a generated build of so many parts in FOLDER/dist, its stats beside it.

use std::{env, error::Error, path::PathBuf};

fn main() -> Result<(), Box<dyn Error>> {
    let mut arguments = env::args_os().skip(1);
    let folder = arguments.next().map(PathBuf::from).ok_or("name a folder")?;
    let factor = arguments.next().and_then(|factor| factor.to_str()?.parse().ok());
    uvlet_benches::site::generate(&folder, factor.ok_or("say how many parts")?)?;
    Ok(())
}
