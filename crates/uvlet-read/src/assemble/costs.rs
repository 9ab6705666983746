//! What any part of a file costs on the wire: its stream, made again by the record's encoder, is traced
//! against a finer partition.

use uvlet_ledger::{charges::Charges, shares::apportion};
use uvlet_record::{Costs, FileId, Record, Texts, sizes::Coding};

use crate::coded::coder::Coder;

/// Costs by tracing. Where the stream is not that of the record (a precompressed copy was taken for
/// it) or cannot be traced, bits are shared out in proportion to bytes, and
/// [`is_traced`](Self::is_traced) says so.
pub struct TracedCosts<'a> {
    record: &'a Record,
    texts: &'a dyn Texts,
    coder: Coder,
}

impl<'a> TracedCosts<'a> {
    /// Of a record and its texts; streams of earlier runs are taken from the coder's cache.
    #[must_use]
    pub fn new(record: &'a Record, texts: &'a dyn Texts, coder: &Coder) -> Self {
        let levels = record.encoders.iter().map(|(&coding, encoder)| (coding, encoder.level));
        Self { record, texts, coder: Coder { levels: levels.collect(), ..coder.clone() } }
    }

    /// Whether the bits of a file are told place by place.
    #[must_use]
    pub fn is_traced(&self, file: FileId, coding: Coding) -> bool {
        let length = self.record.file(file).emitted;
        self.traced(file, coding, &[length]).is_some()
    }

    fn traced(&self, file: FileId, coding: Coding, ends: &[u64]) -> Option<Charges> {
        let bytes = *self.record.file(file).encoded.get(coding)?;
        let text = self.texts.emitted(file).filter(|_| coding.is_traced())?;
        let stream = self.coder.encode(&text, coding).ok()?;
        let is_its = stream.len() as u64 == bytes;
        is_its.then(|| coding.charge(&stream, &text, ends).ok()).flatten()
    }
}

impl Costs for TracedCosts<'_> {
    fn spent(&self, file: FileId, coding: Coding, ends: &[u64]) -> Option<Charges> {
        let all = self.record.file(file);
        let bits = all.encoded.get(coding)?.checked_mul(8)?;
        if ends.last() != Some(&all.emitted) || !ends.is_sorted() {
            return None;
        }
        self.traced(file, coding, ends).or_else(|| {
            let starts = std::iter::once(&0).chain(ends);
            let lengths: Vec<u64> = starts.zip(ends).map(|(start, end)| end - start).collect();
            // An empty file has a coded size all the same.
            let is_empty = lengths.iter().all(|length| *length == 0);
            let stretches = if is_empty { vec![0; ends.len()] } else { apportion(bits, &lengths) };
            Some(Charges { stretches, container: if is_empty { bits } else { 0 } })
        })
    }
}

#[cfg(test)]
mod tests {
    use std::fs;

    use proptest::{collection::vec, prelude::*};
    use uvlet_record::{Costs, FileId, sizes::Coding};

    use super::TracedCosts;
    use crate::{Coder, Options, open};

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(24))]
        #[test]
        fn parts_add_up_to_the_file(words in vec("[a-e]{1,8}|é|[0-9]{1,3}", 1..200), cuts in vec(any::<u16>(), 0..40)) {
            let folder = tempfile::tempdir().unwrap();
            let text = format!("x(`{}`)", words.join(" "));
            fs::write(folder.path().join("a.js"), &text).unwrap();
            let levels = Coding::ALL.map(|coding| (coding, if coding == Coding::Br { 5 } else { coding.level() }));
            let coder = Coder { levels: levels.into(), ..Coder::default() };
            let options = Options { coder: coder.clone(), ..Options::default() };
            let (record, texts) = open(folder.path(), &options).unwrap();
            let costs = TracedCosts::new(&record, texts.as_ref(), &coder);
            let length = text.len() as u64;
            let mut ends: Vec<u64> = cuts.iter().map(|cut| u64::from(*cut) % length).collect();
            ends.push(length);
            ends.sort_unstable();
            for coding in Coding::ALL {
                let spent = costs.spent(FileId(0), coding, &ends).unwrap();
                prop_assert_eq!(spent.stretches.len(), ends.len());
                let sum: u64 = spent.stretches.iter().sum::<u64>() + spent.container;
                prop_assert_eq!(sum, 8 * record.files[0].encoded.get(coding).unwrap());
                prop_assert_eq!(costs.is_traced(FileId(0), coding), coding != Coding::Zstd);
            }
            let wrong = costs.spent(FileId(0), Coding::Gzip, &[length + 1]);
            prop_assert!(wrong.is_none());
        }
    }
}
