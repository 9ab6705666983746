//! What browsers recorded of a build: code that ran, and requests that were made.

/// A recording of code that ran.
#[derive(Clone, Debug)]
pub struct Recording {
    /// What it is called.
    pub label: String,
    /// The scripts and styles in it.
    pub seen: Vec<Seen>,
}

/// A script or style of a recording.
#[derive(Clone, Debug)]
pub struct Seen {
    /// Where it was loaded from.
    pub url: String,
    /// Its text, where the recording holds it.
    pub text: Option<String>,
    /// Its length in UTF-16 code units, as far as the recording tells.
    pub length: Option<u64>,
    /// Stretches in UTF-16 code units, each with whether it ran; a later one lies inside earlier ones, or
    /// beside them.
    pub ranges: Vec<(u64, u64, bool)>,
    /// Functions in UTF-16 code units, each with its name, where the recording tells them apart.
    pub functions: Vec<(u64, u64, String)>,
}

/// A page of a network log.
#[derive(Clone, Debug)]
pub struct LogPage {
    /// What was opened, as a path.
    pub url: String,
    /// What it asked for, in order.
    pub requests: Vec<LogRequest>,
    /// It is known when it had loaded.
    pub knows_load: bool,
}

/// A request of a network log, with its answer.
#[derive(Clone, Debug)]
pub struct LogRequest {
    /// The whole address.
    pub url: String,
    /// It was made once the page had loaded.
    pub is_later: bool,
    /// The status of the answer; 0 where there was none.
    pub status: u16,
    /// Bytes of the body on the wire; none where they are not known, or came from the cache.
    pub sent: Option<u64>,
    /// Bytes of the body, decoded.
    pub decoded: Option<u64>,
    /// It came from the cache.
    pub is_cached: bool,
    /// The content coding.
    pub coding: Option<String>,
    /// `Cache-Control` of the answer.
    pub cache_control: Option<String>,
}
