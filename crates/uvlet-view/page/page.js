// The page: a selection, the table of what it comes to, and why something is here.

"use strict";

const build = unpack(JSON.parse(document.getElementById("data").textContent));
const by = (id) => document.getElementById(id);
const search = by("search");
const body = by("rows");
const MODULES = 100;
const state = { selector: "everything", column: "bytes", down: true, open: new Set(), focus: null, also: [], within: null, kind: "third", common: "" };

/** An element with texts and elements in it: names are text and nothing else. */
function element(tag, attributes = {}, ...inside) {
  const made = document.createElement(tag);
  for (const [name, value] of Object.entries(attributes)) if (value !== null) made.setAttribute(name, value);
  made.append(...inside.filter((one) => one !== null));
  return made;
}

/** Characters that hide or turn what is written, spelt out as in the program's own tables. */
function plain(name) {
  return name.replace(/[\p{Cc}\u00ad\u061c\ufeff\u200b-\u200f\u2028-\u202e\u2060-\u206f]/gu, (c) => `\\u{${c.codePointAt(0).toString(16)}}`);
}

function described(key) {
  if (typeof key === "number") {
    const one = build.packages[key];
    const selector = one.place ? `folder(${quoted(one.place)})` : `package(${quoted(one.name)})`;
    return { name: one.name, version: one.version, place: around(one), kind: one.own ? "own" : "third", selector };
  }
  if (key.startsWith(BELOW)) {
    const path = key.slice(BELOW.length);
    const selector = path.endsWith("/") ? `folder(${quoted(path.slice(0, -1))})` : `module(${quoted(path)})`;
    return { name: path.slice(state.common.length), version: null, kind: state.kind, selector, below: true };
  }
  const kind = { "(own)": "own", "(third-party)": "third", "(glue)": "glue", "(assets)": "assets" }[key] ?? "none";
  return { name: key, version: null, kind, selector: key.slice(1, -1) };
}

