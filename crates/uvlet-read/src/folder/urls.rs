//! From a URL in a page, script or style to the file of the folder that it means.

use std::collections::HashMap;

use percent_encoding::percent_decode_str;
use uvlet_record::{FileId, path};

/// What a URL means.
#[derive(Debug, PartialEq, Eq)]
pub enum Meant {
    /// A file of the folder.
    File(FileId),
    /// Something that is loaded from elsewhere.
    External,
    /// Nothing that is fetched: `data:`, a fragment, an empty text.
    Nothing,
    /// A path of this site that the folder does not hold.
    Missing,
}

/// Finds files by URL.
pub struct Urls<'a> {
    by_path: HashMap<&'a str, FileId>,
    base: Option<&'a str>,
    served: Served,
}

/// Where a framework serves the folders of its output.
#[derive(Debug, Default, Clone)]
pub struct Served {
    /// Folders, with a slash behind each, and the site's folders that they are served as.
    folders: Vec<(String, String)>,
    by_url: HashMap<String, FileId>,
}

impl Served {
    /// Over the counted files in order.
    pub fn new<'p>(
        paths: impl Iterator<Item = &'p str>,
        folders: &[(&'static str, &'static str)],
    ) -> Self {
        let folders: Vec<(String, String)> =
            folders.iter().map(|(folder, url)| ((*folder).to_owned(), (*url).to_owned())).collect();
        let mut served = Self { folders, by_url: HashMap::new() };
        for (at, path) in paths.enumerate() {
            if let Some(url) = served.url_of(path) {
                served.by_url.entry(url).or_insert(FileId::new(at));
            }
        }
        served
    }

    /// A path of the folder as the site has it.
    fn url_of(&self, path: &str) -> Option<String> {
        let mut folders = self.folders.iter();
        folders.find_map(|(folder, url)| Some(format!("{url}{}", path.strip_prefix(folder)?)))
    }

    /// The file that a path means, in a file of a folder. The site may stand below others.
    fn find(&self, plain: &str, folder: &str) -> Option<FileId> {
        if self.by_url.is_empty() {
            return None;
        }
        let path = match plain.strip_prefix('/') {
            Some(rooted) => path::resolve(rooted),
            None => {
                let here = self.url_of(&format!("{folder}/")).unwrap_or_default();
                path::resolve(format!("{here}/{plain}").trim_start_matches('/'))
            }
        };
        let path = path.trim_start_matches("../");
        let ends = path.match_indices('/').map(|(at, _)| at + 1);
        let mut tails = std::iter::once(0).chain(ends).map(|at| &path[at..]);
        tails.find_map(|tail| self.by_url.get(tail).copied())
    }
}

impl<'a> Urls<'a> {
    /// Over the counted files in order; `base` is the URL under which they will stand.
    pub fn new(paths: impl Iterator<Item = &'a str>, base: Option<&'a str>) -> Self {
        let by_path = paths.enumerate().map(|(at, path)| (path, FileId::new(at))).collect();
        Self { by_path, base, served: Served::default() }
    }

    /// With what a framework says of where its folders are served.
    pub fn served(self, served: &Served) -> Self {
        Self { served: served.clone(), ..self }
    }

    /// What a URL means that stands in a file of `folder` (a path in the output folder).
    pub fn url(&self, url: &str, folder: &str) -> Meant {
        let url = url.trim();
        let below = self.base.and_then(|base| url.strip_prefix(base.trim_end_matches('/')));
        if let Some(rest) = below.and_then(|rest| rest.strip_prefix('/')) {
            return self
                .by_path
                .get(decode(rest).as_str())
                .map_or(Meant::Missing, |&id| Meant::File(id));
        }
        let (scheme, rest) = scheme_of(url);
        match scheme {
            Some("http" | "https") | None => {}
            Some("file") => return Meant::External,
            Some(_) => return Meant::Nothing,
        }
        if let Some(after) = rest.strip_prefix("//") {
            let (_, path) = after.split_once('/').unwrap_or((after, ""));
            return self.longest_suffix(&decode(path), folder).map_or(Meant::External, Meant::File);
        }
        let plain = decode(rest);
        if plain.is_empty() {
            return Meant::Nothing;
        }
        let found = match plain.strip_prefix('/') {
            Some(rooted) => self.longest_suffix(&path::resolve(rooted), folder),
            None => {
                let joined = path::resolve(format!("{folder}/{plain}").trim_start_matches('/'));
                match joined.strip_prefix("../") {
                    Some(_) => self.longest_suffix(joined.trim_start_matches("../"), folder),
                    None => self.by_path.get(joined.as_str()).copied(),
                }
            }
        };
        let found = found.or_else(|| self.served.find(&plain, folder));
        found.map_or(Meant::Missing, Meant::File)
    }

