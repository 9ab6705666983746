//! Requests with a token: to one host, with an end to waiting, trying again and following.

use std::{
    net::IpAddr,
    thread,
    time::{Duration, Instant},
};

use base64::{Engine, engine::general_purpose::STANDARD};
use percent_encoding::{NON_ALPHANUMERIC, utf8_percent_encode};
use serde::de::DeserializeOwned;
use serde_json::Value;
use ureq::{
    Agent, AsSendBody,
    http::{Method, Request, Response, Uri},
};

use crate::place::{Forge, Place};

/// Redirects that are followed.
const REDIRECTS: usize = 3;
/// How often something is tried.
const TRIES: u32 = 3;
/// The longest that a forge may ask to wait for.
const LONGEST_WAIT: Duration = Duration::from_secs(20);
/// The largest answer that is read.
const LARGEST: u64 = 32 << 20;
/// The largest refusal.
const LARGEST_REFUSAL: u64 = 64 << 10;
/// Characters of what a forge says that are repeated.
const REPEATED: usize = 200;

/// Why nothing was posted.
#[derive(Debug, thiserror::Error)]
pub enum PostError {
    /// The address is none.
    #[error(
        "{0} is not the address of an interface; it is written as https://forge.example/api/v1"
    )]
    Address(String),
    /// The address has a name or a password in it.
    #[error(
        "the address of the interface has a name or a password in it; a token in a variable is all that is needed"
    )]
    Password,
    /// The token could be read on its way.
    #[error(
        "http://{host} is not encrypted, so that anyone on the way could read the token; name an https address, or give --plain-http if the way is yours"
    )]
    Plain {
        /// The host.
        host: String,
    },
    /// The forge cannot be reached, or does not answer in time.
    #[error("{host} does not answer: {message}")]
    Unreachable {
        /// The host.
        host: String,
        /// Why.
        message: String,
    },
    /// The forge says no.
    #[error("{host} refuses with {status}{said}{hint}")]
    Refused {
        /// The host.
        host: String,
        /// Status of the answer.
        status: u16,
        /// What it says, behind a colon.
        said: String,
        /// What may help, behind a semicolon.
        hint: &'static str,
    },
    /// The forge asks for patience beyond ours.
    #[error("{host} takes no more requests for {seconds} s")]
    Limited {
        /// The host.
        host: String,
        /// For so long.
        seconds: u64,
    },
    /// It sends the request elsewhere.
    #[error(
        "{host} sends the request on to {to}, which gets no token; name that with --api if it is right"
    )]
    Elsewhere {
        /// The host.
        host: String,
        /// Where to.
        to: String,
    },
    /// The answer is longer than any that is waited for.
    #[error("{host} answers with more than {} MiB", LARGEST >> 20)]
    Endless {
        /// The host.
        host: String,
    },
    /// The answer is not what the interface promises.
    #[error("{host} answers in an unexpected form")]
    Strange {
        /// The host.
        host: String,
    },
}

impl PostError {
    /// Whether another try may help, and after what time.
    fn wait(&self) -> Option<Duration> {
        match self {
            Self::Unreachable { .. } => Some(Duration::from_millis(300)),
            Self::Refused { status, .. } if *status >= 500 => Some(Duration::from_millis(300)),
            Self::Limited { seconds, .. } => {
                Some(Duration::from_secs(*seconds)).filter(|wait| *wait <= LONGEST_WAIT)
            }
            _ => None,
        }
    }
}

/// One host that is spoken to.
#[derive(Debug)]
pub struct Http {
    agent: Agent,
    place: Place,
    token: String,
    host: String,
    end: Instant,
}

/// What a token is sent with.
#[derive(Debug)]
pub struct Terms {
    /// The token.
    pub token: String,
    /// All requests together end after this time.
    pub timeout: Duration,
    /// Whether it may be sent without encryption to another machine.
    pub may_be_plain: bool,
}

