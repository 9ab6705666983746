//! A whole build, from the folder to the survey.

use std::fs;

use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use uvlet_audit::{ask::survey::survey, lens::Lens};
use uvlet_read::{Coder, Options, open};
use uvlet_record::sizes::Coding;

/// Scripts of the build, in bytes: one large, several small, as chunks are.
const SCRIPTS: [usize; 8] = [1_200_000, 600_000, 300_000, 150_000, 80_000, 40_000, 20_000, 10_000];

fn benches(criterion: &mut Criterion) {
    let Ok(folder) = tempfile::tempdir() else { return };
    let mut page = String::new();
    let mut bytes = 0;
    for (at, size) in SCRIPTS.into_iter().enumerate() {
        let script = uvlet_benches::script(size, at as u64);
        let name = format!("part{at}.js");
        let written = fs::write(folder.path().join(&name), &script.text)
            .and_then(|()| fs::write(folder.path().join(format!("{name}.map")), &script.map));
        assert!(written.is_ok());
        bytes += script.text.len() + script.map.len();
        page.push_str(&format!("<script type=module src={name}></script>"));
    }
    assert!(fs::write(folder.path().join("index.html"), page).is_ok());
    let coder = Coder { levels: [(Coding::Gzip, 9)].into(), ..Coder::default() };
    let options = Options { coder, ..Options::default() };
    let mut group = criterion.benchmark_group("read");
    group.sample_size(10).throughput(Throughput::Bytes(bytes as u64));
    group.bench_function("survey a folder", |bench| {
        bench.iter(|| {
            let record = open(folder.path(), &options);
            let files = record.map_or(0, |(record, _)| {
                survey(&Lens::new(&record)).entries.first().map_or(0, |e| e.startup.file_count)
            });
            assert_eq!(files, SCRIPTS.len() + 1);
        });
    });
    group.finish();
}

criterion_group!(reads, benches);
criterion_main!(reads);
