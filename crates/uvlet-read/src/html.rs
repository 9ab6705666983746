//! What an HTML page asks for, in document order (HTML Standard, sections "script" and "link").
//!
//! Every local script, style and preload arrives before the page's own code has run; `prefetch`,
//! alternate and print styles come later. Inline scripts and styles are bytes of the page, but
//! what they load is asked for all the same.

//!
//! The tokenizer alone is used, without building a tree: it takes time in proportion to the page,
//! however badly tags nest.

use std::{cell::RefCell, collections::BTreeMap};

use html5ever::tokenizer::{
    BufferQueue, Tag, TagKind, Token, TokenSink, TokenSinkResult, Tokenizer, TokenizerOpts,
    states::RawKind,
};
use serde::Deserialize;

use crate::{
    emitted::{self, Opened},
    styles,
};

/// What a page asks for. URLs stand as written.
#[derive(Debug, Default, PartialEq, Eq)]
pub struct Page {
    /// `<base href>`.
    pub base: Option<String>,
    /// What arrives at startup, in order.
    pub asks: Vec<Ask>,
    /// What only browsers without modules fetch.
    pub legacy: Vec<Ask>,
    /// What arrives later without being asked for by code.
    pub later: Vec<Ask>,
    /// What inline code opens on demand.
    pub openings: Vec<Opened>,
    /// Bare specifiers that an import map ties to URLs.
    pub imports: BTreeMap<String, String>,
    /// The page runs scripts, so it is an entry.
    pub has_script: bool,
}

impl Page {
    /// What an inline style asks for.
    fn style(&mut self, text: &str) {
        let urls = styles::urls(text);
        self.asks.extend(urls.needed.into_iter().map(|url| ask(url, false)));
        self.later.extend(urls.perhaps.into_iter().map(|url| ask(url, false)));
    }
}

/// One thing asked for.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Ask {
    /// The URL, or the specifier of an inline module.
    pub url: String,
    /// It stands in an inline module, where bare words are packages.
    pub specifier: bool,
    /// A missing file is worth a notice: the page cannot work without.
    pub needed: bool,
}

/// Reads a page.
pub fn read(text: &str) -> Page {
    let tokenizer = Tokenizer::new(Reader::default(), TokenizerOpts::default());
    let input = BufferQueue::default();
    input.push_back(text.into());
    let _ = tokenizer.feed(&input);
    tokenizer.end();
    tokenizer.sink.0.into_inner().page
}

#[derive(Default)]
struct Reader(RefCell<State>);

#[derive(Default)]
struct State {
    page: Page,
    /// Open elements whose content reaches no visitor whose scripts run.
    inert: usize,
    /// The script or style that is open, with its text so far.
    open: Option<(Element, String)>,
}

impl TokenSink for Reader {
    type Handle = ();

    fn process_token(&self, token: Token, _line: u64) -> TokenSinkResult<()> {
        let mut state = self.0.borrow_mut();
        match token {
            Token::TagToken(tag) if tag.kind == TagKind::StartTag => return state.start(&tag),
            Token::TagToken(tag) => state.end(&tag.name),
            Token::CharacterTokens(text) => {
                if let Some((_, body)) = &mut state.open {
                    body.push_str(&text);
                }
            }
            _ => {}
        }
        TokenSinkResult::Continue
    }
}

impl State {
    fn start(&mut self, tag: &Tag) -> TokenSinkResult<()> {
        let element = Element::of(tag);
        let raw = match element.name.as_str() {
            "script" => Some(RawKind::ScriptData),
            "style" | "xmp" | "noembed" | "noframes" => Some(RawKind::Rawtext),
            "title" | "textarea" => Some(RawKind::Rcdata),
            _ => None,
        };
        if matches!(element.name.as_str(), "noscript" | "template") && !tag.self_closing {
            self.inert += 1;
        }
        if self.inert == 0 {
            simple(&element, &mut self.page);
            if matches!(element.name.as_str(), "script" | "style") {
                self.open = Some((element, String::new()));
            }
        }
        raw.map_or(TokenSinkResult::Continue, TokenSinkResult::RawData)
    }

    fn end(&mut self, name: &str) {
        if matches!(name, "noscript" | "template") {
            self.inert = self.inert.saturating_sub(1);
        }
        let Some((element, text)) = self.open.take_if(|(element, _)| element.name == name) else {
            return;
        };
        if name == "script" {
            script(&element, &text, &mut self.page);
        } else {
            self.page.style(&text);
        }
    }
}

/// A start tag, with its attributes as text.
struct Element {
    name: String,
    attributes: Vec<(String, String)>,
}

impl Element {
    fn of(tag: &Tag) -> Self {
        let attribute = |attribute: &html5ever::Attribute| {
            (attribute.name.local.to_string(), attribute.value.to_string())
        };
        Self { name: tag.name.to_string(), attributes: tag.attrs.iter().map(attribute).collect() }
    }

    fn attr(&self, name: &str) -> Option<&str> {
        let found = self.attributes.iter().find(|(key, _)| key == name);
        found.map(|(_, value)| value.as_str())
    }

    /// A URL, unless it is empty.
    fn url(&self, name: &str) -> Option<String> {
        self.attr(name).map(|value| value.trim().to_owned()).filter(|value| !value.is_empty())
    }
}

