//! Charging a gzip stream to the owners of its text, beside making the stream.

use criterion::{Criterion, Throughput, criterion_group, criterion_main};
use uvlet_ledger::{
    coding,
    deflate::{Container, charge},
};

/// Bytes that one owner has in a row, about as in real chunks.
const STRETCH: usize = 1500;

fn benches(criterion: &mut Criterion) {
    let script = uvlet_benches::script(2_000_000, 1);
    let text = script.text.as_bytes();
    let stream = coding::gzip(text, coding::GZIP_LEVEL);
    let mut ends: Vec<u64> = (1..)
        .map(|at| at * STRETCH)
        .take_while(|&end| end < text.len())
        .map(|end| end as u64)
        .collect();
    ends.push(text.len() as u64);
    let mut group = criterion.benchmark_group("deflate");
    group.sample_size(20).throughput(Throughput::Bytes(text.len() as u64));
    group.bench_function("compress", |bench| {
        bench.iter(|| assert_eq!(coding::gzip_size(text, coding::GZIP_LEVEL), stream.len() as u64));
    });
    group.bench_function("charge", |bench| {
        bench.iter(|| {
            let charges = charge(&stream, Container::Gzip, &ends);
            assert!(charges.is_ok_and(|charges| charges.stretches.len() == ends.len()));
        });
    });
    group.finish();
}

criterion_group!(charges, benches);
criterion_main!(charges);
