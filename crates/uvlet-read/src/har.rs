//! Network logs of browsers: HAR 1.2 (HTTP Archive, the W3C draft of 2012), as every browser exports it.

use std::{fs, io, path::Path};

use serde::Deserialize;

/// Bytes of a log that are read.
const LARGEST: u64 = 1 << 30;

/// A log.
#[derive(Clone, Debug, Default)]
pub struct Log {
    /// Pages, in the order of the log.
    pub pages: Vec<LogPage>,
    /// Requests, in the order of the log.
    pub requests: Vec<LogRequest>,
}

/// A page.
#[derive(Clone, Debug)]
pub struct LogPage {
    /// How requests name it.
    pub id: String,
    /// When it began, in milliseconds.
    pub start: f64,
    /// When it had loaded, in milliseconds after that.
    pub loaded: Option<f64>,
}

/// A request with its answer.
#[derive(Clone, Debug)]
pub struct LogRequest {
    /// The page that it was made for.
    pub page: Option<String>,
    /// What was asked for.
    pub url: String,
    /// When, in milliseconds.
    pub at: f64,
    /// The status of the answer; 0 where there was none.
    pub status: u16,
    /// Bytes of the body as they were sent, where that is known.
    pub sent: Option<u64>,
    /// Bytes of the body as it was decoded, where that is known.
    pub decoded: Option<u64>,
    /// The answer came out of the browser's cache.
    pub is_cached: bool,
    /// The content coding.
    pub coding: Option<String>,
    /// `Cache-Control` of the answer.
    pub cache_control: Option<String>,
    /// The type of the answer.
    pub media_type: String,
}

/// Why a log cannot be read.
#[derive(Debug, thiserror::Error)]
pub enum LogError {
    /// The file cannot be read.
    #[error("cannot be read: {}", .0.to_string().split(" (os").next().unwrap_or_default().to_lowercase())]
    Io(#[from] io::Error),
    /// It is no log.
    #[error("is no network log (HAR 1.2): {0}")]
    Form(serde_json::Error),
    /// It holds no request.
    #[error("holds no request: export it again, with the panel open while the page loads")]
    Empty,
}

#[derive(Deserialize)]
struct Har {
    log: Form,
}

#[derive(Deserialize)]
struct Form {
    #[serde(default)]
    pages: Vec<Page>,
    entries: Vec<Entry>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Page {
    id: String,
    started_date_time: String,
    #[serde(default)]
    page_timings: Timings,
}

#[derive(Default, Deserialize)]
#[serde(rename_all = "camelCase")]
struct Timings {
    #[serde(default)]
    on_load: Option<f64>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Entry {
    #[serde(default)]
    pageref: Option<String>,
    started_date_time: String,
    request: Request,
    response: Response,
    #[serde(default, rename = "_fromCache")]
    from_cache: Option<serde_json::Value>,
}

#[derive(Deserialize)]
struct Request {
    url: String,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Response {
    #[serde(default)]
    status: i64,
    #[serde(default)]
    headers: Vec<Header>,
    #[serde(default)]
    content: Content,
    #[serde(default)]
    body_size: Option<i64>,
    #[serde(default, rename = "_transferSize")]
    transfer_size: Option<i64>,
    #[serde(default)]
    headers_size: Option<i64>,
}

#[derive(Default, Deserialize)]
#[serde(rename_all = "camelCase")]
struct Content {
    #[serde(default)]
    size: Option<i64>,
    #[serde(default)]
    mime_type: Option<String>,
}

#[derive(Deserialize)]
struct Header {
    name: String,
    value: String,
}

/// Reads a log.
///
/// # Errors
/// When the file cannot be read, or is none.
pub fn read(path: &Path) -> Result<Log, LogError> {
    let metadata = fs::metadata(path)?;
    if !metadata.is_file() || metadata.len() > LARGEST {
        return Err(io::Error::other("it is no file of a size that is read").into());
    }
    let text = fs::read(path)?;
    let text = text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(&text);
    let Har { log } = serde_json::from_slice(text).map_err(LogError::Form)?;
    if log.entries.is_empty() {
        return Err(LogError::Empty);
    }
    let pages = log.pages.into_iter().map(|page| LogPage {
        start: moment(&page.started_date_time),
        loaded: page.page_timings.on_load.filter(|at| *at >= 0.0),
        id: page.id,
    });
    Ok(Log { pages: pages.collect(), requests: log.entries.into_iter().map(request).collect() })
}

fn request(entry: Entry) -> LogRequest {
    let Entry { pageref, started_date_time, request, response, from_cache } = entry;
    let header = |name: &str| {
        let found = response.headers.iter().find(|header| header.name.eq_ignore_ascii_case(name));
        found.map(|header| header.value.trim().to_owned()).filter(|value| !value.is_empty())
    };
    let known = |size: Option<i64>| size.and_then(|size| u64::try_from(size).ok());
    let is_cached = from_cache.is_some_and(|value| !value.is_null() && value != false)
        || response.status == 304;
    // Where the body's size is not said, that of the transfer is, headers included.
    let body = known(response.body_size);
    let transfer = known(response.transfer_size).filter(|size| *size > 0);
    let headers = known(response.headers_size).unwrap_or(0);
    let sent = body.filter(|size| *size > 0 || transfer.is_none());
    let sent = sent.or_else(|| transfer.map(|size| size.saturating_sub(headers)));
    let media_type = response.content.mime_type.clone().or_else(|| header("content-type"));
    LogRequest {
        page: pageref,
        at: moment(&started_date_time),
        status: u16::try_from(response.status).unwrap_or(0),
        sent: sent.filter(|_| !is_cached),
        decoded: known(response.content.size),
        is_cached,
        coding: header("content-encoding").map(|coding| coding.to_ascii_lowercase()),
        cache_control: header("cache-control"),
        media_type: media_type.unwrap_or_default().to_ascii_lowercase(),
        url: request.url,
    }
}

/// Milliseconds of a moment (RFC 3339); 0 where it is none.
fn moment(text: &str) -> f64 {
    let parsed: Option<jiff::Timestamp> = text.parse().ok();
    parsed.map_or(0.0, |at| at.as_nanosecond() as f64 / 1e6)
}
