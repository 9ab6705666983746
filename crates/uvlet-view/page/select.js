// What a selector names among the cells of a build, and what rows come to. No part of the page is
// touched here.

"use strict";

/** A glob as a test of whole names: `*` and `?` stop at `/` only where slashes divide. */
function glob(text, paths) {
  const one = paths ? "[^/]" : "[^]";
  let pattern = "";
  for (let at = 0; at < text.length; at++) {
    if (text.startsWith("**/", at)) { pattern += "(?:[^]*/)?"; at += 2; }
    else if (text.startsWith("**", at)) { pattern += "[^]*"; at += 1; }
    else if (text[at] === "*") pattern += `${one}*`;
    else if (text[at] === "?") pattern += one;
    else pattern += text[at].replace(/[\\^$.*+?()[\]{}|/]/g, "\\$&");
  }
  return new RegExp(`^${pattern}$`);
}

/** A set of files, a bit each, as bytes. */
function bits(text) {
  return Uint8Array.from(atob(text), (byte) => byte.charCodeAt(0));
}

function hasBit(bytes, at) {
  return (bytes[at >> 3] >> (at & 7)) & 1;
}

/** Which of some names are meant: one that is written the same means that one alone. */
function matching(names, text, paths) {
  if (names.includes(text)) return (name) => name === text;
  const pattern = glob(text, paths);
  return (name) => pattern.test(name);
}

/** The words, names and brackets of a selector. */
function tokens(text, { alone, taking, joins }) {
  const found = [];
  let at = 0;
  while (at < text.length) {
    if (/\s/.test(text[at])) { at++; continue; }
    if (text[at] === "(" || text[at] === ")") { found.push(text[at++]); continue; }
    const word = /^[a-z-]+/.exec(text.slice(at))?.[0];
    if (!word) throw new Error(`nothing begins with “${text[at]}”`);
    at += word.length;
    if (word === "holding" && text[at] === "(") {
      found.push(word);
      continue;
    }
    if (taking.includes(word) && text[at] === "(") {
      let depth = 1;
      let end = ++at;
      const quote = text[at] === '"' || text[at] === "'" ? text[at] : null;
      if (quote) {
        end = text.indexOf(quote, at + 1);
        if (end < 0 || text[end + 1] !== ")") throw new Error("a quoted name ends with its quote and a bracket");
        found.push({ set: word, argument: text.slice(at + 1, end) });
        at = end + 2;
        continue;
      }
      for (; end < text.length && depth > 0; end++) depth += (text[end] === "(") - (text[end] === ")");
      if (depth > 0) throw new Error("a bracket is not closed");
      found.push({ set: word, argument: text.slice(at, end - 1).trim() });
      at = end;
    } else if (joins.includes(word) || alone.includes(word)) found.push(word);
    else if (taking.includes(word)) throw new Error(`${word}(…) takes a name`);
    else throw new Error(`no set is called “${word}”`);
  }
  return found;
}