/** Where a package is installed that is there several times, as the program's own tables say it. */
function around(one) {
  if (!one.place) return null;
  const host = one.place.slice(0, one.place.length - `node_modules/${one.name}`.length).replace(/\/$/, "").replace(/^node_modules\//, "");
  return host ? ` (in ${host})` : null;
}

/** A path that may be broken behind its folders, and nowhere else. */
function path(name) {
  const parts = plain(name).split(/(?<=\/)/);
  return parts.flatMap((part, at) => (at ? [element("wbr"), part] : [part]));
}

/** Marks the keys of rows that are folders or modules of one owner. */
const BELOW = "\u0000";

/** The rows below an owner: what its modules lie in, down to modules; all of it where it lies together. */
function levels(key) {
  const mine = (all, id) => (all.owners[id] >= 0 && owner(all, id) === key ? build.modules[all.owners[id]] : undefined);
  const paths = rows(build, chosen, mine).map((one) => one.key);
  if (paths.length < 2) return null;
  const folders = (name) => name.split("/").slice(0, -1);
  let common = folders(paths[0]);
  for (const name of paths) {
    const other = folders(name);
    let at = 0;
    while (at < common.length && common[at] === other[at]) at++;
    common = common.slice(0, at);
  }
  const depth = common.length;
  const heads = new Map();
  for (const name of paths) {
    const parts = name.split("/");
    const head = parts.slice(0, depth + 1).join("/") + (parts.length > depth + 1 ? "/" : "");
    heads.set(head, (heads.get(head) ?? 0) + 1);
  }
  const of = (all, id) => {
    const name = mine(all, id);
    if (name === undefined) return owner(all, id);
    const parts = name.split("/");
    const head = parts.slice(0, depth + 1).join("/") + (parts.length > depth + 1 ? "/" : "");
    return BELOW + (heads.get(head) === 1 ? name : head);
  };
  return { list: rows(build, chosen, of), of, common: common.map((folder) => `${folder}/`).join("") };
}

/** The one owner that a selection is of. */
function only(list) {
  const owners = list.filter((one) => one.bytes > 0);
  const key = owners.length === 1 ? owners[0].key : null;
  return typeof key === "number" || key === "(own)" || key === "(third-party)" ? key : null;
}

/** The steps by which a selection was narrowed down: each is the way back to it. */
function trail() {
  const place = by("trail");
  const parts = state.selector.split(/ and (?=(?:folder|module|package|own|third-party)\b)/);
  place.hidden = state.selector === "everything";
  if (place.hidden) return;
  const steps = parts.map((part, at) => element("button", { class: "step", type: "button", "data-to": parts.slice(0, at + 1).join(" and ") }, plain(part)));
  const up = element("button", { class: "step", type: "button", "data-to": parts.slice(0, -1).join(" and ") }, "← back");
  const between = steps.flatMap((step, at) => (at ? [" › ", step] : [step]));
  place.replaceChildren(up, " ", ...between, state.within === null ? "" : element("span", {}, " In ", element("code", {}, ...path(state.common || "the project")), `; a full bar is ${size(Math.max(0, ...shown.map((one) => one.bytes)))}.`));
}

function quoted(name) {
  return /[()"']/.test(name) ? (name.includes('"') ? `'${name}'` : `"${name}"`) : name;
}

function entriesWith(loads) {
  return build.entries.filter(loads).map((entry) => entry.names[0]);
}

function when(files) {
  const some = [...files];
  const starts = (entry) => entry.startup.some((file) => files.has(file));
  const at = entriesWith(starts);
  const later = entriesWith((entry) => !starts(entry) && some.some((file) => hasBit(entry.deferred, file)));
  const said = (names) => (names.length > 2 ? `${names.length} entries` : names.map(plain).join(", "));
  return [at.length ? said(at) : null, later.length ? `later: ${said(later)}` : null].filter(Boolean).join("; ") || "nobody known";
}

function chunksOf(files) {
  const names = [...new Set([...files].map((file) => build.chunks[build.files[file].chunk] ?? build.files[file].path))];
  return names.length > 2 ? `${names.length} chunks` : names.map(plain).join(", ");
}

/** Bytes by row in another measure. */
function bytesOf(also, by) {
  const found = rows({ ...build, units: also.units, perByte: also.perByte }, chosen, by);
  return new Map(found.map((one) => [one.key, one.bytes]));
}

/** Heads and sums of the columns that were added. */
function heads() {
  for (const old of document.querySelectorAll(".added")) old.remove();
  const head = document.querySelector("#owners-table th[data-sort=bytes]");
  for (const at of state.also.toReversed()) {
    const also = build.also[at];
    head.after(element("th", { scope: "col", class: "num added" }, also.name));
    by("sum").after(element("td", { class: "num added" }, size(total({ ...build, units: also.units, perByte: also.perByte }, chosen))));
  }
}

let chosen = null;
let others = [];
let shown = [];
let sum = 0;

function row(one, most) {
  const { name, version, kind, place, below } = described(one.key);
  const isFolder = below && name.endsWith("/");
  const count = typeof one.key === "number" || one.key === "(own)" || one.key === "(third-party)" ? modulesOf(one.key).length : 0;
  const opens = count > 0 ? element("button", { class: "opens", type: "button", "aria-expanded": String(state.open.has(one.key)), "data-opens": String(one.key) }, `${count} ${count === 1 ? "module" : "modules"}`) : null;
  const label = element("button", { class: "name", type: "button", "data-key": String(one.key) }, ...path(name));
  const chip = element("span", { class: `chip ${kind}`, "aria-hidden": "true" });
  const share = sum ? (100 * one.bytes) / sum : 0;
  const first = build.why[one.key]?.first ?? "";
  const more = state.also.map((at) => element("td", { class: "num" }, size(others[at].get(one.key) ?? 0)));
  const line = element("tr", { "data-row": String(one.key), class: state.focus === one.key ? "focus" : null },
    element("td", { class: "what" }, chip, label, version ? element("span", { class: "sub" }, ` ${plain(version)}`) : null, place ? element("span", { class: "sub" }, plain(place)) : null, isFolder ? element("span", { class: "sub" }, " ›") : null, opens),
    element("td", { class: "num" }, size(one.bytes)),
    ...more,
    element("td", { class: "num" }, percent(share)),
    element("td", { class: "share" }, element("span", { class: kind, style: `width:${most ? (100 * one.bytes) / most : 0}%` })),
    element("td", { class: "soft basis" }, one.basis),
    element("td", { class: "soft" }, when(one.files)),
    element("td", { class: "soft" }, chunksOf(one.files)),
    element("td", { class: "soft" }, ...path(first)));
  return state.open.has(one.key) ? [line, ...moduleRows(one, most)] : [line];
}

/** Modules of a row that are in the selection, the heaviest first. */
function modulesOf(key) {
  const found = rows(build, chosen, (all, id) => (all.owners[id] >= 0 && owner(all, id) === key ? all.owners[id] : undefined));
  return found;
}

function moduleRows(one, most) {
  const all = modulesOf(one.key);
  const ofModules = build.also.map((also) => bytesOf(also, (every, id) => (every.owners[id] >= 0 && owner(every, id) === one.key ? every.owners[id] : undefined)));
  const { kind } = described(one.key);
  const lines = all.slice(0, MODULES).map(({ key, bytes, files, basis }) => element("tr", { class: "sub-row" },
    element("td", { class: "what" }, ...path(build.modules[key])),
    element("td", { class: "num" }, size(bytes)),
    ...state.also.map((at) => element("td", { class: "num" }, size(ofModules[at].get(key) ?? 0))),
    element("td", { class: "num" }, percent(sum ? (100 * bytes) / sum : 0)),
    element("td", { class: "share" }, element("span", { class: kind, style: `width:${most ? (100 * bytes) / most : 0}%` })),
    element("td", { class: "soft basis" }, basis),
    element("td", { class: "soft" }, when(files)),
    element("td", { class: "soft" }, chunksOf(files)),
    element("td", {})));
  if (all.length > MODULES) {
    lines.push(element("tr", { class: "sub-row" }, element("td", { class: "what soft", colspan: String(8 + state.also.length) }, `${all.length - MODULES} more; a search narrows them down`)));
  }
  return lines;
}

function sorted(list) {
  const text = { what: (one) => described(one.key).name, version: (one) => described(one.key).version ?? "", when: (one) => when(one.files), chunks: (one) => chunksOf(one.files), first: (one) => build.why[one.key]?.first ?? "" }[state.column];
  const order = text ? (a, b) => text(a).localeCompare(text(b)) || b.bytes - a.bytes : (a, b) => a.bytes - b.bytes;
  return list.toSorted((a, b) => (state.down && !text ? -1 : state.down ? -1 : 1) * order(a, b));
}

const percent = (share) => `${share.toFixed(1)}%`;

function draw() {
  heads();
  by("owners-table").classList.toggle("one-basis", new Set(shown.map((one) => one.basis)).size < 2);
  const list = sorted(shown);
  const most = Math.max(0, ...list.map((one) => one.bytes));
  body.replaceChildren(...list.flatMap((one) => row(one, most)));
  for (const head of document.querySelectorAll("th[data-sort]")) {
    const is = head.dataset.sort === state.column;
    if (is) head.setAttribute("aria-sort", state.down ? "descending" : "ascending");
    else head.removeAttribute("aria-sort");
  }
}

/** Takes what is written as the selection. */
function choose(text) {
  let found;
  let selector;
  try {
    selector = standsFor(build, text);
    found = select(build, selector);
  } catch (error) {
    by("stands").textContent = plain(`${text}: ${error.message}`);
    return;
  }
  state.selector = selector;
  chosen = found;
  shown = rows(build, chosen);
  const key = only(shown);
  const below = key === null ? null : levels(key);
  state.within = below && key;
  if (below) {
    state.kind = described(key).kind;
    state.common = below.common;
    shown = below.list;
  }
  sum = total(build, chosen);
  others = build.also.map((also) => bytesOf(also, below?.of));
  const all = total(build, chosen.map(() => 1));
  by("sum").textContent = size(sum);
  by("sum-of").textContent = selector === "everything" ? "everything" : "selection";
  by("stands").replaceChildren(
    `${size(sum)} of ${size(all)}`,
    ...(selector === "everything" ? [] : [" are ", element("code", {}, plain(selector))]),
  );
  for (const segment of document.querySelectorAll(".seg[data-in]")) segment.setAttribute("aria-pressed", String(segment.dataset.in === selector));
  draw();
  trail();
  if (key !== null) why(key);
}

function write(text) {
  search.value = text;
  const now = text === "" ? " " : `#in=${encodeURIComponent(text)}`;
  history.replaceState(null, "", now === " " ? location.pathname + location.search : now);
  choose(text);
}

/** Says why something is here. */
function why(key) {
  state.focus = key;
  const { name, place, selector } = described(key);
  const known = build.why[key];
  const parts = [element("h2", {}, `Why is ${plain(name)}${plain(place ?? "")} here?`)];
  if (known?.chain.length) {
    parts.push(element("ol", {}, element("li", {}, plain(known.entry), element("i", {}, known.when === "startup" ? " starts with" : " loads later")), ...known.chain.map(([module, how]) => element("li", {}, ...path(module), element("i", {}, how ? ` ${how}` : "")))));
  } else parts.push(element("p", {}, known ? "No import chain is known: it is bundled into a file that is loaded." : "It is no package: nothing imports it by name."));
  if (known?.leaves.length) {
    const said = known.leaves.slice(0, 4).map(([entry, bytes]) => `${plain(entry)} ${size(bytes)}`);
    const more = known.leaves.length > 4 ? ` and ${known.leaves.length - 4} more` : "";
    parts.push(element("p", {}, "Without it these would start with less: ", element("b", {}, said.join(", ")), more, "."));
  }
  const command = known ? `uvlet why ${build.shell} ${place ? `'${selector}'` : quoted(name)}` : `uvlet attribute ${build.shell} --by module --in '${selector}'`;
  parts.push(element("p", {}, element("code", {}, command)));
  by("why").replaceChildren(...parts);
  for (const line of body.querySelectorAll("tr[data-row]")) line.classList.toggle("focus", line.dataset.row === String(key));
}

const keyOf = (text) => (/^\d+$/.test(text) ? Number(text) : text);

body.addEventListener("click", (event) => {
  const { opens, key } = event.target.closest("button")?.dataset ?? {};
  if (opens !== undefined) {
    const which = keyOf(opens);
    if (!state.open.delete(which)) state.open.add(which);
    draw();
    body.querySelector(`[data-opens="${CSS.escape(opens)}"]`)?.focus();
  }
  if (key === undefined) return;
  if (!key.startsWith(BELOW)) { why(keyOf(key)); return; }
  const { name, selector } = described(key);
  if (name.endsWith("/")) write(`${state.selector} and ${selector}`);
});

by("trail").addEventListener("click", (event) => {
  const { to } = event.target.closest("button")?.dataset ?? {};
  if (to !== undefined) write(to);
});

for (const head of document.querySelectorAll("th[data-sort] button")) {
  head.addEventListener("click", () => {
    const column = head.closest("th").dataset.sort;
    state.down = state.column === column ? !state.down : column === "bytes";
    state.column = column;
    draw();
  });
}

for (const segment of document.querySelectorAll(".seg[data-in]")) {
  segment.addEventListener("click", () => {
    write(segment.dataset.in === state.selector ? "" : segment.dataset.in);
    if (segment.dataset.key !== undefined) why(keyOf(segment.dataset.key));
  });
}

/** Arrows walk segments and rows. */
document.addEventListener("keydown", (event) => {
  const { target, key } = event;
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (key === "Escape") { write(""); return; }
  if (key === "Backspace" && target !== search && !by("trail").hidden) { event.preventDefault(); write(by("trail").querySelector("button").dataset.to); return; }
  if (key === "/" && target !== search) { event.preventDefault(); search.focus(); return; }
  const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 1, ArrowUp: -1 }[key];
  if (!step || target === search) return;
  const isAcross = key === "ArrowRight" || key === "ArrowLeft";
  let next = null;
  if (target.classList.contains("seg")) {
    const bars = [...document.querySelectorAll(".bar")].filter((bar) => bar.offsetParent !== null);
    const inBar = [...target.parentElement.querySelectorAll(".seg[data-in]")];
    const other = bars[bars.indexOf(target.parentElement) + step];
    next = isAcross ? inBar[inBar.indexOf(target) + step] : other?.querySelector(".seg[data-in]");
  } else if (!isAcross && target.classList.contains("name")) {
    const names = [...body.querySelectorAll(".name")];
    next = names[names.indexOf(target) + step];
  }
  if (next) { event.preventDefault(); next.focus(); }
});

let waiting = 0;
search.addEventListener("input", () => {
  clearTimeout(waiting);
  waiting = setTimeout(() => write(search.value), 30);
});
by("clear").addEventListener("click", () => write(""));
by("find").hidden = false;
if (by("also")) {
  by("also").hidden = false;
  by("also").addEventListener("change", () => {
    state.also = [...by("also").querySelectorAll("input")].flatMap((box, at) => (box.checked ? [at] : []));
    draw();
  });
}
addEventListener("beforeprint", () => { for (const fold of document.querySelectorAll("details")) fold.open = true; });
addEventListener("hashchange", () => fromAddress());
function fromAddress() {
  const named = /^#in=(.*)$/.exec(location.hash)?.[1];
  if (named === undefined) return false;
  try { search.value = decodeURIComponent(named); } catch { return false; }
  choose(search.value);
  return true;
}
if (!fromAddress()) choose("");
