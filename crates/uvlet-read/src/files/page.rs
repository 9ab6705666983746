//! What an HTML page asks for, in document order (HTML Standard, sections "script" and "link").
//!
//! Every local script, style and preload arrives before the page's own code has run; `prefetch`,
//! alternate and print styles come later. Inline scripts and styles are bytes of the page, but
//! what they load is asked for all the same.
//!
//! The tokenizer alone is used, without building a tree: it takes time in proportion to the page,
//! however badly tags nest.

use std::{borrow::Cow, cell::RefCell, collections::BTreeMap};

use html5ever::tokenizer::{
    BufferQueue, Tag, TagKind, Token, TokenSink, TokenSinkResult, Tokenizer, TokenizerOpts,
    states::RawKind,
};
use serde::Deserialize;
use serde_json::Value;

use super::style;

/// What a page asks for. URLs stand as written.
#[derive(Debug, Default, PartialEq, Eq)]
pub struct Page {
    /// `<base href>`.
    pub base: Option<String>,
    /// What arrives at startup, in order.
    pub asks: Vec<Ask>,
    /// Of that, scripts that run as modules, and those that run as plain scripts.
    pub modules: Vec<Ask>,
    pub plain: Vec<Ask>,
    /// What only browsers without modules fetch.
    pub legacy: Vec<Ask>,
    /// What arrives later without being asked for by code.
    pub later: Vec<Ask>,
    /// Specifiers that import maps tie to URLs.
    pub imports: Imports,
    /// The page runs scripts, so it is an entry.
    pub has_script: bool,
    /// Scripts that run and styles that stand in the page, in order.
    pub inline: Vec<Inline>,
}

/// A script or style that stands in a page.
#[derive(Debug, PartialEq, Eq)]
pub struct Inline {
    /// Its text.
    pub text: String,
    /// Of a script: how many asks stand before it in the page.
    pub script_after: Option<usize>,
}

/// What import maps say (HTML Standard, section "Import maps"): a key that ends in `/` stands for all
/// that begins with it. Scopes are taken together, as what asks is not looked at.
#[derive(Debug, Default, Clone, PartialEq, Eq)]
pub struct Imports(BTreeMap<String, String>);

impl Imports {
    /// Reads a map; an address that is none switches off its own key alone. What was said before
    /// stands.
    fn read(&mut self, text: &str) {
        #[derive(Deserialize, Default)]
        #[serde(default)]
        struct ImportMap {
            imports: BTreeMap<String, Value>,
            scopes: BTreeMap<String, BTreeMap<String, Value>>,
        }
        let map: ImportMap = serde_json::from_str(text).unwrap_or_default();
        for (key, address) in map.imports.into_iter().chain(map.scopes.into_values().flatten()) {
            if let Value::String(address) = address {
                self.0.entry(key).or_insert(address);
            }
        }
    }

    /// Adds an address, unless there is one.
    pub fn add(&mut self, key: &str, address: &str) {
        self.0.entry(key.to_owned()).or_insert_with(|| address.to_owned());
    }

    /// Takes over what another page says.
    pub fn extend(&mut self, other: &Self) {
        for (key, address) in &other.0 {
            self.0.entry(key.clone()).or_insert_with(|| address.clone());
        }
    }

    /// The URL that a specifier stands for.
    pub fn url(&self, specifier: &str) -> Option<Cow<'_, str>> {
        if let Some(address) = self.0.get(specifier) {
            return Some(address.into());
        }
        let mut prefixes = specifier.rmatch_indices('/').map(|(at, _)| &specifier[..=at]);
        let longest = prefixes.find(|prefix| self.0.contains_key(*prefix))?;
        Some(format!("{}{}", self.0[longest], &specifier[longest.len()..]).into())
    }
}

impl Page {
    /// Takes in what the inline scripts load, each by its place among the inline ones, where it
    /// stands in the page.
    pub fn take_loads(&mut self, loads: Vec<(usize, Vec<String>)>) {
        for (inline, loads) in loads.into_iter().rev() {
            let after = self.inline.get(inline).and_then(|inline| inline.script_after);
            let after = after.unwrap_or(self.asks.len()).min(self.asks.len());
            let asks = loads.into_iter().map(|url| Ask { url, specifier: true, needed: true });
            self.asks.splice(after..after, asks);
        }
    }

