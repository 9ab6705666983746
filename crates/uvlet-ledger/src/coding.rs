//! What a text costs on the wire under an HTTP content coding (RFC 9110, section 8.4.1).
//!
//! One fixed, named encoder per coding: sizes of different encoders or levels are not comparable,
//! so whoever shows a size also shows the [`Encoder`] it came from.

use std::{
    fmt,
    io::{self, Read, Write},
    ops::RangeInclusive,
    str::FromStr,
};

use brotli::enc::BrotliEncoderParams;
use flate2::{Compression, read::MultiGzDecoder, write::GzEncoder};
use serde::{Deserialize, Serialize};

use crate::{
    brotli as br,
    charges::{Charges, StreamError},
    deflate::{self, Container},
};

/// An HTTP content coding that this program measures.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
#[serde(rename_all = "lowercase")]
pub enum Coding {
    /// RFC 1952.
    Gzip,
    /// RFC 7932.
    Br,
    /// RFC 8878.
    Zstd,
}

impl Coding {
    /// All of them, in the order in which they are shown.
    pub const ALL: [Self; 3] = [Self::Gzip, Self::Br, Self::Zstd];

    /// The word for it, as HTTP has it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::Gzip => "gzip",
            Self::Br => "br",
            Self::Zstd => "zstd",
        }
    }

    /// The level that is taken unless another is asked for.
    #[must_use]
    pub fn level(self) -> u32 {
        match self {
            Self::Gzip => 9,
            Self::Br => 11,
            Self::Zstd => 19,
        }
    }

    /// The levels that its encoder knows.
    #[must_use]
    pub fn levels(self) -> RangeInclusive<u32> {
        match self {
            Self::Gzip => 0..=9,
            Self::Br => 0..=11,
            Self::Zstd => 1..=22,
        }
    }

    /// The encoder that is linked in: stock zlib with its default memory level and window, brotli
    /// with a window of 22 bits, zstd with the content's size known.
    #[must_use]
    pub fn encoder(self, level: u32) -> Encoder {
        let name = match self {
            Self::Gzip => format!("zlib {}", zlib_version()),
            Self::Br => format!("rust-brotli {BROTLI}"),
            Self::Zstd => format!("zstd {}", zstd::zstd_safe::version_string()),
        };
        Encoder { name, level }
    }

    /// `text` in this coding: as one gzip member (10 bytes of header, no name, 8 of trailer), brotli
    /// stream or zstd frame. `passed` is told how many bytes of the text were read since it was last
    /// called. A level beyond the encoder's is its nearest.
    ///
    /// # Errors
    /// When the encoder fails, as where no memory is left: no size must be made of that.
    pub fn encode(self, text: &[u8], level: u32, passed: &dyn Fn(u64)) -> io::Result<Vec<u8>> {
        let level = level.clamp(*self.levels().start(), *self.levels().end());
        match self {
            Self::Gzip => {
                let mut encoder = GzEncoder::new(Vec::new(), Compression::new(level));
                encoder.write_all(text)?;
                passed(text.len() as u64);
                encoder.finish()
            }
            Self::Br => {
                let mut stream = Vec::new();
                let params = BrotliEncoderParams {
                    quality: i32::try_from(level).unwrap_or(i32::MAX),
                    lgwin: 22,
                    size_hint: text.len(),
                    ..BrotliEncoderParams::default()
                };
                brotli::BrotliCompress(&mut Told { text, passed }, &mut stream, &params)?;
                Ok(stream)
            }
            Self::Zstd => {
                let level = i32::try_from(level).unwrap_or(i32::MAX);
                let stream = zstd::bulk::compress(text, level)?;
                passed(text.len() as u64);
                Ok(stream)
            }
        }
    }

    /// Nanoseconds per byte of code, roughly: who is first in line and how far the work is need no more.
    #[must_use]
    pub fn rate(self, level: u32) -> u64 {
        match (self, level) {
            (Self::Gzip, _) => 75,
            (Self::Br, 10..) => 4000,
            (Self::Br, _) => 300,
            (Self::Zstd, 16..) => 400,
            (Self::Zstd, _) => 100,
        }
    }

    /// What names of precompressed copies end with, without the dot.
    #[must_use]
    pub fn ending(self) -> &'static str {
        match self {
            Self::Gzip => "gz",
            Self::Br => "br",
            Self::Zstd => "zst",
        }
    }

    /// The text of a stream, read as it comes.
    ///
    /// # Errors
    /// Where there is no memory for it; a damaged stream fails as it is read.
    pub fn decoder(self, stream: &[u8]) -> io::Result<Box<dyn Read + '_>> {
        Ok(match self {
            Self::Gzip => Box::new(MultiGzDecoder::new(stream)),
            Self::Br => Box::new(brotli::Decompressor::new(stream, 1 << 16)),
            Self::Zstd => Box::new(zstd::Decoder::new(stream)?),
        })
    }

    /// The text of the first stream alone, where more bytes may follow it.
    ///
    /// # Errors
    /// As of [`decoder`](Self::decoder).
    pub fn decoder_of_first(self, bytes: &[u8]) -> io::Result<Box<dyn Read + '_>> {
        Ok(match self {
            Self::Gzip => Box::new(flate2::bufread::GzDecoder::new(bytes)),
            Self::Br => self.decoder(bytes)?,
            Self::Zstd => Box::new(zstd::Decoder::with_buffer(bytes)?.single_frame()),
        })
    }

    /// Whether what a stream spends can be told place by place.
    #[must_use]
    pub fn is_traced(self) -> bool {
        self != Self::Zstd
    }

    /// Charges a stream in this coding to stretches of its text; see [`deflate::charge`] and
    /// [`br::charge`].
    ///
    /// # Errors
    /// When the stream is damaged or of another text, or the coding is not traced.
    pub fn charge(self, stream: &[u8], text: &[u8], ends: &[u64]) -> Result<Charges, StreamError> {
        match self {
            Self::Gzip => deflate::charge(stream, Container::Gzip, ends),
            Self::Br => br::charge(stream, text, ends),
            Self::Zstd => Err(StreamError::Invalid("a coding that is not traced", 0)),
        }
    }
}

