//! Requests that go with a set of modules: those that are for it, wherever they lead.

use std::collections::HashSet;

use uvlet_record::{Edge, ModuleId, Record};

use crate::{
    graph::network::Network,
    select::subject::{Subject, SubjectKind},
};

/// Requests that go with a subject: those for a package, for a file of it, and those that lead nowhere else.
/// A bundler that says at once where a re-exported name comes from leads past the module that re-exports
/// it, so that one request may lead to many modules, of which the others stay.
pub(crate) struct Cut<'r> {
    requests: HashSet<(ModuleId, &'r str)>,
}

impl<'r> Cut<'r> {
    pub(crate) fn of(record: &'r Record, network: &Network<'r>, subject: &Subject) -> Self {
        let to = subject.modules.iter().flat_map(|&id| network.askers(id));
        let to = to.filter(|edge| !subject.has(edge.from));
        let asked: HashSet<(ModuleId, &str)> =
            to.filter_map(|edge| Some((edge.from, edge.request.as_deref()?))).collect();
        let mut others: HashSet<(ModuleId, &str)> = HashSet::new();
        for &(from, _) in &asked {
            for edge in network.asked(from).filter(|edge| !subject.has(edge.to)) {
                others.extend(edge.request.as_deref().map(|request| (from, request)));
            }
        }
        let paths: HashSet<&str> =
            subject.modules.iter().map(|&id| stem(&record.module(id).path)).collect();
        let is_for_it = |&(from, request): &(ModuleId, &str)| {
            !others.contains(&(from, request))
                || means(&record.module(from).path, request)
                    .is_some_and(|path| paths.contains(stem(&path)))
        };
        let mut requests: HashSet<(ModuleId, &str)> = asked.into_iter().filter(is_for_it).collect();
        let packages = packages(record, subject);
        if !packages.is_empty() {
            let is_its = |request: &str| packages.contains(package_name(request));
            let edges = record.edges.iter().filter(|edge| !subject.has(edge.from));
            let asked = edges.filter_map(|edge| Some((edge.from, edge.request.as_deref()?)));
            requests.extend(asked.filter(|(_, request)| is_its(request)));
        }
        Self { requests }
    }

    pub(crate) fn has(&self, edge: &Edge) -> bool {
        edge.request.as_deref().is_some_and(|request| self.requests.contains(&(edge.from, request)))
    }
}

/// Names of the packages that a subject holds all of, in whatever places they are installed.
fn packages<'s>(record: &'s Record, subject: &'s Subject) -> HashSet<&'s str> {
    let name = |id: ModuleId| record.package_of(id).map(|package| package.name.as_str());
    let mut names: HashSet<&str> = subject.modules.iter().filter_map(|&id| name(id)).collect();
    if subject.kind != SubjectKind::Package {
        let ids = (0..record.modules.len()).map(ModuleId::new);
        for other in ids.filter(|&id| !subject.has(id)) {
            name(other).map(|name| names.remove(name));
        }
    }
    names
}

/// The package that a request would be for, as npm names them.
fn package_name(request: &str) -> &str {
    let parts = if request.starts_with('@') { 2 } else { 1 };
    let end = request.match_indices('/').nth(parts - 1).map_or(request.len(), |(at, _)| at);
    &request[..end]
}

/// The path that a relative request means, without resolving it.
fn means(from: &str, request: &str) -> Option<String> {
    if !request.starts_with('.') {
        return None;
    }
    let mut parts: Vec<&str> = from.split('/').collect();
    parts.pop();
    for part in request.split('/') {
        match part {
            "." | "" => {}
            ".." => {
                parts.pop()?;
            }
            part => parts.push(part),
        }
    }
    Some(parts.join("/"))
}

/// A path as requests write it: without its ending, a folder for its index.
fn stem(path: &str) -> &str {
    let (folder, name) = path.rsplit_once('/').unwrap_or(("", path));
    let name = name.split_once('.').map_or(name, |(name, _)| name);
    match name {
        "index" if !folder.is_empty() => folder,
        name => &path[..path.len() - path.rsplit('/').next().map_or(0, str::len) + name.len()],
    }
}

#[cfg(test)]
mod tests {
    use rstest::rstest;

    use super::Cut;
    use crate::{graph::network::Network, lens::Lens, select::subject::Subject, small::Small};

    #[rstest]
    #[case("quay", true)]
    #[case("package(quay)", true)]
    #[case("package(quay*)", true)]
    #[case("quay/index.js", false)]
    #[case("package(pier)", false)]
    fn a_request_for_a_package_that_re_exports_goes_with_it(#[case] text: &str, #[case] is: bool) {
        let core = "node_modules/quay-core/quay.js";
        let record = Small::default()
            .file("a.js", &[("src/main.js", "go()"), (core, "x"), ("node_modules/pier/a.js", "y")])
            .import("src/main.js", core, "quay")
            .import("src/main.js", "node_modules/pier/a.js", "pier")
            .import("node_modules/quay/index.js", core, "quay-core")
            .import("node_modules/quay/more.js", "node_modules/quay/index.js", "./index.js")
            .entry("index", &["a.js"], "src/main.js")
            .build();
        let lens = Lens::new(&record);
        let network = Network::of(&record);
        let subject = Subject::find(text, &lens).unwrap();
        let cut = Cut::of(&record, &network, &subject);
        let edge = record.edges.iter().find(|edge| edge.request.as_deref() == Some("quay"));
        assert_eq!(cut.has(edge.unwrap()), is);
    }
}
