//! Stats in long and short forms.

use uvlet_record::{EdgeKind, Lack, Target, Used};

use crate::descriptions::description::Description;
use crate::descriptions::{
    described::{DescribedId, Slot},
    webpack::{Stats, json::whole},
};

/// Groups at every level, ids of every kind, a merged module, a reason that is a group and one
/// that was optimised away.
const STATS: &str = r#"{"version":"5.1.0","outputPath":"/o",
  "assets":[{"type":"assets by chunk","children":[{"name":"a.js","size":10},{"name":"c.svg","info":{"sourceFilename":"src/c.svg"}}]}],
  "chunks":[{"id":7,"names":["a"],"files":["a.js"],"origins":[{"moduleName":"","request":"./a","loc":"a"}]},
            {"id":"late","names":[],"files":["l.js"],"auxiliaryFiles":["c.svg"],"origins":[{"moduleName":"./src/b.js + 1 modules","request":"./l.js"}]}],
  "entrypoints":{"a":{"chunks":[7],"assets":[{"name":"a.js"},"a.css"]}},
  "modules":[{"type":"modules by path","name":"./src/","children":[
    {"type":"module","identifier":"/s/b.js|0123456789abcdef","name":"./src/b.js + 1 modules","id":null,"chunks":[7],"size":30,
     "reasons":[{"type":"entry","loc":"a"}],
     "modules":[{"type":"modules by path","children":[
        {"identifier":"/s/b.js","name":"./src/b.js","size":20,"postOrderIndex":1,"source":"b()"},
        {"identifier":"/s/d.js","name":"./src/d.js","size":10,"postOrderIndex":0,"usedExports":["x"],"providedExports":["x","y"],
         "reasons":[{"type":"from origin","children":[{"type":"esm import","resolvedModule":"./src/b.js","userRequest":"./d"}]},
                    {"type":"esm export import","resolvedModule":"./src/l.js","active":false}]}]}]},
    {"type":"module","identifier":"/s/l.js","name":"./src/l.js","id":12,"chunks":["late"],"size":5,"usedExports":false,
     "reasons":[{"type":"import()","moduleName":"./src/b.js + 1 modules","userRequest":"./l.js"}]},
    {"type":"module","identifier":"/s/c.svg","name":"./src/c.svg","moduleType":"asset/resource"}]},
   {"type":"module","identifier":"webpack/runtime/jsonp chunk loading","name":"webpack/runtime/jsonp chunk loading","moduleType":"runtime","chunks":[7]}]}"#;

#[test]
fn everything_is_found_wherever_it_stands() {
    let described = Stats.read(STATS).unwrap().remove(0);
    let at = |name: &str| {
        let at = described.modules.iter().position(|module| module.raw == name);
        DescribedId(at.unwrap())
    };
    let (b, d, l, c) = (at("./src/b.js"), at("./src/d.js"), at("./src/l.js"), at("./src/c.svg"));
    assert_eq!(described.modules.len(), 4);
    assert_eq!(described.module(b).bytes, Some(20));
    assert_eq!(&STATS[described.module(b).text.clone().unwrap()], "\"b()\"");
    assert_eq!(described.module(d).used, Some(Used::Names(vec!["x".to_owned()])));
    assert_eq!(described.module(l).used, Some(Used::Nothing));
    let edges: Vec<_> =
        described.edges.iter().map(|edge| (edge.from, edge.to, edge.kind)).collect();
    assert_eq!(edges, [(b, d, EdgeKind::Static), (b, l, EdgeKind::Dynamic)]);
    let file = |path: &str| described.files.iter().find(|file| file.path == path).unwrap();
    assert_eq!(file("a.js").slots, [Slot { id: None, modules: vec![d, b] }]);
    assert_eq!(file("l.js").slots, [Slot { id: Some("12".to_owned()), modules: vec![l] }]);
    assert_eq!(
        (file("l.js").names.as_slice(), file("c.svg").source),
        (&["c.svg".to_owned()][..], Some(c))
    );
    assert_eq!(
        (described.entries[0].files.len(), described.entries[0].roots.as_slice()),
        (2, &[b][..])
    );
    assert_eq!(
        (described.loads[0].module, described.loads[0].files.as_slice()),
        (b, &["l.js".to_owned()][..])
    );
    assert_eq!(described.target.as_ref().map(|(target, _)| *target), Some(Target::Browser));
    assert!(described.can.says_loads);
}

