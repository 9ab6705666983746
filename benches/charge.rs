//! Charging a coded stream to the owners of its text, beside making the stream.

use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use uvlet_ledger::coding::Coding;

/// Bytes that one owner has in a row, about as in real chunks.
const STRETCH: usize = 1500;

fn benches(criterion: &mut Criterion) {
    let script = uvlet_benches::script(2_000_000, 1);
    let text = script.text.as_bytes();
    let mut ends: Vec<u64> = (1..)
        .map(|at| at * STRETCH)
        .take_while(|&end| end < text.len())
        .map(|end| end as u64)
        .collect();
    ends.push(text.len() as u64);
    for (coding, level) in [(Coding::Gzip, 9), (Coding::Br, 5), (Coding::Br, 11)] {
        let stream = coding.encode(text, level, &|_| {}).unwrap_or_default();
        let mut group = criterion.benchmark_group(format!("{coding} at {level}"));
        group.sample_size(10).throughput(Throughput::Bytes(text.len() as u64));
        // A quality that takes many seconds a time needs no quotient.
        if level < 10 {
            group.bench_function("encode", |bench| {
                bench.iter(|| {
                    assert_eq!(coding.encode(text, level, &|_| {}).ok().as_ref(), Some(&stream))
                });
            });
        }
        group.bench_function("charge", |bench| {
            bench.iter(|| {
                let charges = coding.charge(&stream, text, &ends);
                assert!(charges.is_ok_and(|charges| charges.stretches.len() == ends.len()));
            });
        });
        group.finish();
    }
}

criterion_group!(charges, benches);
criterion_main!(charges);