/// What an element asks for by its attributes alone.
fn simple(element: &Element, page: &mut Page) {
    match element.name.as_str() {
        "base" if page.base.is_none() => page.base = element.url("href"),
        "link" => link(element, page),
        "img" | "source" | "video" | "audio" | "input" | "embed" | "track" | "iframe" => {
            let urls = [element.url("src"), element.url("poster")];
            page.asks.extend(urls.into_iter().flatten().map(|url| ask(url, false)));
            for url in candidates(element.attr("srcset").unwrap_or_default()) {
                page.later.push(ask(url, false));
            }
        }
        "image" | "use" => page.asks.extend(element.url("href").map(|url| ask(url, false))),
        "object" => page.asks.extend(element.url("data").map(|url| ask(url, false))),
        _ => {}
    }
    if let Some(style) = element.attr("style") {
        page.style(style);
    }
}

fn ask(url: String, needed: bool) -> Ask {
    Ask { url, specifier: false, needed }
}

fn script(element: &Element, text: &str, page: &mut Page) {
    let kind = element.attr("type").map(|kind| kind.trim().to_ascii_lowercase());
    let kind = kind.as_deref().unwrap_or("");
    let is_module = kind == "module";
    let runs = is_module
        || kind.is_empty()
        || matches!(kind, "text/javascript" | "application/javascript" | "text/ecmascript");
    if kind == "importmap" {
        #[derive(Deserialize)]
        struct ImportMap {
            #[serde(default)]
            imports: BTreeMap<String, String>,
        }
        if let Ok(map) = serde_json::from_str::<ImportMap>(text) {
            page.imports.extend(map.imports);
        }
        return;
    }
    if !runs {
        return;
    }
    let legacy = element.attr("nomodule").is_some() && !is_module;
    if let Some(url) = element.url("src") {
        let list = if legacy { &mut page.legacy } else { &mut page.asks };
        list.push(ask(url, true));
        page.has_script = true;
        return;
    }
    if legacy || text.trim().is_empty() {
        return;
    }
    page.has_script = true;
    if let Ok(code) = emitted::read(text, &|_| false) {
        let specifiers = code.loads.into_iter();
        page.asks.extend(specifiers.map(|url| Ask { url, specifier: true, needed: true }));
        page.openings.extend(code.openings);
    }
}

fn link(element: &Element, page: &mut Page) {
    let Some(url) = element.url("href") else { return };
    let rel = element.attr("rel").unwrap_or("").to_ascii_lowercase();
    let has = |word: &str| rel.split_ascii_whitespace().any(|rel| rel == word);
    let media = element.attr("media").unwrap_or("").trim().to_ascii_lowercase();
    if has("stylesheet") {
        let later = has("alternate") || media == "print" || element.attr("disabled").is_some();
        let list = if later { &mut page.later } else { &mut page.asks };
        list.push(ask(url, true));
    } else if has("modulepreload") || has("preload") {
        page.asks.push(ask(url, true));
    } else if ["prefetch", "icon", "apple-touch-icon", "mask-icon", "manifest"].into_iter().any(has)
    {
        // Browsers fetch these when all else is done.
        page.later.push(ask(url, false));
    }
}

/// URLs of a `srcset`: a browser takes one of them, so none is certain to arrive.
fn candidates(srcset: &str) -> Vec<String> {
    srcset
        .split(", ")
        .filter_map(|part| part.split_ascii_whitespace().next())
        .map(|url| url.trim_end_matches(',').to_owned())
        .collect()
}

#[cfg(test)]
mod tests {
    use super::read;

    #[test]
    fn asks_stand_in_document_order() {
        let page = read(
            r#"<!doctype html><base href="/app/"><link rel="modulepreload" href="v.js">
            <link rel=stylesheet href=a.css><link rel=stylesheet media=print href=p.css>
            <link rel="alternate stylesheet" href="alt.css"><link rel=prefetch href=later.js>
            <script type="importmap">{"imports":{"tide":"./t.js"}}</script>
            <script nomodule src=old.js></script><script type="text/template" src="no.js"></script>
            <noscript><img src="pixel.gif"></noscript>
            <script type=module>import "./m.js"; import("./lazy.js")</script>
            <style>.a{background:url(bg.png)}</style><img src="i.png" srcset="i.png 1x, j.png 2x">
            <script async defer src="main.js"></script>"#,
        );
        let urls = |asks: &[super::Ask]| asks.iter().map(|ask| ask.url.clone()).collect::<Vec<_>>();
        assert_eq!(urls(&page.asks), ["v.js", "a.css", "./m.js", "bg.png", "i.png", "main.js"]);
        assert_eq!(urls(&page.later), ["p.css", "alt.css", "later.js", "i.png", "j.png"]);
        assert_eq!(urls(&page.legacy), ["old.js"]);
        let opened: Vec<_> =
            page.openings.iter().map(|one| (one.request.as_str(), one.at_once)).collect();
        assert_eq!(opened, [("./lazy.js", true)]);
        assert_eq!(page.base.as_deref(), Some("/app/"));
        assert_eq!(page.imports["tide"], "./t.js");
    }
}