    /// What a module specifier means: unlike a URL, a bare word is a package from elsewhere.
    pub fn specifier(&self, specifier: &str, folder: &str) -> Meant {
        let (scheme, _) = scheme_of(specifier);
        if scheme.is_some() || specifier.starts_with(['.', '/']) {
            match (self.url(specifier, folder), scheme) {
                (Meant::Nothing, Some(_)) => Meant::External,
                (meant, _) => meant,
            }
        } else {
            Meant::External
        }
    }

    /// The file whose path is the longest tail of this one: sites are served under prefixes that
    /// the folder does not show. The site's root is the output folder, or one of the folders around
    /// the file that asks, where several outputs stand side by side.
    fn longest_suffix(&self, path: &str, folder: &str) -> Option<FileId> {
        let mut rest = path;
        loop {
            if let Some(&id) = self.by_path.get(rest) {
                return Some(id);
            }
            let roots = folder.match_indices('/').map(|(end, _)| end).chain([folder.len()]);
            let under =
                |end: usize| self.by_path.get(format!("{}/{rest}", &folder[..end]).as_str());
            if let Some(&id) = roots.filter(|&end| end > 0).find_map(under) {
                return Some(id);
            }
            rest = rest.split_once('/')?.1;
        }
    }
}

/// The folder part of a path in the output folder, without a closing slash.
pub fn folder_of(path: &str) -> &str {
    path.rsplit_once('/').map_or("", |(folder, _)| folder)
}

fn scheme_of(url: &str) -> (Option<&str>, &str) {
    match url.split_once(':') {
        Some((scheme, rest))
            if scheme.starts_with(|c: char| c.is_ascii_alphabetic())
                && scheme.chars().all(|c| c.is_ascii_alphanumeric() || "+-.".contains(c)) =>
        {
            (Some(scheme), rest)
        }
        _ => (None, url),
    }
}

/// A URL's path as a file name: without query and fragment, percent signs decoded.
fn decode(path: &str) -> String {
    let plain = path.split(['?', '#']).next().unwrap_or_default();
    percent_decode_str(plain).decode_utf8_lossy().into_owned()
}

#[cfg(test)]
mod tests {
    use rstest::rstest;
    use uvlet_record::FileId;

    use super::{Meant, Urls};

    #[rstest]
    #[case("a.js", "assets", Meant::File(FileId(0)))]
    #[case("/assets/a.js?v=2#x", "deep/er", Meant::File(FileId(0)))]
    #[case("/app/assets/a.js", "", Meant::File(FileId(0)))]
    #[case("https://cdn.example/v1/app/assets/a.js", "", Meant::File(FileId(0)))]
    #[case("//cdn.example/assets/b%20c.css", "", Meant::File(FileId(1)))]
    #[case("../assets/a.js", "pages", Meant::File(FileId(0)))]
    #[case("/c.js", "client/pages", Meant::File(FileId(2)))]
    #[case("../../assets/a.js", "pages", Meant::File(FileId(0)))]
    #[case("a.js", "", Meant::Missing)]
    #[case("https://elsewhere.example/z.js", "", Meant::External)]
    #[case("data:image/png;base64,AAAA", "", Meant::Nothing)]
    #[case("#top", "", Meant::Nothing)]
    fn urls(#[case] url: &str, #[case] folder: &str, #[case] meant: Meant) {
        let urls = Urls::new(["assets/a.js", "assets/b c.css", "client/c.js"].into_iter(), None);
        assert_eq!(urls.url(url, folder), meant, "{url}");
    }

    #[test]
    fn a_stated_base_leaves_no_doubt() {
        let paths = ["a.js", "app/a.js"];
        let urls = Urls::new(paths.into_iter(), Some("https://cdn.example/app/"));
        assert_eq!(urls.url("https://cdn.example/app/a.js", ""), Meant::File(FileId(0)));
        let bare = Urls::new(paths.into_iter(), Some("https://cdn.example/app"));
        assert_eq!(bare.url("https://cdn.example/app/a.js", ""), Meant::File(FileId(0)));
        assert_eq!(bare.url("https://cdn.example/apple/a.js", ""), Meant::File(FileId(0)));
        let guessing = Urls::new(paths.into_iter(), None);
        assert_eq!(guessing.url("https://cdn.example/app/a.js", ""), Meant::File(FileId(1)));
    }
}
