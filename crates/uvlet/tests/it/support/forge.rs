//! A stand-in for a forge: a server that keeps comments and statuses, or behaves badly.

use std::{
    io::{BufRead, BufReader, Read, Write},
    net::{TcpListener, TcpStream},
    sync::{Arc, Mutex},
    thread,
    time::Duration,
};

use serde_json::{Value, json};

/// How it behaves.
#[derive(Clone, Debug)]
pub enum Manner {
    /// As it should.
    Well,
    /// Refuses every request with a status, and repeats the token that it was given.
    Refuses(u16),
    /// Answers so late that nobody waits.
    Slow,
    /// Sends every request on to an address.
    SendsOn(u16, String),
    /// Is out of patience for the first requests, and asks to wait so many seconds.
    Limits { first: usize, seconds: u64 },
    /// Breaks down at the first requests.
    BreaksDown { first: usize },
    /// Answers, but with no JSON.
    Babbles,
    /// Answers without an end, as fast as anybody reads.
    Pours,
    /// Answers without an end, a byte now and then.
    Drips,
    /// Has given a CI job's token, which may not ask whose it is.
    HidesAccount,
}

/// What it was asked and what it keeps.
#[derive(Default)]
pub struct Kept {
    /// Method, path and token of each request.
    pub asked: Vec<(String, String, String)>,
    /// Texts of comments.
    pub comments: Vec<String>,
    /// Which of them somebody else wrote.
    pub of_others: Vec<usize>,
    /// Bodies of statuses.
    pub statuses: Vec<Value>,
    /// Bytes that were taken of answers without an end.
    pub poured: u64,
}

/// A running stand-in.
pub struct Forge {
    pub address: String,
    pub kept: Arc<Mutex<Kept>>,
}

impl Forge {
    /// Starts one that has comments already.
    pub fn start(manner: Manner, comments: &[&str]) -> Self {
        let listener = TcpListener::bind("127.0.0.1:0").unwrap();
        let address = format!("http://{}", listener.local_addr().unwrap());
        let comments = comments.iter().map(|&text| text.to_owned()).collect();
        let kept = Arc::new(Mutex::new(Kept { comments, ..Kept::default() }));
        let shared = Arc::clone(&kept);
        thread::spawn(move || {
            for stream in listener.incoming().map_while(Result::ok) {
                let (manner, kept) = (manner.clone(), Arc::clone(&shared));
                thread::spawn(move || answer(stream, &manner, &kept));
            }
        });
        Self { address, kept }
    }
}

fn answer(mut stream: TcpStream, manner: &Manner, kept: &Mutex<Kept>) {
    let mut reader = BufReader::new(stream.try_clone().unwrap());
    let mut line = String::new();
    reader.read_line(&mut line).unwrap();
    let mut words = line.split_whitespace().map(str::to_owned);
    let (Some(method), Some(path)) = (words.next(), words.next()) else { return };
    let (mut length, mut token) = (0, String::new());
    loop {
        let mut line = String::new();
        reader.read_line(&mut line).unwrap();
        let Some((name, value)) = line.trim().split_once(": ") else { break };
        match name.to_ascii_lowercase().as_str() {
            "content-length" => length = value.parse().unwrap(),
            "authorization" | "private-token" => value.clone_into(&mut token),
            _ => {}
        }
    }
    let mut body = vec![0; length];
    reader.read_exact(&mut body).unwrap();
    let body: Value = serde_json::from_slice(&body).unwrap_or_default();
    let asked = {
        let mut kept = kept.lock().unwrap();
        kept.asked.push((method.clone(), path.clone(), token.clone()));
        kept.asked.len()
    };
    let (status, head, text) = match manner {
        Manner::Slow => {
            thread::sleep(Duration::from_secs(4));
            return;
        }
        Manner::Pours | Manner::Drips => {
            let (piece, pause) = match manner {
                Manner::Pours => (64 << 10, Duration::ZERO),
                _ => (1, Duration::from_millis(100)),
            };
            let head = "HTTP/1.1 200 X\r\ncontent-length: 9999999999999\r\n\r\n[";
            let mut more = stream.write_all(head.as_bytes());
            while more.is_ok() {
                thread::sleep(pause);
                more = stream.write_all(&vec![b' '; piece]);
                kept.lock().unwrap().poured += piece as u64;
            }
            return;
        }
        Manner::Refuses(status) => {
            // What it keeps stands for other ways in which a server writes a token.
            let said = [&[token], &kept.lock().unwrap().comments[..]].concat().join(": ");
            (*status, String::new(), json!({"message": format!("no, {said}")}).to_string())
        }
        Manner::SendsOn(status, to) => {
            let to = if to.starts_with("http") { to.clone() } else { format!("{to}{path}") };
            (*status, format!("location: {to}\r\n"), String::new())
        }
        Manner::Limits { first, seconds } if asked <= *first => {
            (429, format!("retry-after: {seconds}\r\n"), String::new())
        }
        Manner::HidesAccount if path == "/user" => (403, String::new(), "{}".to_owned()),
        Manner::BreaksDown { first } if asked <= *first => (502, String::new(), String::new()),
        Manner::Babbles => (200, String::new(), "<html>".to_owned()),
        _ => {
            let answer = keep(&method, &path, &body, &mut kept.lock().unwrap());
            (200, String::new(), answer.to_string())
        }
    };
    let length = text.len();
    let _ = write!(
        stream,
        "HTTP/1.1 {status} X\r\ncontent-length: {length}\r\nconnection: close\r\n{head}\r\n{text}"
    );
}

/// The account of the token.
const OWN: i64 = 41;

fn keep(method: &str, path: &str, body: &Value, kept: &mut Kept) -> Value {
    let text = body["body"].as_str().unwrap_or_default().to_owned();
    let (path, query) = path.split_once('?').unwrap_or((path, ""));
    let last = path.rsplit('/').next().unwrap_or_default();
    let account = |id: i64| match id {
        OWN => json!({"id": OWN, "login": "github-actions[bot]", "type": "Bot"}),
        id => json!({"id": id, "login": "somebody", "type": "User"}),
    };
    match (method, last) {
        ("GET", "user") => account(OWN),
        ("GET", _) => {
            let page = query.rsplit_once("page=").and_then(|(_, page)| page.parse().ok());
            let comments = kept.comments.iter().enumerate();
            let comments = comments.map(|(id, text)| {
                let author = account(if kept.of_others.contains(&id) { OWN + 1 } else { OWN });
                let key = if last == "notes" { "author" } else { "user" };
                json!({"id": id, "body": text, key: author})
            });
            comments.skip(100 * (page.unwrap_or(1) - 1)).take(100).collect()
        }
        ("POST", "comments" | "notes") => {
            kept.comments.push(text);
            json!({})
        }
        ("PATCH" | "PUT", id) => {
            kept.comments[id.parse::<usize>().unwrap()] = text;
            json!({})
        }
        _ => {
            kept.statuses.push(body.clone());
            json!({})
        }
    }
}