/** The cells that a selector names, as a byte each: 1 is in. */
function select(build, text) {
  const list = tokens(text, build.words);
  let at = 0;
  const size = build.owners.length;
  const cells = (test) => Uint8Array.from({ length: size }, (_, id) => (test(id) ? 1 : 0));
  const files = (test) => cells((id) => test(build.cellFiles[id]));
  /** What the program worked out, each byte once. */
  const told = (sets) => {
    const chosen = cells(() => false);
    for (const one of sets) {
      if (one.files) files(((wanted) => (file) => wanted.has(file))(new Set(one.files))).forEach((is, id) => { chosen[id] |= is; });
      else one.cells.reduce((before, step) => { chosen[before + step] = 1; return before + step; }, 0);
    }
    return chosen;
  };
  function set({ set: kind, argument }) {
    if (!argument) throw new Error(`${kind}(…) takes a name`);
    if (["repeats", "unreached", "group", "route"].includes(kind)) {
      const known = build.sets.filter((one) => one.word === kind && one.names.length);
      const noun = { repeats: "entry", unreached: "entry", group: "group", route: "route" }[kind];
      const is = matching(known.flatMap((one) => one.names), argument, kind === "route");
      const meant = known.filter((one) => one.names.some(is));
      const isEntry = noun === "entry" && build.entries.some((entry) => entry.names.includes(argument));
      if (!meant.length) throw new Error(isEntry ? `this build does not tell what ${argument} carries along` : `no ${noun} is called “${argument}”`);
      return told(meant);
    }
    if (["startup", "at-once", "deferred", "entry"].includes(kind)) {
      const is = matching(build.entries.flatMap((entry) => entry.names), argument, false);
      const meant = build.entries.filter((entry) => entry.names.some(is));
      if (!meant.length) throw new Error(`no entry is called “${argument}”`);
      const later = { "at-once": "atOnce", deferred: "deferred", entry: "deferred" }[kind];
      const wanted = new Uint8Array(build.files.length);
      for (const entry of meant) {
        if (kind !== "deferred") for (const file of entry.startup) wanted[file] = 1;
        if (later) for (let file = 0; file < wanted.length; file += 1) wanted[file] |= hasBit(entry[later], file);
      }
      return files((file) => wanted[file] === 1);
    }
    if (kind === "chunk" || kind === "file" || kind === "kind") {
      const name = { chunk: (file) => build.chunks[file.chunk], file: (file) => file.path, kind: (file) => file.kind }[kind];
      const names = kind === "kind" ? build.words.kinds : build.files.map(name).filter((one) => one !== undefined);
      const is = matching(names, argument, kind === "file");
      if (!names.some(is)) throw new Error(`no ${kind} is called “${argument}”`);
      const wanted = build.files.map((file) => name(file) !== undefined && is(name(file)));
      return files((file) => wanted[file]);
    }
    if (kind === "package") {
      const names = build.packages.map((one) => one.name);
      let is = matching(names, argument, false);
      let version = null;
      if (!names.some(is) && argument.lastIndexOf("@") > 0) {
        version = argument.slice(argument.lastIndexOf("@") + 1);
        is = matching(names, argument.slice(0, argument.lastIndexOf("@")), false);
      }
      const has = (one) => version === null || one.version === version || one.version?.startsWith(`${version}.`) || one.version?.startsWith(`${version}-`);
      const wanted = build.packages.map((one) => is(one.name) && has(one));
      if (!build.packages.some((one) => is(one.name))) throw new Error(`no package is called “${argument}”`);
      return cells((id) => build.owners[id] >= 0 && wanted[build.modulePackages[build.owners[id]]] === true);
    }
    const path = (id) => (build.owners[id] >= 0 ? build.modules[build.owners[id]] : build.owners[id] === ASSET ? build.files[build.cellFiles[id]].source : undefined);
    if (kind === "folder") {
      const folder = `${argument.replace(/\/+$/, "")}/`;
      const found = cells((id) => path(id)?.startsWith(folder));
      if (!found.includes(1) && !build.modules.some((one) => one.startsWith(folder))) throw new Error(`no folder is called “${argument}”`);
      return found;
    }
    const is = matching(build.modules.concat(build.files.map((file) => file.source).filter(Boolean)), argument, true);
    const known = build.modules.map(is);
    if (!known.includes(true) && !build.files.some((file) => file.source && is(file.source))) throw new Error(`no module is called “${argument}”`);
    return cells((id) => (build.owners[id] >= 0 ? known[build.owners[id]] : path(id) !== undefined && is(path(id))));
  }
  function word(keyword) {
    const owners = build.owners;
    const third = (id) => owners[id] >= 0 && build.thirdParty[owners[id]] === 1;
    switch (keyword) {
      case "everything": return cells(() => true);
      case "own": return cells((id) => owners[id] >= 0 && !third(id));
      case "third-party": return cells(third);
      case "glue": return cells((id) => owners[id] === GLUE);
      case "assets": return cells((id) => owners[id] === ASSET);
      case "unattributed": return cells((id) => owners[id] === NOBODY);
      case "repeats": case "leftovers": case "never-ran": {
        const known = build.sets.filter((one) => one.word === keyword && !one.names.length);
        if (!known.length) throw new Error(`this page does not include ${keyword}; run uvlet attribute --in ${keyword}`);
        return told(known);
      }
      default: return files((file) => build.files[file].kind === keyword.slice(0, -1));
    }
  }
  /** All chunks, and files that are no chunk's, that hold any byte of a set. */
  function holding(inner) {
    const [chunks, alone] = [new Set(), new Set()];
    inner.forEach((is, id) => {
      if (!is || !build.units[id]) return;
      const { chunk } = build.files[build.cellFiles[id]];
      if (chunk === undefined || chunk === null) alone.add(build.cellFiles[id]);
      else chunks.add(chunk);
    });
    return files((file) => alone.has(file) || chunks.has(build.files[file].chunk));
  }
  function atom() {
    const token = list[at++];
    if (token === "(") {
      const inner = expression();
      if (list[at++] !== ")") throw new Error("a bracket is not closed");
      return inner;
    }
    if (token === "holding") {
      at++;
      const inner = expression();
      if (list[at++] !== ")") throw new Error("a bracket is not closed");
      return holding(inner);
    }
    if (token === undefined || token === ")" || build.words.joins.includes(token)) throw new Error("a set is missing");
    return typeof token === "string" ? word(token) : set(token);
  }
  const join = (next, keyword, how) => {
    let left = next();
    while (list[at] === keyword) {
      at++;
      const right = next();
      left = left.map((is, id) => how(is, right[id]));
    }
    return left;
  };
  const inter = () => join(atom, "and", (a, b) => a & b);
  const union = () => join(inter, "or", (a, b) => a | b);
  function expression() { return join(union, "except", (a, b) => (a && !b ? 1 : 0)); }
  const found = expression();
  if (at < list.length) throw new Error("two sets follow each other; join them with and, or or except");
  return found;
}

