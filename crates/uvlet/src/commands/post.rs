//! `uvlet post`.

use crate::args::show::Color;
use crate::args::word::word;
use clap::Args;
use std::path::PathBuf;
use std::{env, fs, io, path::Path, time::Duration};
use uvlet_forge::Forge;
use uvlet_record::fault;

use serde_json::Value;
use uvlet_forge::{
    Comment, Given, Http, Place, Posted, State, Status as Standing, Terms, comment, find, status,
    token,
};

use crate::{
    failure::{Failure, Status},
    output,
};

#[derive(Debug, Args)]
pub struct Arguments {
    /// The text, as Markdown.
    #[arg(value_name = "FILE")]
    pub file: PathBuf,
    /// The gate's JSON, for a status of the commit.
    #[arg(long, value_name = "FILE")]
    pub verdict: Option<PathBuf>,
    /// Which kind of forge [default: as the CI job says].
    #[arg(long, value_parser = word::<Forge>())]
    pub forge: Option<Forge>,
    /// Root of the forge's interface, as https://forge.example/api/v1.
    #[arg(long, value_name = "URL")]
    pub api: Option<String>,
    /// The project, as owner/name.
    #[arg(long, value_name = "PROJECT")]
    pub project: Option<String>,
    /// Number of the pull request.
    #[arg(long, value_name = "NUMBER")]
    pub change: Option<u64>,
    /// The commit that gets the status.
    #[arg(long, value_name = "SHA")]
    pub commit: Option<String>,
    /// Name of the status.
    #[arg(long, value_name = "TEXT", default_value = "uvlet")]
    pub name: String,
    /// Seconds after which posting is given up, all requests together.
    #[arg(long, value_name = "SECONDS", default_value_t = 30, value_parser = clap::value_parser!(u64).range(1..=3600))]
    pub timeout: u64,
    /// Show what would be posted and where, without a token and without a request.
    #[arg(long)]
    pub dry_run: bool,
    /// Send the token to an http address of another machine, without encryption.
    #[arg(long)]
    pub plain_http: bool,
    /// End with 2 where something could not be posted.
    #[arg(long)]
    pub must: bool,
    /// Colour the output.
    #[arg(long, value_enum, default_value_t = Color::Auto)]
    pub color: Color,
}

/// Bytes of a file that is read.
const LARGEST: u64 = 64 << 20;
/// What a forge takes in one comment, with room to spare.
const LONGEST: usize = 60_000;

pub fn run(arguments: &Arguments) -> Result<Status, Failure> {
    let text = read(&arguments.file)?;
    let verdict = arguments.verdict.as_deref().map(verdict).transpose()?;
    let given = Given {
        forge: arguments.forge,
        api: arguments.api.clone(),
        project: arguments.project.clone(),
        change: arguments.change,
        commit: arguments.commit.clone(),
    };
    let variable = |name: &str| env::var(name).ok();
    let file = |path: &str| read(Path::new(path)).ok();
    let missing = |missing| Failure::Usage(format!("nothing is posted: {missing}"));
    let place = find(&given, &variable, &file).map_err(missing)?;
    let token = match arguments.dry_run {
        true => String::new(),
        false => token(place.forge, &variable).map_err(missing)?,
    };
    let (change, commit) = (place.change, place.commit.clone());
    if change.is_none() && (verdict.is_none() || commit.is_none()) {
        let said = "nothing is posted: this is no job of a pull request; name one with --change";
        let failure = Failure::Usage(said.to_owned());
        return ended(vec![failure], arguments.must);
    }
    let unposted = |what: &str, error| Failure::Post { what: what.to_owned(), error };
    if arguments.dry_run {
        let said = rehearsed(&place, &marked(&text, &arguments.file).1, verdict.as_ref());
        output::write(&said, None, arguments.color)?;
        return Ok(Status::Held);
    }
    let terms = Terms {
        token,
        timeout: Duration::from_secs(arguments.timeout),
        may_be_plain: arguments.plain_http,
    };
    let http = Http::new(place, terms).map_err(|error| unposted("nothing", error))?;
    let mut failures = Vec::new();
    let mut done = Vec::new();
    if let Some(change) = change {
        let (mark, text) = marked(&text, &arguments.file);
        match comment(&http, change, Comment { mark: &mark, text: &text }) {
            Ok(posted) => {
                let word = match posted {
                    Posted::Created => "posted",
                    Posted::Renewed => "renewed",
                    Posted::Unchanged => "there already, and says the same",
                };
                done.push(format!("The comment of pull request {change} is {word}."));
            }
            Err(error) => failures.push(unposted("the comment", error)),
        }
    }
    if let (Some((state, said)), Some(commit)) = (&verdict, &commit) {
        let standing = Standing { state: *state, name: &arguments.name, said };
        match status(&http, commit, standing) {
            Ok(()) => done.push(format!("The status of {commit} is set: {said}")),
            Err(error) => failures.push(unposted("the status", error)),
        }
    }
    let said: String = done.iter().map(|line| format!("{}\n", uvlet_view::plain(line))).collect();
    output::write(&said, None, arguments.color)?;
    ended(failures, arguments.must)
}

