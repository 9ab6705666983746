//! What a text costs on the wire under an HTTP content coding (RFC 9110, section 8.4.1).
//!
//! One fixed, named encoder per coding: sizes of different encoders or levels are not comparable,
//! so whoever shows a size also shows the [`Encoder`] it came from.

use std::io::{self, Write};

use flate2::{Compression, write::GzEncoder};
use schemars::JsonSchema;
use serde::{Deserialize, Serialize};

/// The encoder behind a coded size, as it is named in every output.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize, JsonSchema)]
pub struct Encoder {
    /// Library and version.
    pub name: String,
    /// The library's own level.
    pub level: u32,
}

/// Level of the `gzip` coding unless another is asked for.
pub const GZIP_LEVEL: u32 = 9;

/// The stock zlib that this program is linked with.
#[must_use]
pub fn gzip_encoder(level: u32) -> Encoder {
    Encoder { name: format!("zlib {}", zlib_version()), level }
}

#[expect(unsafe_code, reason = "the linked library's version is only told by its C function")]
fn zlib_version() -> String {
    // SAFETY: zlibVersion returns a pointer to a static, NUL-terminated string.
    let version = unsafe { std::ffi::CStr::from_ptr(libz_sys::zlibVersion()) };
    version.to_string_lossy().into_owned()
}

/// Bytes of `text` as one gzip member (RFC 1952: 10 bytes of header, no name, 8 of trailer), made
/// by stock zlib at `level` (0 to 9) with its default memory level and window.
#[must_use]
pub fn gzip_size(text: &[u8], level: u32) -> u64 {
    let mut encoder = GzEncoder::new(Counter(0), Compression::new(level.min(9)));
    // Counting cannot fail, so neither can writing to it.
    let _ = encoder.write_all(text);
    encoder.finish().map_or(0, |counter| counter.0)
}

/// `text` as one gzip member, as [`gzip_size`] measures it.
#[must_use]
pub fn gzip(text: &[u8], level: u32) -> Vec<u8> {
    let mut encoder = GzEncoder::new(Vec::new(), Compression::new(level.min(9)));
    // Memory cannot fail as a sink, so neither can writing to it.
    let _ = encoder.write_all(text);
    encoder.finish().unwrap_or_default()
}

/// A sink that only counts: the coded text itself is never needed.
struct Counter(u64);

impl Write for Counter {
    fn write(&mut self, buffer: &[u8]) -> io::Result<usize> {
        self.0 += buffer.len() as u64;
        Ok(buffer.len())
    }

    fn flush(&mut self) -> io::Result<()> {
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::gzip_size;

    /// Sizes that Python 3.11's zlib binding gives for the same text:
    /// `c = zlib.compressobj(level, 8, 31, 8); len(c.compress(t) + c.flush())`.
    #[test]
    fn agrees_with_another_binding_of_stock_zlib() {
        let words = ["ferry ", "tide;", "leaves(", "at", "dawn ", "quay{", "berth=", "x"];
        let mut state = 1_u32;
        let text: String = (0..12_000)
            .map(|_| {
                state = state.wrapping_mul(1_664_525).wrapping_add(1_013_904_223);
                words[(state >> 29) as usize]
            })
            .collect();
        let sizes = [0, 1, 6, 9].map(|level| gzip_size(text.as_bytes(), level));
        assert_eq!(sizes, [55827, 11063, 8050, 7653]);
        assert_eq!(gzip_size(b"", 9), 20);
    }
}
