//! Takes coded sizes: which codings at which levels, from the cache where it has them, with an eye on
//! how far the work is.

use std::{
    collections::BTreeMap,
    io,
    sync::{
        Arc,
        atomic::{AtomicU64, Ordering},
    },
};

use uvlet_ledger::coding::Sizer;
use uvlet_record::sizes::Coding;

use super::{
    cache::{self, Cache},
    precompressed,
};

/// How coded sizes are taken.
#[derive(Clone, Debug, Default)]
pub struct Coder {
    /// The codings that are taken, each at its level.
    pub levels: BTreeMap<Coding, u32>,
    /// Streams that were made before.
    pub cache: Option<Arc<Cache>>,
    /// How far the work is.
    pub progress: Arc<Progress>,
}

/// What is worth a look into the cache, in nanoseconds of encoding.
const WORTHWHILE: u64 = 1_000_000;

impl Coder {
    /// A text in a coding that is taken. Its [`cost`](Self::cost) is added to the work that is done.
    ///
    /// # Errors
    /// When the encoder fails.
    pub fn encode(&self, text: &[u8], coding: Coding) -> io::Result<Vec<u8>> {
        let level = self.levels.get(&coding).copied().unwrap_or_else(|| coding.level());
        let rate = coding.rate(level);
        let passed = |bytes: u64| self.progress.advance(bytes.saturating_mul(rate));
        let cache = self.cache.as_deref().filter(|_| self.cost(text.len(), coding) >= WORTHWHILE);
        let Some(cache) = cache else { return coding.encode(text, level, &passed) };
        let key = cache::Key::new(text, coding, &coding.encoder(level));
        let kept = cache.get(&key, text.len());
        // Whoever can write to the folder could keep anything there.
        let is_its = |stream: &Vec<u8>| precompressed::is_just(stream, coding, text);
        if let Some(stream) = kept.filter(is_its) {
            passed(text.len() as u64);
            return Ok(stream);
        }
        let stream = coding.encode(text, level, &passed)?;
        cache.put(&key, &stream);
        Ok(stream)
    }

    /// About what encoding a text of so many bytes costs, in nanoseconds.
    #[must_use]
    pub fn cost(&self, bytes: usize, coding: Coding) -> u64 {
        let level = self.levels.get(&coding).copied().unwrap_or_else(|| coding.level());
        coding.rate(level).saturating_mul(bytes as u64)
    }
}

impl Sizer for Coder {
    fn expect(&self, bytes: usize, coding: Coding) {
        self.progress.expect(self.cost(bytes, coding));
    }

    fn size(&self, text: &[u8], coding: Coding) -> Option<u64> {
        self.encode(text, coding).ok().map(|stream| stream.len() as u64)
    }
}

/// How far encoding is; anyone may look while it goes on.
#[derive(Debug, Default)]
pub struct Progress {
    all: AtomicU64,
    done: AtomicU64,
}

impl Progress {
    /// Work that is to be done besides, in nanoseconds.
    pub fn expect(&self, work: u64) {
        self.all.fetch_add(work, Ordering::Relaxed);
    }

    fn advance(&self, work: u64) {
        self.done.fetch_add(work, Ordering::Relaxed);
    }

    /// Parts done and parts in all, in nanoseconds of one core.
    #[must_use]
    pub fn parts(&self) -> (u64, u64) {
        let all = self.all.load(Ordering::Relaxed);
        (self.done.load(Ordering::Relaxed).min(all), all)
    }
}
