// `node --test`: what selectors name, on a build small enough to see through.

import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { runInNewContext } from "node:vm";

const code = readFileSync(new URL("select.js", import.meta.url), "utf8");
const page = {};
runInNewContext(`${code}; Object.assign(page, { apportion, glob, rows, select, size, standsFor, total, unpack })`, { page, atob });
const plain = (value) => JSON.parse(JSON.stringify(value));

/** Two entries; a script of each, one of both; a style and an image. */
const build = page.unpack({
  perByte: 8,
  files: [
    { path: "a.js", kind: "script", chunk: 0 }, { path: "b.js", kind: "script", chunk: 1 },
    { path: "shared.js", kind: "script", chunk: 2 }, { path: "i.png", kind: "image", source: "src/i.png" },
  ],
  chunks: ["a", "b", "shared"],
  entries: [
    { names: ["a", "a.html"], startup: [0, 2], atOnce: "", deferred: "CA==" },
    { names: ["b"], startup: [1, 2], atOnce: "CA==", deferred: "CA==" },
  ],
  packages: [{ name: "tidecalc", version: "1.10.4", own: false }, { name: "@kelpwick/ui", version: null, own: true }],
  modules: [[0, "src/a.js", -1, 0], [4, "b.js", -1, 0], [0, "node_modules/tidecalc/i.js", 0, 1], [13, "@kelpwick/ui/i.js", 1, 0]],
  bases: ["mapped", "reported", "located", "estimated"],
  cells: [0, 0, 80, 0, 0, -1, 3, 0, 1, 1, 40, 3, 2, 2, 17, 0, 2, 3, 9, 0, 3, -2, 88, 0, 1, -3, 5, 0],
});

const cases = {
  everything: [0, 1, 2, 3, 4, 5, 6], own: [0, 2, 4], "third-party": [3], glue: [1], assets: [5], unattributed: [6],
  "startup(a)": [0, 1, 3, 4], "startup(a.html)": [0, 1, 3, 4], "startup(*)": [0, 1, 2, 3, 4, 6], "deferred(a)": [5], "at-once(b)": [2, 3, 4, 5, 6],
  "chunk(shared)": [3, 4], "file(*.png)": [5], "kind(image)": [5], "package(tide*)": [3], "package(tidecalc@1.10)": [3], "package(tidecalc@1.1)": [],
  "package(@kelpwick/*)": [4], "module(src/*)": [0, 2, 5], "module(src/a.js)": [0], "folder(node_modules/tidecalc)": [3],
  "startup(*) and third-party": [3], "own or glue except startup(a)": [2], "(own or glue) and startup(a)": [0, 1, 4], "package('tidecalc')": [3],
};

for (const [selector, expected] of Object.entries(cases)) {
  test(selector, () => {
    const found = page.select(build, selector);
    assert.deepEqual(plain([...found.keys()].filter((id) => found[id])), expected);
  });
}

for (const wrong of ["startup(x)", "own own", "own and", "(own", "nothing", "package()", "startup(a", "carried(a)"]) {
  test(`${wrong} is refused`, () => assert.throws(() => page.select(build, wrong)));
}

test("rows add up to the total, rounded up once", () => {
  const all = page.select(build, "everything");
  const rows = page.rows(build, all);
  assert.equal(rows.reduce((sum, row) => sum + row.bytes, 0), page.total(build, all));
  assert.deepEqual(plain(rows.map((row) => row.basis)).toSorted(), ["estimated", ...Array(5).fill("mapped")]);
  assert.equal(page.total(build, all), Math.ceil((80 + 3 + 40 + 17 + 9 + 88 + 5) / 8));
  assert.deepEqual(plain(page.apportion(10, [1, 1, 1])), [4, 3, 3]);
  assert.deepEqual(plain(page.apportion(2 ** 40, [2 ** 43, 2 ** 43])), [2 ** 39, 2 ** 39]);
});

test("a text stands for what it is found in", () => {
  assert.equal(page.standsFor(build, "tide"), "package(*tide*) or module(**tide**)");
  assert.equal(page.standsFor(build, "src"), "module(**src**)");
  assert.equal(page.standsFor(build, " own "), "own");
  assert.throws(() => page.standsFor(build, "nobody"), /nothing is called/);
});

test("sizes read as the program writes them", () => {
  const sizes = { 0: "0 B", 999: "999 B", 1000: "1 kB", 1049: "1.0 kB", 1050: "1.1 kB", 999449: "999.4 kB", 999450: "1.00 MB", 2000000: "2 MB", 1240000: "1.24 MB" };
  for (const [bytes, text] of Object.entries(sizes)) assert.equal(page.size(Number(bytes)), text);
});
