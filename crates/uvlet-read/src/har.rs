//! Network logs of browsers: HAR 1.2 (HTTP Archive, the W3C draft of 2012), as every browser exports it.

use std::{collections::BTreeMap, fs, io, path::Path};

use serde::Deserialize;
use uvlet_record::{LogPage, LogRequest, fault};

use crate::folder::text::Unfit;

/// Bytes of a log that are read.
const LARGEST: u64 = 1 << 30;

/// Why a log cannot be read.
#[derive(Debug, thiserror::Error)]
pub enum LogError {
    /// The file cannot be read.
    #[error("cannot be read: {}", fault::reason(.0))]
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

/// A request before it is known which page it is of.
struct Made {
    page: Option<String>,
    at: f64,
    media_type: String,
    request: LogRequest,
}

/// Reads a log: its pages with their requests, in order; all of them are one page where the log names none.
///
/// # Errors
/// When the file cannot be read, or is none.
pub fn read(path: &Path) -> Result<Vec<LogPage>, LogError> {
    let metadata = fs::metadata(path)?;
    if !metadata.is_file() || metadata.len() > LARGEST {
        return Err(io::Error::other(Unfit::NotPlain).into());
    }
    let text = fs::read(path)?;
    let text = text.strip_prefix(b"\xef\xbb\xbf").unwrap_or(&text);
    let Har { log } = serde_json::from_slice(text).map_err(LogError::Form)?;
    if log.entries.is_empty() {
        return Err(LogError::Empty);
    }
    let mut by_page: BTreeMap<Option<String>, Vec<Made>> = BTreeMap::new();
    for made in log.entries.into_iter().map(made) {
        let page = made.page.clone().filter(|id| log.pages.iter().any(|page| page.id == *id));
        by_page.entry(page).or_default().push(made);
    }
    let known = log.pages.iter().map(|page| (Some(page.id.clone()), Some(page)));
    let pages = known.chain([(None, None)]);
    Ok(pages.filter_map(|(id, page)| Some(of_page(page, by_page.remove(&id)?))).collect())
}

fn of_page(page: Option<&Page>, mut list: Vec<Made>) -> LogPage {
    list.sort_by(|a, b| a.at.total_cmp(&b.at));
    let is_page = |made: &&Made| made.media_type.starts_with("text/html");
    let opened = list.iter().find(is_page).or(list.first());
    let url = opened.map(|made| made.request.url.clone()).unwrap_or_default();
    let end = page.and_then(|page| {
        let loaded = page.page_timings.on_load.filter(|at| *at >= 0.0);
        Some(moment(&page.started_date_time) + loaded?)
    });
    let requests = list
        .into_iter()
        .map(|made| LogRequest { is_later: end.is_some_and(|end| made.at > end), ..made.request });
    LogPage { url, requests: requests.collect(), knows_load: end.is_some() }
}

fn made(entry: Entry) -> Made {
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
    Made {
        page: pageref,
        at: moment(&started_date_time),
        media_type: media_type.unwrap_or_default().to_ascii_lowercase(),
        request: LogRequest {
            url: request.url,
            is_later: false,
            status: u16::try_from(response.status).unwrap_or(0),
            sent: sent.filter(|_| !is_cached),
            decoded: known(response.content.size),
            is_cached,
            coding: header("content-encoding").map(|coding| coding.to_ascii_lowercase()),
            cache_control: header("cache-control"),
        },
    }
}

/// Milliseconds of a moment (RFC 3339); 0 where it is none.
fn moment(text: &str) -> f64 {
    let parsed: Option<jiff::Timestamp> = text.parse().ok();
    parsed.map_or(0.0, |at| at.as_nanosecond() as f64 / 1e6)
}