impl Http {
    /// Makes ready to speak to a forge.
    ///
    /// # Errors
    /// When the address of its interface is none, or not one that a token should be sent to.
    pub fn new(place: Place, terms: Terms) -> Result<Self, PostError> {
        let host = host_of(&place.api, terms.may_be_plain)?;
        let config = Agent::config_builder()
            .http_status_as_error(false)
            // Elsewhere gets no token.
            .max_redirects(0)
            .user_agent(concat!("uvlet/", env!("CARGO_PKG_VERSION")))
            .build();
        let (token, end) = (terms.token, Instant::now() + terms.timeout);
        Ok(Self { agent: config.into(), place, token, host, end })
    }

    /// Does something again while that may help and there is time for it, a few times.
    ///
    /// # Errors
    /// What the last try met.
    pub(crate) fn again<T>(
        &self,
        mut something: impl FnMut() -> Result<T, PostError>,
    ) -> Result<T, PostError> {
        let mut tries = 1;
        loop {
            match something() {
                Err(error) if tries < TRIES => match error.wait() {
                    Some(wait) if Instant::now() + wait < self.end => thread::sleep(wait),
                    _ => return Err(error),
                },
                ended => return ended,
            }
            tries += 1;
        }
    }

    /// Where it speaks to.
    #[must_use]
    pub fn place(&self) -> &Place {
        &self.place
    }

    /// Asks, and gives the answer's JSON.
    pub(crate) fn ask<T: DeserializeOwned>(
        &self,
        method: &Method,
        path: &str,
        body: Option<&Value>,
    ) -> Result<T, PostError> {
        let mut address = format!("{}{path}", self.place.api);
        for _ in 0..=REDIRECTS {
            let mut answer = self.send(method, &address, body)?;
            let status = answer.status().as_u16();
            let header = |name: &str| {
                answer.headers().get(name).and_then(|value| value.to_str().ok()).map(str::to_owned)
            };
            // The older two turn a POST into a GET in the hands of many.
            let is_safe = matches!(status, 307 | 308) || *method == Method::GET;
            match (status, header("location")) {
                (300..400, Some(to)) if is_safe => {
                    address = self.same_host(&address, &to).ok_or_else(|| self.elsewhere(&to))?;
                }
                (300..400, Some(to)) => return Err(self.elsewhere(&to)),
                (200..300, _) => {
                    let text = answer.body_mut().with_config().limit(LARGEST).read_to_vec();
                    let text = text.map_err(|error| self.unread(&error))?;
                    return serde_json::from_slice(&text)
                        .map_err(|_| PostError::Strange { host: self.host.clone() });
                }
                _ => {
                    let is_out = header("x-ratelimit-remaining").as_deref() == Some("0");
                    let wait = header("retry-after").and_then(|seconds| seconds.parse().ok());
                    if status == 429 || (status == 403 && (is_out || wait.is_some())) {
                        // Without a word of how long, it is not a matter of seconds.
                        let seconds = wait.unwrap_or(if is_out { 3600 } else { 1 });
                        return Err(PostError::Limited { host: self.host.clone(), seconds });
                    }
                    return Err(self.refused(status, &mut answer));
                }
            }
        }
        Err(self.elsewhere(&address))
    }

    fn send(
        &self,
        method: &Method,
        address: &str,
        body: Option<&Value>,
    ) -> Result<Response<ureq::Body>, PostError> {
        let (name, value) = match self.place.forge {
            Forge::GitHub => ("authorization", format!("Bearer {}", self.token)),
            Forge::GitLab => ("private-token", self.token.clone()),
            Forge::Gitea => ("authorization", format!("token {}", self.token)),
        };
        let left = self.end.saturating_duration_since(Instant::now());
        if left.is_zero() {
            let message = "the time for all requests is over".to_owned();
            return Err(PostError::Unreachable { host: self.host.clone(), message });
        }
        let request = Request::builder()
            .method(method)
            .uri(address)
            .header(name, value)
            .header("accept", "application/json")
            .header("content-type", "application/json");
        let text = body.map(Value::to_string).unwrap_or_default();
        let address = || PostError::Address(self.clean(address));
        let sent = match body {
            Some(_) => self.run(request.body(text).map_err(|_| address())?, left),
            None => self.run(request.body(()).map_err(|_| address())?, left),
        };
        sent.map_err(|error| {
            let message = self.clean(&error.to_string());
            PostError::Unreachable { host: self.host.clone(), message }
        })
    }

