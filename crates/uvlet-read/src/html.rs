//! What an HTML page asks for, in document order (HTML Standard, sections "script" and "link").
//!
//! Every local script, style and preload arrives before the page's own code has run; `prefetch`,
//! alternate and print styles come later. Inline scripts and styles are bytes of the page, but
//! what they load is asked for all the same.

use std::collections::BTreeMap;

use scraper::{ElementRef, Html, node::Node};
use serde::Deserialize;

use crate::{emitted, styles};

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
    pub openings: Vec<String>,
    /// Bare specifiers that an import map ties to URLs.
    pub imports: BTreeMap<String, String>,
    /// The page runs scripts, so it is an entry.
    pub has_script: bool,
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
    let document = Html::parse_document(text);
    let mut page = Page::default();
    // <noscript> content reaches no visitor whose scripts run.
    for element in document.root_element().descendants().filter_map(ElementRef::wrap) {
        match element.value().name() {
            "base" if page.base.is_none() => page.base = attribute(element, "href"),
            "script" => script(element, &mut page),
            "link" => link(element, &mut page),
            "style" => {
                let urls = styles::urls(&inner_text(element));
                page.asks.extend(urls.into_iter().map(|url| ask(url, false)));
            }
            "img" | "source" | "video" | "audio" | "input" | "embed" | "track" | "iframe" => {
                let urls = [attribute(element, "src"), attribute(element, "poster")];
                page.asks.extend(urls.into_iter().flatten().map(|url| ask(url, false)));
                for url in candidates(&attribute(element, "srcset").unwrap_or_default()) {
                    page.later.push(ask(url, false));
                }
            }
            "image" | "use" => page.asks.extend(attribute(element, "href").map(|url| ask(url, false))),
            "object" => page.asks.extend(attribute(element, "data").map(|url| ask(url, false))),
            _ => {}
        }
        if let Some(style) = element.attr("style") {
            page.asks.extend(styles::urls(style).into_iter().map(|url| ask(url, false)));
        }
    }
    page
}

fn ask(url: String, needed: bool) -> Ask {
    Ask { url, specifier: false, needed }
}

fn attribute(element: ElementRef<'_>, name: &str) -> Option<String> {
    element.attr(name).map(|value| value.trim().to_owned()).filter(|value| !value.is_empty())
}

fn inner_text(element: ElementRef<'_>) -> String {
    element.children().filter_map(|node| match node.value() {
        Node::Text(text) => Some(&**text),
        _ => None,
    }).collect()
}

fn script(element: ElementRef<'_>, page: &mut Page) {
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
        if let Ok(map) = serde_json::from_str::<ImportMap>(&inner_text(element)) {
            page.imports.extend(map.imports);
        }
        return;
    }
    if !runs {
        return;
    }
    let legacy = element.attr("nomodule").is_some() && !is_module;
    if let Some(url) = attribute(element, "src") {
        let list = if legacy { &mut page.legacy } else { &mut page.asks };
        list.push(ask(url, true));
        page.has_script = true;
        return;
    }
    let text = inner_text(element);
    if legacy || text.trim().is_empty() {
        return;
    }
    page.has_script = true;
    if let Ok(code) = emitted::read(&text, &|_| false) {
        let specifiers = code.loads.into_iter();
        page.asks.extend(specifiers.map(|url| Ask { url, specifier: true, needed: true }));
        page.openings.extend(code.openings.into_iter().map(|opening| opening.request));
    }
}

fn link(element: ElementRef<'_>, page: &mut Page) {
    let Some(url) = attribute(element, "href") else { return };
    let rel = element.attr("rel").unwrap_or("").to_ascii_lowercase();
    let has = |word: &str| rel.split_ascii_whitespace().any(|rel| rel == word);
    let media = element.attr("media").unwrap_or("").trim().to_ascii_lowercase();
    if has("stylesheet") {
        let later = has("alternate") || media == "print" || element.attr("disabled").is_some();
        let list = if later { &mut page.later } else { &mut page.asks };
        list.push(ask(url, true));
    } else if has("modulepreload") || has("preload") {
        page.asks.push(ask(url, true));
    } else if ["prefetch", "icon", "apple-touch-icon", "mask-icon", "manifest"].into_iter().any(has) {
        // Browsers fetch these when all else is done.
        page.later.push(ask(url, false));
    }
}

/// URLs of a `srcset`: a browser takes one of them, so none is certain to arrive.
fn candidates(srcset: &str) -> Vec<String> {
    srcset.split(", ").filter_map(|part| part.split_ascii_whitespace().next()).map(|url| url.trim_end_matches(',').to_owned()).collect()
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
        assert_eq!(page.openings, ["./lazy.js"]);
        assert_eq!(page.base.as_deref(), Some("/app/"));
        assert_eq!(page.imports["tide"], "./t.js");
    }
}
