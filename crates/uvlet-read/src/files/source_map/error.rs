//! Why a source map is of no use.

use std::io;

use uvlet_ledger::{sourcemap::SourceMapError, walk::WalkError};

/// Why a map cannot be used.
#[derive(Debug, thiserror::Error)]
pub enum MapError {
    /// The file's own comment holds none.
    #[error("the inline source map has no data")]
    NoData,
    /// It is not in base64.
    #[error("the inline source map: {0}")]
    Base64(#[from] base64::DecodeError),
    /// It cannot be read.
    #[error("the source map cannot be read ({0})")]
    Io(#[from] io::Error),
    /// It is not UTF-8.
    #[error("the source map is not UTF-8 at byte {0}")]
    NotUtf8(usize),
    /// It is of another form.
    #[error(transparent)]
    Form(#[from] SourceMapError),
    /// It lists more sources than any build has.
    #[error("the source map lists more than {MOST} sources")]
    TooMany,
    /// Its mappings are damaged, or another text's.
    #[error(transparent)]
    Walk(#[from] WalkError),
}

/// Sources that a map may list: no build has a tenth of it, and each takes far more memory than the
/// two quotes that name it.
pub(crate) const MOST: usize = 1_000_000;