#[test]
fn what_is_left_out_is_listed() {
    let short =
        r#"{"assets":[{"name":"a.js"}],"modules":[{"name":"./a.js + 2 modules"},{"size":3}]}"#;
    let lacks = Stats.read(short).unwrap().remove(0).lacks;
    let expected =
        [Lack::Entries, Lack::Chunks, Lack::ModuleNames, Lack::Reasons, Lack::MergedModules];
    assert_eq!(lacks, expected);
}

#[test]
fn compilations_with_their_own_output_are_builds_of_their_own() {
    let stats = r#"{"errorsCount":0,"children":[
        {"outputPath":"/o/client","assets":[{"name":"c.js"}]},
        {"outputPath":"/o/server","assets":[{"name":"s.js"}]}]}"#;
    assert_eq!(Stats.read(stats).unwrap().len(), 2);
    let plugin = r#"{"outputPath":"/o","assets":[{"name":"a.js"}],"children":[{"outputPath":"/o","assets":[{"name":"w.js"}]}]}"#;
    let described = Stats.read(plugin).unwrap();
    assert_eq!(
        (described.len(), described[0].files.len(), described[0].can.says_loads),
        (1, 2, false)
    );
}

/// Newer versions of Rspack call every part of a whole by the name of that.
#[test]
fn parts_that_are_called_by_the_name_of_the_whole() {
    let stats = r#"{"rspackVersion":"2.0.0","assets":[{"name":"a.js"}],"chunks":[{"id":1,"files":["a.js"]}],"modules":[
        {"type":"module","identifier":"/s/o.js","name":"./o.js","nameForCondition":"/s/o.js","id":2,"chunks":[1]},
        {"type":"module","identifier":"javascript/esm|/s/a.js|0123456789abcdef","name":"./a.js + 1 modules","nameForCondition":"/s/a.js","id":1,"chunks":[1],
         "modules":[{"identifier":"javascript/esm|/s/b.js","name":"./a.js + 1 modules","nameForCondition":"/s/b.js","size":5},
                    {"identifier":"javascript/esm|/s/a.js","name":"./a.js + 1 modules","nameForCondition":"/s/a.js","size":7}]},
        {"type":"module","identifier":"javascript/esm|/s/b.js","name":"./a.js + 1 modules","nameForCondition":"/s/b.js","orphan":true,
         "reasons":[{"type":"esm import","moduleName":"./a.js + 1 modules","resolvedModule":"./a.js + 1 modules","resolvedModuleIdentifier":"javascript/esm|/s/a.js","userRequest":"./b.js"}]}]}"#;
    let described = Stats.read(stats).unwrap().remove(0);
    let names: Vec<&str> = described.modules.iter().map(|module| module.raw.as_str()).collect();
    assert_eq!(names, ["./o.js", "./a.js", "./b.js"]);
    assert_eq!(described.files[0].slots[1].modules, [DescribedId(2), DescribedId(1)]);
    let edge = &described.edges[0];
    assert_eq!((edge.from, edge.to), (DescribedId(1), DescribedId(2)));
    assert_eq!(described.module(DescribedId(2)).bytes, Some(5));
}

#[test]
fn names_without_counts() {
    assert_eq!(whole("./a.js + 12 modules"), "./a.js");
    assert_eq!(whole("./a + b.js"), "./a + b.js");
    assert_eq!(whole("./more modules"), "./more modules");
}
