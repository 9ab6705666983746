//! Promises held against a saved record, as every run of continuous integration does.

use std::fs;
use uvlet_audit::ask::gate::limit::{Ceiling, LimitKind, Limits};

use criterion::{Criterion, criterion_group, criterion_main};
use jiff::civil::date;
use uvlet_audit::{
    ask::gate::{
        bench::Aids,
        budget::{Budget, Place, Scope, Strictness},
        gate,
    },
    lens::Lens,
};
use uvlet_read::{Coder, Options, open};
use uvlet_record::{
    SavedTexts,
    sizes::{Coding, Measure},
};

/// Scripts of the build, in bytes: 5 MB in all.
const SCRIPTS: [usize; 10] = [500_000; 10];

fn budget(name: &str, scope: Scope) -> Budget {
    Budget {
        name: name.to_owned(),
        scope,
        place: Place::default(),
        limits: Limits::from([(LimitKind::AtMost, Ceiling::Number(100_000_000))]),
        measure: Measure::Coded(Coding::Gzip),
    }
}

fn benches(criterion: &mut Criterion) {
    let Ok(folder) = tempfile::tempdir() else { return };
    let mut page = String::new();
    for (at, size) in SCRIPTS.into_iter().enumerate() {
        let script = uvlet_benches::script(size, at as u64);
        let name = format!("part{at}.js");
        let written = fs::write(folder.path().join(&name), &script.text)
            .and_then(|()| fs::write(folder.path().join(format!("{name}.map")), &script.map));
        assert!(written.is_ok());
        page.push_str(&format!("<script type=module src={name}></script>"));
    }
    assert!(fs::write(folder.path().join("index.html"), page).is_ok());
    let coder = || Coder { levels: [(Coding::Gzip, 1)].into(), ..Coder::default() };
    let options = || Options { coder: coder(), ..Options::default() };
    let Ok((record, _)) = open(folder.path(), &options()) else { return };
    let saved = folder.path().join("saved.json");
    assert!(record.to_json("0").is_ok_and(|json| fs::write(&saved, json).is_ok()));
    let selectors = ["startup(*)", "third-party", "package(*) and startup(*)", "chunk(*)"];
    let budgets: Vec<Budget> = selectors
        .iter()
        .filter_map(|text| {
            let selector = text.parse().ok()?;
            let is_each = text.starts_with("package") || text.starts_with("chunk");
            Some(budget(text, if is_each { Scope::Each(selector) } else { Scope::Total(selector) }))
        })
        .collect();
    assert_eq!(budgets.len(), selectors.len());
    let texts = SavedTexts::default();
    let mut group = criterion.benchmark_group("gate");
    group.sample_size(20);
    group.bench_function("a saved record of 5 MB of scripts", |bench| {
        bench.iter(|| {
            let Ok((record, _)) = open(&saved, &options()) else { return };
            let aids = Aids {
                texts: &texts,
                costs: None,
                languages: &[],
                texts_of_base: &texts,
                base: None,
                waivers: &[],
                today: date(2027, 1, 1),
            };
            let answer = gate(&Lens::new(&record), &budgets, Strictness::default(), aids);
            assert!(answer.is_ok_and(|answer| answer.budgets.len() > SCRIPTS.len()));
        });
    });
    group.finish();
}

criterion_group!(gates, benches);
criterion_main!(gates);