    /// What an inline style asks for.
    fn style(&mut self, text: &str) {
        let urls = style::urls(text);
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
    /// Open templates whose content is shown.
    shadows: usize,
    /// Open elements of drawings and formulas, and those in them that hold HTML again.
    foreign: Vec<String>,
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

/// Elements that end a drawing or formula that is still open (HTML Standard, section "The rules for
/// parsing tokens in foreign content").
const BREAKING: [&str; 20] = [
    "b",
    "blockquote",
    "body",
    "br",
    "center",
    "code",
    "div",
    "dl",
    "em",
    "embed",
    "h1",
    "h2",
    "h3",
    "head",
    "img",
    "li",
    "p",
    "pre",
    "table",
    "ul",
];

impl State {
    /// Takes note of a start tag that begins or ends foreign content.
    fn enter(&mut self, name: &str, is_closed: bool) {
        if self.is_foreign() && BREAKING.contains(&name) {
            self.foreign.clear();
        }
        let is_opening = match name {
            "svg" | "math" => true,
            // Names come in lower case here.
            "foreignobject" | "desc" | "annotation-xml" => self.is_foreign(),
            _ => false,
        };
        if is_opening && !is_closed {
            self.foreign.push(name.to_owned());
        }
    }

    fn is_foreign(&self) -> bool {
        self.foreign.last().is_some_and(|name| name == "svg" || name == "math")
    }

    fn start(&mut self, tag: &Tag) -> TokenSinkResult<()> {
        let element = Element::of(tag);
        self.enter(&element.name, tag.self_closing);
        // In a drawing, tags close themselves and texts are like any other.
        let raw = match element.name.as_str() {
            _ if self.is_foreign() => None,
            "script" => Some(RawKind::ScriptData),
            "style" | "xmp" | "noembed" | "noframes" => Some(RawKind::Rawtext),
            "title" | "textarea" => Some(RawKind::Rcdata),
            _ => None,
        };
        // A template that makes a shadow tree is shown.
        let is_inert = match element.name.as_str() {
            "template" => element.attr("shadowrootmode").is_none(),
            name => name == "noscript",
        };
        if is_inert {
            self.inert += 1;
        } else if element.name == "template" {
            self.shadows += 1;
        }
        if self.inert == 0 {
            simple(&element, &mut self.page);
            let closes = tag.self_closing && self.is_foreign();
            if matches!(element.name.as_str(), "script" | "style") && !closes {
                self.open = Some((element, String::new()));
            }
        }
        raw.map_or(TokenSinkResult::Continue, TokenSinkResult::RawData)
    }

    fn end(&mut self, name: &str) {
        match name {
            "template" if self.shadows > 0 && self.inert == 0 => self.shadows -= 1,
            "noscript" | "template" => self.inert = self.inert.saturating_sub(1),
            _ => {}
        }
        if let Some(at) = self.foreign.iter().rposition(|open| open == name) {
            self.foreign.truncate(at);
        }
        let Some((element, text)) = self.open.take_if(|(element, _)| element.name == name) else {
            return;
        };
        if name == "script" {
            script(&element, &text, &mut self.page);
        } else {
            self.page.style(&text);
            if !text.trim().is_empty() {
                self.page.inline.push(Inline { text, script_after: None });
            }
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
        "astro-island" => island(element, page),
        "img" | "source" | "video" | "audio" | "input" | "embed" | "track" | "iframe" => {
            let urls = [element.url("src"), element.url("poster")];
            let urls = urls.into_iter().flatten().map(|url| ask(url, false));
            // What is loaded once it comes into view does not hold up the start.
            let is_lazy = element.attr("loading").is_some_and(|l| l.eq_ignore_ascii_case("lazy"));
            if is_lazy { &mut page.later } else { &mut page.asks }.extend(urls);
            for url in candidates(element.attr("srcset").unwrap_or_default()) {
                page.later.push(ask(url, false));
            }
        }
        "image" | "use" => {
            let url = element.url("href").or_else(|| element.url("xlink:href"));
            page.asks.extend(url.map(|url| ask(url, false)));
        }
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
    let runs = is_module || kind.is_empty() || SCRIPTS.contains(&kind);
    if kind == "importmap" {
        page.imports.read(text);
        return;
    }
    if !runs {
        return;
    }
    let legacy = element.attr("nomodule").is_some() && !is_module;
    if let Some(url) = element.url("src") {
        let kind = if is_module { &mut page.modules } else { &mut page.plain };
        kind.push(ask(url.clone(), false));
        let list = if legacy { &mut page.legacy } else { &mut page.asks };
        list.push(ask(url, true));
        page.has_script = true;
        return;
    }
    if legacy || text.trim().is_empty() {
        return;
    }
    page.has_script = true;
    let script_after = Some(page.asks.len());
    page.inline.push(Inline { text: text.to_owned(), script_after });
}

fn link(element: &Element, page: &mut Page) {
    let Some(url) = element.url("href") else { return };
    let rel = element.attr("rel").unwrap_or("").to_ascii_lowercase();
    let has = |word: &str| rel.split_ascii_whitespace().any(|rel| rel == word);
    let media = element.attr("media").unwrap_or("").trim().to_ascii_lowercase();
    if has("stylesheet") {
        let is_print = media == "print" && !becomes_screen(element);
        let later = has("alternate") || is_print || element.attr("disabled").is_some();
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

/// Whether a print style is made one for screens once it is there, so that it does not hold up the
/// first picture: by its own handler, or by a script that finds what it was meant for beside it.
fn becomes_screen(element: &Element) -> bool {
    element.attr("onload").is_some_and(|handler| handler.contains("media"))
        || element
            .attributes
            .iter()
            .any(|(name, _)| name.starts_with("data-") && name.ends_with("-media"))
}

/// What an island of a page needs to come alive: its component and what renders that. It comes as the
/// page is parsed, or once it is seen.
fn island(element: &Element, page: &mut Page) {
    let urls = ["before-hydration-url", "component-url", "renderer-url"];
    let urls: Vec<String> = urls.into_iter().filter_map(|name| element.url(name)).collect();
    let is_early = matches!(element.attr("client"), Some("load" | "idle" | "only"));
    page.has_script |= !urls.is_empty();
    let list = if is_early { &mut page.asks } else { &mut page.later };
    list.extend(urls.into_iter().map(|url| ask(url, true)));
}

/// URLs of a `srcset`: a browser takes one of them, so none is certain to arrive.
fn candidates(srcset: &str) -> Vec<String> {
    let mut urls = Vec::new();
    let mut rest = srcset;
    // A URL ends at white space, or at the commas behind it; what describes it, at the next comma.
    loop {
        rest = rest.trim_start_matches(|c: char| c.is_ascii_whitespace() || c == ',');
        if rest.is_empty() {
            return urls;
        }
        let end = rest.find(|c: char| c.is_ascii_whitespace()).unwrap_or(rest.len());
        let (url, after) = rest.split_at(end);
        let bare = url.trim_end_matches(',');
        urls.push(bare.to_owned());
        rest = match bare.len() == url.len() {
            true => after.split_once(',').map_or("", |(_, next)| next),
            false => after,
        };
    }
}

/// Types that make a script run (WHATWG MIME Sniffing, section "JavaScript MIME type").
const SCRIPTS: [&str; 16] = [
    "application/ecmascript",
    "application/javascript",
    "application/x-ecmascript",
    "application/x-javascript",
    "text/ecmascript",
    "text/javascript",
    "text/javascript1.0",
    "text/javascript1.1",
    "text/javascript1.2",
    "text/javascript1.3",
    "text/javascript1.4",
    "text/javascript1.5",
    "text/jscript",
    "text/livescript",
    "text/x-ecmascript",
    "text/x-javascript",
];

#[cfg(test)]
mod tests {
    use super::read;

    #[test]
    fn asks_stand_in_document_order() {
        let mut page = read(
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
        page.take_loads(vec![(0, vec!["./m.js".to_owned()])]);
        assert_eq!(urls(&page.asks), ["v.js", "a.css", "./m.js", "bg.png", "i.png", "main.js"]);
        assert_eq!(urls(&page.later), ["p.css", "alt.css", "later.js", "i.png", "j.png"]);
        assert_eq!(urls(&page.legacy), ["old.js"]);
        assert_eq!(page.base.as_deref(), Some("/app/"));
        assert_eq!(page.imports.url("tide").as_deref(), Some("./t.js"));
    }

    #[test]
    fn import_maps_have_prefixes_scopes_and_gaps() {
        let page = read(
            r#"<script type=importmap>{"imports":{"gone":null,"tide/":"/lib/tide/","tide/deep/":"/deep/"},
            "scopes":{"/old/":{"quay":"/old/quay.js"}}}</script>"#,
        );
        let url = |name: &str| page.imports.url(name).map(std::borrow::Cow::into_owned);
        assert_eq!(url("tide/low.js").as_deref(), Some("/lib/tide/low.js"));
        assert_eq!(url("tide/deep/a.js").as_deref(), Some("/deep/a.js"));
        assert_eq!(url("quay").as_deref(), Some("/old/quay.js"));
        assert_eq!((url("gone"), url("tides")), (None, None));
    }

    #[test]
    fn drawings_swallow_nothing() {
        let page = read(
            r#"<svg><title/><style/><script/><use xlink:href="s.svg#a"/></svg><svg><title>a</title><path></svg>
            <svg><rect><p><script src="a.js"></script>
            <math><mi></mi></math><template shadowrootmode=open><img src=in.png></template><template><img src=no.png></template>
            <img loading=lazy src=later.png><img srcset="a.png 1x,b.png 2x, c,d.png"><script type="application/x-javascript" src=b.js></script>"#,
        );
        let urls = |asks: &[super::Ask]| asks.iter().map(|ask| ask.url.clone()).collect::<Vec<_>>();
        assert_eq!(urls(&page.asks), ["s.svg#a", "a.js", "in.png", "b.js"]);
        assert_eq!(urls(&page.later), ["later.png", "a.png", "b.png", "c,d.png"]);
    }
}
