//! Records as JSON: how they are written, and read back with suspicion.
//!
//! A saved record comes from outside like any other input: its form's version is read before all
//! else, and its invariants are checked before it is used.

use serde::{Deserialize, Serialize};
use serde_json::value::RawValue;

use crate::{
    build::{Record, SCHEMA},
    verify::Flaw,
};

/// Why a text is no record that can be used.
#[derive(Debug, thiserror::Error)]
pub enum SavedError {
    /// It is not JSON of a record's form.
    #[error("is not a record: {0}")]
    Form(String),
    /// It is far larger than a record would be.
    #[error("is not a record: it unpacks to far more than a build's record would")]
    TooLarge,
    /// It is a pipe or a device that lies in a folder: nobody may write to it.
    #[error("is not a plain file")]
    NotPlain,
    /// It is no text.
    #[error("is not a record: it is not UTF-8 text")]
    NotText,
    /// It was written by a newer program.
    #[error("is a record of schema {found}, this program reads {SCHEMA}")]
    Newer {
        /// The schema it names.
        found: u32,
    },
    /// It was written by an older program.
    #[error("is a record of schema {found}, this program reads {SCHEMA}")]
    Older {
        /// The schema it names.
        found: u32,
    },
    /// It breaks the record's rules.
    #[error("is a damaged record: {0}")]
    Flaw(#[from] Flaw),
}

#[derive(Serialize, Deserialize)]
struct About {
    schema: u32,
    version: String,
    command: String,
}

#[derive(Serialize)]
struct Written<'a> {
    uvlet: About,
    record: &'a Record,
}

#[derive(Deserialize)]
struct Read<'a> {
    uvlet: About,
    #[serde(borrow)]
    record: &'a RawValue,
}

impl Record {
    /// The record as JSON text, by a program of this version.
    ///
    /// # Errors
    /// None in practice: a record holds nothing that JSON cannot.
    pub fn to_json(&self, version: &str) -> Result<String, serde_json::Error> {
        let uvlet =
            About { schema: SCHEMA, version: version.to_owned(), command: "record".to_owned() };
        let mut text = serde_json::to_string(&Written { uvlet, record: self })?;
        text.push('\n');
        Ok(text)
    }

    /// Reads what [`to_json`](Self::to_json) wrote.
    ///
    /// # Errors
    /// When the text is no record, one of a newer schema, or one that breaks the rules.
    pub fn from_json(text: &str) -> Result<Self, SavedError> {
        let form = |error: serde_json::Error| SavedError::Form(error.to_string());
        let read: Read<'_> = serde_json::from_str(text).map_err(form)?;
        if read.uvlet.schema > SCHEMA {
            return Err(SavedError::Newer { found: read.uvlet.schema });
        }
        if read.uvlet.schema < SCHEMA {
            return Err(SavedError::Older { found: read.uvlet.schema });
        }
        let record: Self = serde_json::from_str(read.record.get()).map_err(form)?;
        record.verify()?;
        Ok(record)
    }
}
