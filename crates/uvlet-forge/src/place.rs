//! Which forge, project, pull request and commit: as given, else as the variables of a CI job say.

use serde_json::Value;

/// A family of forges.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, strum::EnumMessage, strum::IntoStaticStr, strum::VariantArray,
)]
#[strum(serialize_all = "lowercase")]
pub enum Forge {
    /// GitHub.
    #[strum(serialize = "github")]
    GitHub,
    /// GitLab.
    #[strum(serialize = "gitlab")]
    GitLab,
    /// Gitea and Forgejo.
    Gitea,
}

impl Forge {
    /// Its name on a command line.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.into()
    }

    /// Variables that may hold its token, the one that counts most first.
    #[must_use]
    pub fn tokens(self) -> &'static [&'static str] {
        match self {
            Self::GitHub => &["UVLET_TOKEN", "GITHUB_TOKEN"],
            Self::GitLab => &["UVLET_TOKEN", "GITLAB_TOKEN"],
            Self::Gitea => &["UVLET_TOKEN", "GITEA_TOKEN", "FORGEJO_TOKEN", "GITHUB_TOKEN"],
        }
    }
}

/// What was said outright.
#[derive(Clone, Debug, Default)]
pub struct Given {
    /// The family of forges.
    pub forge: Option<Forge>,
    /// Root of its interface, as `https://forge.example/api/v1`.
    pub api: Option<String>,
    /// The project: `owner/name`, or a number.
    pub project: Option<String>,
    /// The number of the pull request.
    pub change: Option<u64>,
    /// The commit.
    pub commit: Option<String>,
}

/// Where to post.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Place {
    /// The family of forges.
    pub forge: Forge,
    /// Root of its interface, without a slash at its end.
    pub api: String,
    /// The project.
    pub project: String,
    /// The pull request; none where a branch is built.
    pub change: Option<u64>,
    /// The commit.
    pub commit: Option<String>,
}

/// What is not known.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum Missing {
    /// Which forge it is.
    #[error("no variable tells which forge this runs for; name it with --forge")]
    Forge,
    /// Where its interface is.
    #[error("no variable tells where the forge is; name its interface with --api")]
    Api,
    /// Which project it is.
    #[error("no variable tells which project this is; name it with --project")]
    Project,
    /// A token.
    #[error("there is no token; put one into {0}")]
    Token(String),
    /// A token that no request can carry.
    #[error("the token in {0} has blanks or line breaks within; put the token alone there")]
    Spoilt(&'static str),
}

/// Finds out where to post. `variable` gives variables of the environment, `file` texts of files.
///
/// # Errors
/// What is neither given nor told by a variable.
pub fn find(
    given: &Given,
    variable: &dyn Fn(&str) -> Option<String>,
    file: &dyn Fn(&str) -> Option<String>,
) -> Result<Place, Missing> {
    let variable = |name: &str| variable(name).filter(|value| !value.is_empty());
    let is_set = |name: &str| variable(name).is_some_and(|value| value == "true");
    // Gitea's runners set the variables of GitHub's, too.
    let told = if is_set("GITEA_ACTIONS") || is_set("FORGEJO_ACTIONS") {
        Some(Forge::Gitea)
    } else if is_set("GITHUB_ACTIONS") {
        Some(Forge::GitHub)
    } else if is_set("GITLAB_CI") {
        Some(Forge::GitLab)
    } else {
        None
    };
    let forge = given.forge.or(told).ok_or(Missing::Forge)?;
    // Variables of another forge's job say nothing of this one.
    let told = |name: &str| variable(name).filter(|_| told == Some(forge));
    let event = told("GITHUB_EVENT_PATH").and_then(|path| file(&path));
    let event: Value = event.and_then(|text| serde_json::from_str(&text).ok()).unwrap_or_default();
    let (api, project, change, commit) = match forge {
        Forge::GitHub | Forge::Gitea => {
            let request = &event["pull_request"];
            let number = told("GITHUB_REF")
                .and_then(|name| name.strip_prefix("refs/pull/")?.split('/').next()?.parse().ok());
            // The job's own commit is a merge that nobody looks at.
            let head = request["head"]["sha"].as_str().map(str::to_owned);
            let api = told("GITHUB_API_URL")
                .or_else(|| (forge == Forge::GitHub).then(|| "https://api.github.com".to_owned()));
            let change = request["number"].as_u64().or(number);
            (api, told("GITHUB_REPOSITORY"), change, head.or_else(|| told("GITHUB_SHA")))
        }
        Forge::GitLab => {
            let number = told("CI_MERGE_REQUEST_IID").and_then(|number| number.parse().ok());
            (told("CI_API_V4_URL"), told("CI_PROJECT_ID"), number, told("CI_COMMIT_SHA"))
        }
    };
    let api = given.api.clone().or(api).ok_or(Missing::Api)?;
    Ok(Place {
        forge,
        api: api.trim_end_matches('/').to_owned(),
        project: given.project.clone().or(project).ok_or(Missing::Project)?,
        change: given.change.or(change),
        commit: given.commit.clone().or(commit),
    })
}

/// The token for a forge; blanks around it, as a file's last line feed, are none of it.
///
/// # Errors
/// When no variable has one, or what it has is none.
pub fn token(forge: Forge, variable: &dyn Fn(&str) -> Option<String>) -> Result<String, Missing> {
    let set = |name: &&'static str| {
        let value = variable(name)?.trim().to_owned();
        (!value.is_empty()).then_some((*name, value))
    };
    let (name, token) = forge
        .tokens()
        .iter()
        .find_map(set)
        .ok_or_else(|| Missing::Token(forge.tokens().join(" or ")))?;
    if !token.bytes().all(|byte| byte.is_ascii_graphic()) {
        return Err(Missing::Spoilt(name));
    }
    Ok(token)
}