/// What would be posted, and where.
fn rehearsed(place: &Place, text: &str, verdict: Option<&(State, String)>) -> String {
    let mut lines = vec!["Nothing is posted: this only shows what would be.".to_owned()];
    // A password in an address is shown to nobody.
    let api = place.api.rsplit_once('@').map_or(place.api.as_str(), |(_, rest)| rest);
    let at = format!("{} at {api}", place.project);
    if let (Some((_, said)), Some(commit)) = (verdict, &place.commit) {
        lines.push(format!("The status of commit {commit} of {at}: {said}"));
    }
    if let Some(change) = place.change {
        lines.push(format!("The comment of pull request {change} of {at}:\n"));
    }
    let head: String = lines.iter().map(|line| format!("{}\n", uvlet_view::plain(line))).collect();
    match place.change {
        Some(_) => format!("{}\n{text}", head),
        None => head,
    }
}

/// Says what failed. A forge that is down is no fault of the build, and ends nothing unless it must.
fn ended(mut failures: Vec<Failure>, must: bool) -> Result<Status, Failure> {
    let last = failures.pop();
    failures.iter().for_each(output::complain);
    match last {
        Some(last) if must => Err(last),
        last => {
            last.iter().for_each(output::complain);
            Ok(Status::Held)
        }
    }
}

/// The text of a plain file: a pipe might never end.
fn read(path: &Path) -> Result<String, Failure> {
    let about = fs::metadata(path).map_err(|error| unreadable(path, &error))?;
    if !about.is_file() || about.len() > LARGEST {
        let said = format!("{}: is no plain file of at most {} MB", path.display(), LARGEST >> 20);
        return Err(Failure::Usage(said));
    }
    fs::read_to_string(path).map_err(|error| unreadable(path, &error))
}

fn unreadable(path: &Path, error: &io::Error) -> Failure {
    let error = fault::reason(error);
    Failure::Usage(format!("{}: cannot be read: {error}", path.display()))
}

/// How the gate stands, from what it wrote.
fn verdict(path: &Path) -> Result<(State, String), Failure> {
    let wrong = || {
        let said = "is no verdict; `uvlet gate --write json=FILE` writes one";
        Failure::Usage(format!("{}: {said}", path.display()))
    };
    let json: Value = serde_json::from_str(&read(path)?).map_err(|_| wrong())?;
    let limits = json["budgets"].as_array().filter(|_| json["uvlet"]["command"] == "gate");
    let limits = limits.ok_or_else(wrong)?;
    let of = |word: &str| limits.iter().filter(|row| row["verdict"] == word).count();
    let all = limits.len();
    Ok(match json["verdict"].as_str() {
        Some("broken") => (State::Broken, format!("{} of {all} limits are broken", of("broken"))),
        Some("undecided") => {
            (State::Undecided, format!("{} of {all} limits cannot be judged", of("undecided")))
        }
        Some("met") => {
            let warned = of("warned");
            (State::Held, format!("{} of {all} limits are met", of("met") + warned))
        }
        Some("unjudged") => (State::Held, "no limit was judged".to_owned()),
        _ => return Err(wrong()),
    })
}

/// The comment with the mark by which it is found again, and no longer than a forge takes.
fn marked(text: &str, path: &Path) -> (String, String) {
    let first = text.lines().next().unwrap_or_default();
    let is_marked = first.starts_with("<!-- uvlet ") && first.ends_with("-->");
    let (mark, text) = match is_marked {
        true => (first.to_owned(), text.to_owned()),
        false => {
            let name = path.file_name().unwrap_or_default().to_string_lossy();
            let mark = format!("<!-- uvlet {} -->", name.replace("--", "‐‐").replace('>', "›"));
            let text = format!("{mark}\n{text}");
            (mark, text)
        }
    };
    if text.len() <= LONGEST {
        return (mark, text);
    }
    // Folds are whole or not there.
    let end = text.floor_char_boundary(LONGEST);
    let cut = text[..end].rfind("<details>").filter(|at| *at > mark.len()).unwrap_or(end);
    let rest = text.len() - cut;
    (mark, format!("{}\n\n{rest} more bytes are in the job's own output.\n", &text[..cut]))
}
