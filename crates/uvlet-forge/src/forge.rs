//! Comments and statuses, as each family of forges spells them.

use serde::{Deserialize, de::IgnoredAny};
use serde_json::json;
use ureq::http::Method;

use crate::{
    http::{Http, PostError},
    place::Forge,
};

/// Comments of a page, and pages that are looked at.
const PAGE: usize = 100;
const PAGES: usize = 30;

/// A comment that is found again by what its first line is.
#[derive(Clone, Copy, Debug)]
pub struct Comment<'t> {
    /// The first line.
    pub mark: &'t str,
    /// All of it.
    pub text: &'t str,
}

/// What became of a comment.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Posted {
    /// It is new.
    Created,
    /// It took the place of an earlier one.
    Renewed,
    /// The earlier one says the same.
    Unchanged,
}

/// How a build stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum State {
    /// It keeps its promises.
    Held,
    /// It breaks one.
    Broken,
    /// That cannot be told.
    Undecided,
}

/// The status of a commit.
#[derive(Clone, Copy, Debug)]
pub struct Status<'t> {
    /// How it stands.
    pub state: State,
    /// Whose word this is.
    pub name: &'t str,
    /// In one short line.
    pub said: &'t str,
}

/// Creates a comment of a pull request, or renews the one with the same mark that the token's own
/// account wrote: whoever else wrote it could change it again afterwards. Tried again after a failure
/// that may pass: an earlier one is looked for each time, so that none is there twice.
///
/// # Errors
/// Why it could not be posted.
pub fn comment(http: &Http, change: u64, comment: Comment<'_>) -> Result<Posted, PostError> {
    http.again(|| {
        let project = project(http);
        let all = match http.place().forge {
            Forge::GitLab => format!("{project}/merge_requests/{change}/notes"),
            Forge::GitHub | Forge::Gitea => format!("{project}/issues/{change}/comments"),
        };
        let body = json!({"body": comment.text});
        let Some((id, text)) = earlier(http, &all, comment.mark)? else {
            http.ask::<IgnoredAny>(&Method::POST, &all, Some(&body))?;
            return Ok(Posted::Created);
        };
        if text == comment.text {
            return Ok(Posted::Unchanged);
        }
        match http.place().forge {
            Forge::GitLab => {
                http.ask::<IgnoredAny>(&Method::PUT, &format!("{all}/{id}"), Some(&body))?
            }
            Forge::GitHub | Forge::Gitea => {
                let one = format!("{project}/issues/comments/{id}");
                http.ask(&Method::PATCH, &one, Some(&body))?
            }
        };
        Ok(Posted::Renewed)
    })
}

/// A comment as a forge lists it; what else it says is not kept.
#[derive(Deserialize, PartialEq, Eq)]
struct Listed {
    id: u64,
    body: Option<String>,
    #[serde(alias = "author")]
    user: Option<Account>,
}

/// Who wrote a comment, or whose a token is.
#[derive(Deserialize, PartialEq, Eq)]
struct Account {
    id: i64,
    #[serde(default)]
    login: String,
    #[serde(default, rename = "type")]
    kind: String,
}

/// Which comments a token's account wrote.
enum Own {
    /// Those of this account.
    Of(i64),
    /// Those of a CI job or an app, which no person can write as.
    OfJob,
}

impl Own {
    fn ask(http: &Http) -> Result<Self, PostError> {
        match http.ask::<Account>(&Method::GET, "/user", None) {
            Ok(account) => Ok(Self::Of(account.id)),
            Err(PostError::Refused { status: 401 | 403 | 404, .. }) => Ok(Self::OfJob),
            Err(error) => Err(error),
        }
    }

    fn wrote(&self, comment: &Listed, forge: Forge) -> bool {
        comment.user.as_ref().is_some_and(|user| match (self, forge) {
            (Self::Of(id), _) => user.id == *id,
            (Self::OfJob, Forge::GitHub) => user.kind == "Bot",
            // Names that nobody can register.
            (Self::OfJob, Forge::Gitea) => {
                matches!(user.login.as_str(), "gitea-actions" | "forgejo-actions")
            }
            (Self::OfJob, Forge::GitLab) => false,
        })
    }
}

/// The own comment that begins with a mark, by its number.
fn earlier(http: &Http, all: &str, mark: &str) -> Result<Option<(u64, String)>, PostError> {
    let mut before = Vec::new();
    let mut own = None;
    for page in 1..=PAGES {
        let path = format!("{all}?per_page={PAGE}&page={page}");
        let comments: Vec<Listed> = http.ask(&Method::GET, &path, None)?;
        let is_marked =
            |one: &&Listed| one.body.as_deref().and_then(|text| text.lines().next()) == Some(mark);
        for one in comments.iter().filter(is_marked) {
            let own = match &own {
                Some(own) => own,
                None => own.insert(Own::ask(http)?),
            };
            if own.wrote(one, http.place().forge) {
                return Ok(Some((one.id, one.body.clone().unwrap_or_default())));
            }
        }
        // Where pages are not known, each is the first.
        if comments.len() < PAGE || comments == before {
            break;
        }
        before = comments;
    }
    Ok(None)
}

/// Sets the status of a commit.
///
/// # Errors
/// Why it could not be set.
pub fn status(http: &Http, commit: &str, status: Status<'_>) -> Result<(), PostError> {
    const LONGEST: usize = 140;
    let said: String = status.said.chars().take(LONGEST).collect();
    let commit = segment(commit);
    let (path, body) = match http.place().forge {
        Forge::GitLab => {
            let state = match status.state {
                State::Held => "success",
                State::Broken | State::Undecided => "failed",
            };
            let body = json!({"state": state, "name": status.name, "description": said});
            (format!("{}/statuses/{commit}", project(http)), body)
        }
        Forge::GitHub | Forge::Gitea => {
            let state = match status.state {
                State::Held => "success",
                State::Broken => "failure",
                State::Undecided => "error",
            };
            let body = json!({"state": state, "context": status.name, "description": said});
            (format!("{}/statuses/{commit}", project(http)), body)
        }
    };
    http.again(|| http.ask::<IgnoredAny>(&Method::POST, &path, Some(&body))).map(drop)
}

fn project(http: &Http) -> String {
    let place = http.place();
    match place.forge {
        Forge::GitLab => format!("/projects/{}", segment(&place.project)),
        Forge::GitHub | Forge::Gitea => {
            let parts: Vec<String> = place.project.split('/').map(segment).collect();
            format!("/repos/{}", parts.join("/"))
        }
    }
}

/// A text as one segment of a path (RFC 3986).
fn segment(text: &str) -> String {
    let keeps = |byte: u8| byte.is_ascii_alphanumeric() || b"-._~".contains(&byte);
    text.bytes()
        .map(|byte| if keeps(byte) { char::from(byte).to_string() } else { format!("%{byte:02X}") })
        .collect()
}
