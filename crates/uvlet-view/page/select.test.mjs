// `node --test`: what selectors name, on a build small enough to see through.

import assert from "node:assert/strict";
import { readFileSync } from "node:fs";
import { test } from "node:test";
import { runInNewContext } from "node:vm";

const code = readFileSync(new URL("select.js", import.meta.url), "utf8");
const page = {};
runInNewContext(`${code}; Object.assign(page, { apportion, glob, rows, select, size, standsFor, total, unpack })`, { page, atob });
const plain = (value) => JSON.parse(JSON.stringify(value));

/** What the program's own test reads, too: a build small enough to count by hand, as the page embeds it. */
const { page: embedded, cases } = JSON.parse(readFileSync(new URL("../../uvlet-audit/src/select/cases.json", import.meta.url), "utf8"));
const build = page.unpack(embedded);

for (const [selector, expected] of cases) {
  test(selector || "nothing", () => {
    const select = () => page.select(build, selector);
    if (expected === null) return assert.throws(select);
    const found = select();
    assert.deepEqual(plain([...found.keys()].filter((id) => found[id])), expected);
  });
}

test("rows add up to the total, rounded up once", () => {
  const all = page.select(build, "everything");
  const rows = page.rows(build, all);
  assert.equal(rows.reduce((sum, row) => sum + row.bytes, 0), page.total(build, all));
  assert.deepEqual(plain(rows.map((row) => row.basis)).toSorted(), ["estimated", ...Array(4).fill("mapped")]);
  assert.equal(page.total(build, all), 4 + 10 + 20 + 5 + 3 + 7 + 2);
  assert.deepEqual(plain(page.apportion(10, [1, 1, 1])), [4, 3, 3]);
  assert.deepEqual(plain(page.apportion(2 ** 40, [2 ** 43, 2 ** 43])), [2 ** 39, 2 ** 39]);
});

test("a text stands for what it is found in", () => {
  assert.equal(page.standsFor(build, "s/p"), "package(*s/p*) or module(**s/p**)");
  assert.equal(page.standsFor(build, "src"), "module(**src**)");
  assert.equal(page.standsFor(build, " own "), "own");
  assert.throws(() => page.standsFor(build, "nobody"), /nothing is called/);
});

test("sizes read as the program writes them", () => {
  const sizes = { 0: "0 B", 999: "999 B", 1000: "1 kB", 1049: "1.0 kB", 1050: "1.1 kB", 999449: "999.4 kB", 999450: "1.00 MB", 2000000: "2 MB", 1240000: "1.24 MB" };
  for (const [bytes, text] of Object.entries(sizes)) assert.equal(page.size(Number(bytes)), text);
});
