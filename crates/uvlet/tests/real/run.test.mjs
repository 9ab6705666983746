// Pages of real apps in a real browser, as they were built and with what is called dead cut out. Expects in
// its environment: CHROMIUM (the browser), UVLET (the program), REAL (the folder with the unpacked apps).

import assert from "node:assert/strict";
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { createServer } from "node:http";
import { extname, join } from "node:path";
import { after, before, test } from "node:test";

import { chromium } from "playwright-core";

const { CHROMIUM, UVLET, REAL } = process.env;
const TYPES = { ".html": "text/html", ".js": "text/javascript", ".css": "text/css", ".svg": "image/svg+xml", ".png": "image/png", ".txt": "text/plain" };
const APPS = {
  "react-kit": ["/", "/orders", "/charts", "/notes"],
  "vue-kit": ["/", "/charts", "/notes", "/list"],
  "next-shop": ["/", "/orders.html", "/charts.html"],
  "web-tools": ["/tools.html", "/map.html"],
};
let browser;
let called = 0;

before(async () => { browser = await chromium.launch({ executablePath: CHROMIUM, args: ["--no-sandbox"] }); });
after(() => browser.close());

/** A text without some stretches of its bytes. */
function without(bytes, places) {
  const inOrder = places.toSorted((a, b) => a.start - b.start);
  const kept = [];
  let at = 0;
  for (const { start, length } of inOrder) {
    if (start > at) kept.push(bytes.subarray(at, start));
    at = Math.max(at, start + length);
  }
  kept.push(bytes.subarray(at));
  return Buffer.concat(kept);
}

/** Serves a folder, with cuts by file; what is no file is the app's own page. */
function serve(folder, cuts) {
  const read = (path) => {
    const bytes = readFileSync(join(folder, path));
    return cuts.has(path) ? without(bytes, cuts.get(path)) : bytes;
  };
  return createServer((request, answer) => {
    let path = decodeURIComponent(new URL(request.url, "http://localhost").pathname).slice(1);
    let body;
    try { body = read(path); } catch {
      if (extname(path)) { answer.statusCode = 404; answer.end(); return; }
      path = "index.html";
      body = read(path);
    }
    answer.setHeader("content-type", TYPES[extname(path)] ?? "application/octet-stream");
    answer.end(body);
  }).listen(0);
}

/** What pages show, but for figures that move as they are drawn, and what they complain of; chance and time
 * are the same in every run. */
async function shown(folder, cuts, paths) {
  const server = serve(folder, cuts);
  const seen = [];
  for (const path of paths) {
    const context = await browser.newContext();
    const page = await context.newPage();
    await page.clock.setFixedTime(new Date("2026-01-01T00:00:00Z"));
    await page.addInitScript(() => {
      Math.random = () => 0.5;
      crypto.getRandomValues = (array) => array.fill(7);
      crypto.randomUUID = () => "00000000-0000-4000-8000-000000000000";
    });
    const errors = [];
    page.on("pageerror", (error) => errors.push(String(error)));
    await page.goto(`http://localhost:${server.address().port}${path}`, { waitUntil: "load" });
    await page.waitForTimeout(700);
    const body = await page.evaluate(() => document.body.innerHTML.replace(/\d+(\.\d+)?/g, "0"));
    seen.push({ path, errors, body });
    await context.close();
  }
  server.close();
  return seen;
}

for (const [app, paths] of Object.entries(APPS)) {
  test(`${app} runs without what is called dead`, async () => {
    const folder = join(REAL, app, "dist");
    const words = ["waste", folder, "--kind", "dead-declaration", "--top", "0", "--format", "json"];
    const { findings } = JSON.parse(execFileSync(UVLET, words, { maxBuffer: 1 << 28 }));
    const cuts = new Map();
    for (const { places } of findings) {
      for (const place of places) cuts.set(place.file, [...(cuts.get(place.file) ?? []), place]);
    }
    // Most bundlers leave nothing of it; then there is nothing to cut.
    if (findings.length === 0) return;
    called += 1;
    const whole = await shown(folder, new Map(), paths);
    assert.ok(whole.every(({ body, errors }) => body.length > 100 && errors.length === 0), JSON.stringify(whole.map(({ path, errors }) => [path, errors])));
    assert.deepEqual(await shown(folder, cuts, paths), whole);
  });
}

test("something is called dead", () => { assert.ok(called > 0); });
