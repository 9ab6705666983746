//! How a description's paths relate to those of the output folder.

use std::collections::{BTreeMap, HashMap};

use super::{
    described::Described,
    description::{DescriptionError, is_script},
};

/// How the bundler's paths relate to the output folder's.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
enum Shift {
    /// They are the same.
    None,
    /// The bundler's paths begin with this, as esbuild's, which are relative to where it ran.
    Strip(String),
    /// The folder's paths begin with this: it holds more than one output.
    Add(String),
}

impl Shift {
    fn apply(&self, path: &str) -> Option<String> {
        match self {
            Self::None => Some(path.to_owned()),
            Self::Strip(prefix) => path.strip_prefix(prefix.as_str()).map(str::to_owned),
            Self::Add(prefix) => Some(format!("{prefix}{path}")),
        }
    }
}

impl Described {
    /// Names every file as it stands in the output folder, given the paths there.
    ///
    /// # Errors
    /// When none of the scripts that it speaks of is there.
    pub fn tie<'p>(
        &mut self,
        paths: impl Iterator<Item = &'p str>,
    ) -> Result<(), DescriptionError> {
        let mut by_name: HashMap<&str, Vec<&str>> = HashMap::new();
        for path in paths {
            by_name.entry(file_name(path)).or_default().push(path);
        }
        let mut votes: BTreeMap<Shift, usize> = BTreeMap::new();
        let scripts = self.files.iter().filter(|file| is_script(&file.path));
        for file in scripts.clone() {
            for path in by_name.get(file_name(&file.path)).into_iter().flatten() {
                let described = file.path.as_str();
                let shift = if *path == described {
                    Shift::None
                } else if let Some(prefix) =
                    described.strip_suffix(path).filter(|p| p.ends_with('/'))
                {
                    Shift::Strip(prefix.to_owned())
                } else if let Some(prefix) =
                    path.strip_suffix(described).filter(|p| p.ends_with('/'))
                {
                    Shift::Add(prefix.to_owned())
                } else {
                    continue;
                };
                *votes.entry(shift).or_default() += 1;
            }
        }
        // Among equals the first, which changes least.
        let best = votes.iter().rev().max_by_key(|&(_, &votes)| votes).map(|(shift, _)| shift);
        let Some(shift) = best.cloned() else {
            return Err(match scripts.count() {
                0 => DescriptionError::Empty,
                scripts => DescriptionError::Elsewhere(scripts),
            });
        };
        if let Shift::Strip(prefix) = &shift {
            self.rebase(prefix);
        }
        if let Shift::Add(prefix) = &shift {
            self.place.clone_from(prefix);
        }
        let moved = |path: &mut String| {
            if let Some(new) = shift.apply(path) {
                *path = new;
            }
        };
        for file in &mut self.files {
            moved(&mut file.path);
            let lists = [&mut file.names, &mut file.styles, &mut file.loads, &mut file.opens];
            lists.into_iter().flatten().for_each(moved);
        }
        self.entries.iter_mut().flat_map(|entry| &mut entry.files).for_each(moved);
        self.loads.iter_mut().flat_map(|load| &mut load.files).for_each(moved);
        Ok(())
    }

    /// Names modules from the output folder, which stands at `prefix` of where the bundler ran: a
    /// source map there would name them so.
    pub fn rebase(&mut self, prefix: &str) {
        // Nobody's folder is named at such length, and every module's name grows by it.
        if prefix.len() > 4096 {
            return;
        }
        let folders: Vec<&str> = prefix.split('/').filter(|part| !part.is_empty()).collect();
        for module in &mut self.modules {
            let raw = module.raw.as_str();
            if raw.contains([':', '\0']) || raw.starts_with('/') || module.external {
                continue;
            }
            let parts: Vec<&str> = raw.split('/').collect();
            let common = folders.iter().zip(&parts).take_while(|(a, b)| a == b).count();
            let up = "../".repeat(folders.len() - common);
            let rebased = format!("{up}{}", parts[common..].join("/"));
            let raw = std::mem::replace(&mut module.raw, rebased);
            module.source.get_or_insert(raw);
        }
    }
}

fn file_name(path: &str) -> &str {
    path.rsplit('/').next().unwrap_or(path)
}
