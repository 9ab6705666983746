//! A prediction on a build of 4 MB: the graph, the cut and the new texts, and the same with encoding them.

use criterion::{Criterion, criterion_group, criterion_main};
use uvlet_audit::{
    ask::what_if::{Asked, what_if},
    lens::Lens,
    predict::step::{Change, Step},
    select::subject::{Subject, SubjectKind},
};
use uvlet_benches::site::generate;
use uvlet_read::{Coder, Options, open};
use uvlet_record::{ModuleId, sizes::Coding};

fn benches(criterion: &mut Criterion) {
    let Ok(folder) = tempfile::tempdir() else { return };
    assert!(generate(folder.path(), 1).is_ok());
    let coder = Coder { levels: [(Coding::Gzip, 6)].into(), ..Coder::default() };
    let options = Options {
        coder: coder.clone(),
        description: Some(folder.path().join("stats.json")),
        sources: true,
        ..Options::default()
    };
    let Ok((record, texts)) = open(&folder.path().join("dist"), &options) else { return };
    let lens = Lens::new(&record);
    // Some modules of every file, put into one of their own.
    let some = (0..record.modules.len()).step_by(40).map(ModuleId::new).collect();
    let mut step =
        Step::new(Change::Gather, Subject::of("some", SubjectKind::Selector, some, &lens));
    step.name = "some".to_owned();
    let steps = [step];
    let mut group = criterion.benchmark_group("what-if");
    group.sample_size(10);
    for (name, codings) in [("as emitted", &[][..]), ("with gzip", &[Coding::Gzip])] {
        group.bench_function(name, |bench| {
            bench.iter(|| {
                let answer = what_if(&lens, &steps, Asked::default(), &*texts, &coder, codings);
                assert!(answer.is_ok_and(|answer| answer.moved.len() > 10));
            });
        });
    }
    group.finish();
}

criterion_group!(predictions, benches);
criterion_main!(predictions);