    fn unread(&self, error: &ureq::Error) -> PostError {
        let host = self.host.clone();
        match error {
            ureq::Error::BodyExceedsLimit(_) => PostError::Endless { host },
            error => PostError::Unreachable { host, message: self.clean(&error.to_string()) },
        }
    }

    fn run(
        &self,
        request: Request<impl AsSendBody>,
        left: Duration,
    ) -> Result<Response<ureq::Body>, ureq::Error> {
        let request = self.agent.configure_request(request).timeout_global(Some(left)).build();
        self.agent.run(request)
    }

    fn refused(&self, status: u16, answer: &mut Response<ureq::Body>) -> PostError {
        let text = answer.body_mut().with_config().limit(LARGEST_REFUSAL).read_to_string();
        let text = text.unwrap_or_default();
        let json: Value = serde_json::from_str(&text).unwrap_or_default();
        let said = ["message", "error"].into_iter().find_map(|key| json[key].as_str());
        let said: String = self.clean(said.unwrap_or_default()).chars().take(REPEATED).collect();
        let hint = match status {
            401 => "; the token is not taken",
            403 => "; the token may not do this: it needs to write comments and statuses",
            404 => "; the project or the pull request is not there, or the token may not see it",
            _ => "",
        };
        let said = if said.is_empty() { said } else { format!(": {said}") };
        PostError::Refused { host: self.host.clone(), status, said, hint }
    }

    /// An address that stays with the host that may see the token.
    fn same_host(&self, from: &str, to: &str) -> Option<String> {
        let from: Uri = from.parse().ok()?;
        let (scheme, authority) = (from.scheme()?, from.authority()?);
        if to.starts_with('/') && !to.starts_with("//") {
            return Some(format!("{scheme}://{authority}{to}"));
        }
        let uri: Uri = to.parse().ok()?;
        (uri.scheme() == Some(scheme) && uri.authority() == Some(authority)).then(|| to.to_owned())
    }

    fn elsewhere(&self, to: &str) -> PostError {
        PostError::Elsewhere { host: self.host.clone(), to: self.clean(to) }
    }

    /// Text from outside, without the token in any way of writing that a server may repeat it in.
    fn clean(&self, text: &str) -> String {
        let encoded = utf8_percent_encode(&self.token, NON_ALPHANUMERIC).to_string();
        let unreserved = encoded.replace("%2D", "-").replace("%5F", "_");
        let unreserved = unreserved.replace("%2E", ".").replace("%7E", "~");
        let lower = [&encoded, &unreserved].map(|text| lower_escapes(text));
        let base = STANDARD.encode(&self.token);
        let bare = base.trim_end_matches('=').to_owned();
        let forms = [self.token.clone(), encoded, unreserved, base, bare].into_iter().chain(lower);
        forms.fold(text.to_owned(), |text, form| text.replace(&form, "…"))
    }
}

/// An encoded text with its escapes in small letters, which mean the same (RFC 3986, section 2.1).
fn lower_escapes(text: &str) -> String {
    let mut parts = text.split('%');
    let first = parts.next().unwrap_or_default().to_owned();
    parts.fold(first, |text, part| {
        let (hex, rest) = part.split_at(2);
        format!("{text}%{}{rest}", hex.to_lowercase())
    })
}

/// The host of an interface that a token may be sent to.
fn host_of(api: &str, may_be_plain: bool) -> Result<String, PostError> {
    let unfit = || match api.contains('@') {
        true => PostError::Password,
        false => PostError::Address(api.to_owned()),
    };
    let uri: Uri = api.parse().map_err(|_| unfit())?;
    let authority = uri.authority().ok_or_else(unfit)?;
    if authority.as_str().contains('@') {
        return Err(PostError::Password);
    }
    let name = uri.host().unwrap_or_default().trim_matches(['[', ']']);
    let is_here =
        name == "localhost" || name.parse::<IpAddr>().is_ok_and(|address| address.is_loopback());
    match uri.scheme_str() {
        Some("https") => Ok(authority.to_string()),
        Some("http") if is_here || may_be_plain => Ok(authority.to_string()),
        Some("http") => Err(PostError::Plain { host: authority.to_string() }),
        _ => Err(unfit()),
    }
}