impl fmt::Display for Coding {
    fn fmt(&self, formatter: &mut fmt::Formatter<'_>) -> fmt::Result {
        formatter.pad(self.name())
    }
}

/// A word that names no coding.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("unknown coding `{0}`; there are gzip, br, zstd")]
pub struct UnknownCoding(pub String);

impl FromStr for Coding {
    type Err = UnknownCoding;

    fn from_str(text: &str) -> Result<Self, Self::Err> {
        let found = Self::ALL.into_iter().find(|coding| coding.name() == text);
        found.ok_or_else(|| UnknownCoding(text.to_owned()))
    }
}

/// Takes coded sizes, each coding at one level.
pub trait Sizer: Sync {
    /// Is told of texts that are to come, so that it can say how far it is.
    fn expect(&self, bytes: usize, coding: Coding);
    /// Bytes of a text in a coding; none where it could not be encoded.
    fn size(&self, text: &[u8], coding: Coding) -> Option<u64>;
}

/// The encoder behind a coded size, as it is named in every output.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(schemars::JsonSchema))]
pub struct Encoder {
    /// Library and version.
    pub name: String,
    /// The library's own level.
    pub level: u32,
}

/// Version of the brotli encoder, which it does not say itself; the manifest asks for no other.
const BROTLI: &str = "8.0.4";

#[expect(unsafe_code, reason = "the linked library's version is only told by its C function")]
fn zlib_version() -> String {
    // SAFETY: zlibVersion returns a pointer to a static, NUL-terminated string.
    let version = unsafe { std::ffi::CStr::from_ptr(libz_sys::zlibVersion()) };
    version.to_string_lossy().into_owned()
}

/// A text that tells how much of it was read.
struct Told<'t> {
    text: &'t [u8],
    passed: &'t dyn Fn(u64),
}

impl Read for Told<'_> {
    fn read(&mut self, buffer: &mut [u8]) -> io::Result<usize> {
        let read = self.text.read(buffer)?;
        (self.passed)(read as u64);
        Ok(read)
    }
}

#[cfg(test)]
mod tests {
    use std::cell::Cell;

    use rstest::rstest;

    use super::{BROTLI, Coding};

    fn text() -> Vec<u8> {
        let words = ["ferry ", "tide;", "leaves(", "at", "dawn ", "quay{", "berth=", "x"];
        let mut state = 1_u32;
        let mut word = || {
            state = state.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
            words[(state >> 29) as usize]
        };
        (0..12_000).flat_map(|_| word().bytes()).collect()
    }

    /// Sizes that Python 3.11's zlib binding gives for the same text:
    /// `c = zlib.compressobj(level, 8, 31, 8); len(c.compress(t) + c.flush())`.
    #[test]
    fn gzip_agrees_with_another_binding_of_stock_zlib() {
        let size = |text: &[u8], level| Coding::Gzip.encode(text, level, &|_| {}).unwrap().len();
        assert_eq!([0, 1, 6, 9].map(|level| size(&text(), level)), [55827, 11063, 8050, 7653]);
        assert_eq!(size(b"", 9), 20);
    }

    #[rstest]
    fn what_is_encoded_decodes(#[values(Coding::Br, Coding::Zstd)] coding: Coding) {
        let text = text();
        for level in [1, 5, coding.level()] {
            let read = Cell::new(0);
            let stream =
                coding.encode(&text, level, &|bytes| read.set(read.get() + bytes)).unwrap();
            let decoded = match coding {
                Coding::Br => {
                    let mut decoded = Vec::new();
                    brotli::BrotliDecompress(&mut &stream[..], &mut decoded).unwrap();
                    decoded
                }
                _ => zstd::decode_all(&stream[..]).unwrap(),
            };
            assert!(decoded == text && stream.len() < text.len() / 4);
            assert_eq!(read.get(), text.len() as u64);
        }
    }

    #[test]
    fn the_brotli_encoder_is_the_one_that_is_named() {
        let lock = include_str!("../../../Cargo.lock");
        assert!(lock.contains(&format!("name = \"brotli\"\nversion = \"{BROTLI}\"")));
    }
}