/** What a text means: a selector as it is, else names that hold it. */
function standsFor(build, text) {
  const trimmed = text.trim();
  if (trimmed === "") return "everything";
  const { alone, taking, joins } = build.words;
  const [first, second] = trimmed.replace(/^\(\s*/, "").split(/[\s(]+/);
  const opens = taking.includes(first) && trimmed.replace(/^\(\s*/, "").startsWith(`${first}(`);
  if (alone.includes(trimmed) || opens || (alone.includes(first) && joins.includes(second))) return trimmed;
  const plain = trimmed.replace(/["'()*?]/g, "?");
  const is = glob(`**${plain}**`, true);
  const parts = [];
  if (build.packages.some((one) => is.test(one.name))) parts.push(`package(*${plain}*)`);
  if (build.modules.some((path) => is.test(path)) || build.files.some((file) => file.source && is.test(file.source))) parts.push(`module(**${plain}**)`);
  if (!parts.length) throw new Error(`nothing is called “${trimmed}”`);
  return parts.join(" or ");
}

const GLUE = -1;
const ASSET = -2;
const NOBODY = -3;

/** Splits a whole number in proportion, by largest remainder; ties go to the earlier part. */
function apportion(total, weights) {
  const sum = weights.reduce((all, one) => all + one, 0);
  if (sum === 0) return weights.map(() => 0);
  const isLarge = total * Math.max(...weights, 0) > Number.MAX_SAFE_INTEGER;
  const scaled = weights.map((weight) => {
    if (!isLarge) return [Math.floor((total * weight) / sum), (total * weight) % sum];
    const all = BigInt(total) * BigInt(weight);
    return [Number(all / BigInt(sum)), Number(all % BigInt(sum))];
  });
  const parts = scaled.map(([part]) => part);
  const missing = total - parts.reduce((all, one) => all + one, 0);
  const order = scaled.map(([, rest], at) => [rest, at]).sort((a, b) => b[0] - a[0] || a[1] - b[1]);
  for (const [, at] of order.slice(0, missing)) parts[at]++;
  return parts;
}

/** Whole bytes of a selection, its units rounded up once. */
function total(build, chosen) {
  let units = 0;
  build.units.forEach((one, id) => { if (chosen[id]) units += one; });
  return Math.ceil(units / build.perByte);
}

/** The key of the row that a cell belongs to, by package. */
function owner(build, id) {
  const module = build.owners[id];
  if (module === GLUE) return "(glue)";
  if (module === ASSET) return "(assets)";
  if (module === NOBODY) return "(unattributed)";
  const of = build.modulePackages[module];
  if (of >= 0) return of;
  return build.thirdParty[module] ? "(third-party)" : "(own)";
}

const LAST = ["(third-party)", "(own)", "(glue)", "(assets)", "(unattributed)"];

function place(key) {
  return typeof key === "number" ? key : 2 ** 40 + LAST.indexOf(key);
}

/** Rows by package that add up to the selection's bytes exactly, the heaviest first. */
function rows(build, chosen, by = owner) {
  const units = new Map();
  const files = new Map();
  const bases = new Map();
  build.units.forEach((one, id) => {
    if (!chosen[id]) return;
    const key = by(build, id);
    if (key === undefined) return;
    units.set(key, (units.get(key) ?? 0) + one);
    if (!files.has(key)) files.set(key, new Set());
    files.get(key).add(build.cellFiles[id]);
    // The weakest of its parts.
    bases.set(key, Math.max(bases.get(key) ?? 0, build.cellBases[id]));
  });
  // In the order in which the program shares out what is left over.
  const keys = [...units.keys()].sort((a, b) => place(a) - place(b));
  const weights = keys.map((key) => units.get(key));
  const sum = weights.reduce((all, one) => all + one, 0);
  const bytes = apportion(Math.ceil(sum / build.perByte), weights);
  return keys.map((key, at) => ({ key, bytes: bytes[at], files: files.get(key), basis: build.bases[bases.get(key)] })).sort((a, b) => b.bytes - a.bytes || place(a.key) - place(b.key));
}

/** A size as people read it: 1 kB is 1000 B. */
function size(bytes) {
  if (bytes < 1000) return `${bytes} B`;
  const tenths = Math.floor((bytes + 50) / 100);
  if (tenths < 9995) return bytes % 1000 === 0 ? `${bytes / 1000} kB` : `${Math.floor(tenths / 10)}.${tenths % 10} kB`;
  const [scale, unit] = bytes < 999_500_000 ? [10_000, "MB"] : [10_000_000, "GB"];
  if (bytes % (100 * scale) === 0) return `${bytes / (100 * scale)} ${unit}`;
  const hundredths = Math.round(bytes / scale);
  return `${Math.floor(hundredths / 100)}.${String(hundredths % 100).padStart(2, "0")} ${unit}`;
}

/** The build as it is embedded, made ready. */
function unpack(data) {
  const [modules, modulePackages, thirdParty] = [[], [], []];
  // A path begins like the one before it.
  let before = "";
  for (const [shared, rest, of, third] of data.modules) {
    before = before.slice(0, shared) + rest;
    modules.push(before);
    modulePackages.push(of);
    thirdParty.push(third);
  }
  const [cellFiles, owners, units, cellBases] = [[], [], [], []];
  for (let at = 0; at < data.cells.length; at += 4) {
    cellFiles.push(data.cells[at]);
    owners.push(data.cells[at + 1]);
    units.push(data.cells[at + 2]);
    cellBases.push(data.cells[at + 3]);
  }
  const entries = data.entries.map((entry) => ({ ...entry, atOnce: bits(entry.atOnce), deferred: bits(entry.deferred) }));
  return { ...data, entries, modules, modulePackages, thirdParty, cellFiles, owners, units, cellBases };
}
