//! The walk over one map, beside reading that map's JSON alone.

use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use uvlet_ledger::{
    sourcemap::SourceMap,
    walk::{Shape, walk},
};

fn benches(criterion: &mut Criterion) {
    let script = uvlet_benches::script(2_000_000, 1);
    let mut group = criterion.benchmark_group("walk");
    group.sample_size(30).throughput(Throughput::Bytes(script.map.len() as u64));
    group.bench_function("read the map's JSON", |bench| {
        bench.iter(|| {
            let map = SourceMap::parse(&script.map);
            assert!(map.is_ok_and(|map| map.source_count() == script.modules));
        });
    });
    group.bench_function("read and walk it", |bench| {
        bench.iter(|| {
            let spans = SourceMap::parse(&script.map)
                .ok()
                .and_then(|map| walk(script.text.as_bytes(), &map, &Shape::default()).ok())
                .map_or(0, |walked| walked.spans.len());
            assert_eq!(spans, script.modules);
        });
    });
    group.finish();
}

criterion_group!(walks, benches);
criterion_main!(walks);
