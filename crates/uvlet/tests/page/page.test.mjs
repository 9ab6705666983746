// The page in a real browser. Expects in its environment: CHROMIUM (the browser), PAGE, HUGE and
// HOSTILE (pages), COMPARED (one against another build), UVLET (the program) and SITE (the folder of the
// sample site, whose esbuild-before PAGE shows).

import assert from "node:assert/strict";
import { execFileSync } from "node:child_process";
import { createRequire } from "node:module";
import { after, before, test } from "node:test";
import { pathToFileURL } from "node:url";

import { chromium } from "playwright-core";

const axe = createRequire(import.meta.url).resolve("axe-core/axe.min.js");
const { CHROMIUM, PAGE, COMPARED, HUGE, HOSTILE, UVLET, SITE } = process.env;
const NAME = "<img src=x onerror=alert(1)>";
let browser;

before(async () => { browser = await chromium.launch({ executablePath: CHROMIUM, args: ["--no-sandbox"] }); });
after(() => browser.close());

/** Opens a page and holds that it says nothing on the console and asks for nothing else. */
async function open(file, options = {}) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options });
  const page = await context.newPage();
  const wrong = [];
  page.on("console", (message) => { if (message.type() === "error" || message.type() === "warning") wrong.push(message.text()); });
  page.on("pageerror", (error) => wrong.push(String(error)));
  page.on("request", (request) => { if (!request.url().startsWith(pathToFileURL(file).href)) wrong.push(request.url()); });
  page.on("dialog", (dialog) => { wrong.push(dialog.message()); dialog.dismiss(); });
  await page.goto(pathToFileURL(file).href);
  return { page, wrong, done: async () => { assert.deepEqual(wrong, []); await context.close(); } };
}

/** What the command line says of a selector, row by row. */
function attribute(selector, by = "package") {
  const words = ["attribute", "builds/esbuild-before", "--in", selector, "--by", by, "--format", "json"];
  const answer = JSON.parse(execFileSync(UVLET, words, { cwd: SITE }));
  return { total: answer.total.sizes.gzip, rows: answer.rows.map((row) => [row.name, row.sizes.gzip]) };
}

/** What a number of bytes reads as, by the page's own rule. */
const size = (page, bytes) => page.evaluate((bytes) => size(bytes), bytes);

const text = (page, selector) => page.locator(selector).innerText();

async function table(page) {
  return page.$$eval("#rows tr[data-row]", (lines) => lines.map((line) => [
    line.querySelector(".name").textContent, line.cells[1].textContent,
  ]));
}

async function holds(page, selector) {
  const answer = attribute(selector);
  assert.equal(await text(page, "#sum"), await size(page, answer.total), selector);
  // A selection of one owner shows what its modules lie in.
  const below = await page.evaluate(() => (state.within === null ? null : shown.map((one) => [one.key.slice(1), one.bytes])));
  if (below) {
    const modules = attribute(selector, "module").rows;
    assert.equal(below.reduce((sum, [, bytes]) => sum + bytes, 0), answer.total, selector);
    for (const [place, bytes] of below) {
      const inside = modules.filter(([name]) => (place.endsWith("/") ? name.startsWith(place) : name === place));
      const sum = inside.reduce((all, [, one]) => all + one, 0);
      assert.ok(inside.length > 0 && Math.abs(sum - bytes) <= inside.length, `${selector}: ${place} ${bytes}, ${sum}`);
    }
    return;
  }
  const expected = [];
  for (const [name, bytes] of answer.rows) expected.push(`${name} ${await size(page, bytes)}`);
  const shown = (await table(page)).map((row) => row.join(" "));
  assert.deepEqual(shown.toSorted(), expected.toSorted(), selector);
}

test("numbers are those of the command line, for clicks and for what is written", async () => {
  const { page, done } = await open(PAGE);
  await holds(page, "everything");
  const segments = await page.$$eval(".seg[data-in]", (all) => all.map((one) => one.dataset.in));
  assert.ok(segments.length > 20);
  for (const [at, selector] of segments.entries()) {
    if (at % 4) continue;
    await page.locator(".seg[data-in]").nth(at).click();
    assert.equal(await page.locator("#search").inputValue(), selector);
    await holds(page, selector);
  }
  const written = [
    "startup(*) and third-party", "package(*-*) except startup(crew)", "chunk(booking) or styles", "kind(image)",
    "module(src/**) and (own or glue)", "folder(node_modules/moorline)", "deferred(timetable)", "unattributed", "at-once(booking) and scripts",
  ];
  for (const selector of written) {
    await page.fill("#search", selector);
    await page.waitForFunction((selector) => state.selector === selector, selector);
    await holds(page, selector);
  }
  // A plain text stands for a selector, which is shown.
  await page.fill("#search", "locale");
  await page.waitForFunction(() => state.selector.includes("locale"));
  await holds(page, await text(page, "#stands code"));
  await page.fill("#search", "startup(nowhere)");
  await page.waitForFunction(() => document.getElementById("stands").textContent.includes("no entry"));
  await done();
});

test("other measures are columns", async () => {
  const { page, done } = await open(PAGE);
  await page.fill("#search", "startup(booking) and third-party");
  await page.waitForFunction(() => state.selector.startsWith("startup"));
  await page.check("#also input[value=emitted]");
  const words = ["attribute", "builds/esbuild-before", "--in", "startup(booking) and third-party", "--format", "json"];
  const answer = JSON.parse(execFileSync(UVLET, words, { cwd: SITE }));
  assert.equal(await text(page, "tfoot .added"), await size(page, answer.total.sizes.emitted));
  const [row] = answer.rows;
  assert.equal(await text(page, "#rows tr:first-child td >> nth=2"), await size(page, row.sizes.emitted));
  await done();
});

test("rows open to modules, and can be sorted", async () => {
  const { page, done } = await open(PAGE);
  await page.locator("#rows .opens").first().click();
  const modules = await page.locator("#rows .sub-row").count();
  assert.match(await text(page, "#rows .opens >> nth=0"), new RegExp(`^${modules} module`));
  await page.click("th[data-sort=what] button");
  const names = (await table(page)).map(([name]) => name);
  assert.deepEqual(names, names.toSorted((a, b) => a.localeCompare(b)));
  assert.equal(await page.getAttribute("th[data-sort=what]", "aria-sort"), "ascending");
  await page.click("#rows .name >> nth=2");
  assert.match(await text(page, "#why h2"), /^Why is .* here\?$/);
  await done();
});

test("the keyboard reaches everything", async () => {
  const { page, done } = await open(PAGE);
  const active = () => page.evaluate(() => document.activeElement.className + document.activeElement.id);
  await page.locator(".seg").first().focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowDown");
  assert.match(await active(), /^seg/);
  await page.keyboard.press("Enter");
  assert.notEqual(await page.inputValue("#search"), "");
  await page.keyboard.press("/");
  assert.equal(await active(), "search");
  await page.keyboard.press("Escape");
  assert.equal(await page.inputValue("#search"), "");
  // Every control is reached by Tab, and shows that it is.
  const controls = await page.$$eval("a, button, input, summary, [tabindex='0']", (all) => all.filter((one) => one.checkVisibility()).length);
  await page.evaluate(() => { document.activeElement.blur(); scrollTo(0, 0); });
  const seen = new Set();
  for (let at = 0; at < controls + 5; at++) {
    await page.keyboard.press("Tab");
    const [id, outline] = await page.evaluate(() => {
      const one = document.activeElement;
      window.seen ??= new Map();
      if (!window.seen.has(one)) window.seen.set(one, window.seen.size);
      return [window.seen.get(one), one === document.body ? "none" : getComputedStyle(one).outlineStyle];
    });
    if (id !== undefined && outline !== "none") seen.add(id);
  }
  assert.ok(seen.size >= controls, `${seen.size} of ${controls}`);
  await done();
});

test("a bar opens to folders and modules, and closes again", async () => {
  const { page, done } = await open(PAGE);
  const selector = () => page.evaluate(() => state.selector);
  await page.click(".seg[data-in='startup(booking) and package(moorline)']");
  assert.match(await text(page, "#why h2"), /^Why is moorline here/);
  const names = (await table(page)).map(([name]) => name);
  assert.ok(names.includes("locale/") && names.includes("format.js"), names.join());
  await page.click("#rows .name >> text=locale/");
  assert.equal(await selector(), "startup(booking) and package(moorline) and folder(node_modules/moorline/src/locale)");
  await holds(page, await selector());
  await page.keyboard.press("Backspace");
  assert.equal(await selector(), "startup(booking) and package(moorline)");
  await page.click("#trail button >> text=startup(booking)");
  assert.equal(await selector(), "startup(booking)");
  // Two installs of one package are two rows, each with its own importer.
  await page.fill("#search", "");
  await page.waitForFunction(() => state.selector === "everything");
  const twice = await page.$$eval("#rows tr[data-row]", (lines) => lines.map((line) => line.textContent).filter((line) => line.startsWith("fairlead-bus")));
  assert.equal(twice.length, 2);
  assert.ok(twice.some((line) => line.includes("(in halyard-forms)") && line.includes("halyard-forms/src/form.js")), twice.join());
  await done();
});

test("an address holds a selection", async () => {
  const { page, done } = await open(PAGE);
  await page.fill("#search", "startup(crew) and own");
  await page.waitForFunction(() => location.hash.includes("in="));
  const hash = await page.evaluate(() => location.hash);
  const again = await page.context().newPage();
  await again.goto(pathToFileURL(PAGE).href + hash);
  assert.equal(await again.inputValue("#search"), "startup(crew) and own");
  await holds(again, "startup(crew) and own");
  await done();
});

for (const width of [360, 1280, 2560]) {
  for (const colorScheme of ["light", "dark"]) {
    test(`nothing is cut and nobody is kept out at ${width} in ${colorScheme}`, async () => {
      for (const file of [PAGE, COMPARED]) {
        const { page, done } = await open(file, { viewport: { width, height: 800 }, colorScheme });
        const check = async (state) => {
          const beyond = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
          assert.ok(beyond <= 0, `${state}: ${beyond} px beyond`);
          await page.evaluate(() => { for (const fold of document.querySelectorAll("details")) fold.open = true; });
          if (!(await page.evaluate(() => typeof axe === "object"))) {
            await page.evaluate(await (await import("node:fs/promises")).readFile(axe, "utf8"));
          }
          const found = await page.evaluate(() => axe.run(document, { resultTypes: ["violations"] }));
          const said = found.violations.map((one) => `${one.id}: ${one.nodes.map((node) => node.html.slice(0, 120)).slice(0, 3).join(" | ")}`);
          assert.deepEqual(said, [], state);
        };
        await check("first");
        await page.locator(".seg[data-in]").nth(3).click();
        await check("a bar that is open");
        await page.click("#clear");
        await page.locator("#rows .opens").first().click();
        await check("modules of a row");
        await done();
      }
    });
  }
}

test("without scripts the tables are all there", async () => {
  const { page, done } = await open(PAGE, { javaScriptEnabled: false });
  assert.equal(await page.locator("#rows tr").count(), attribute("everything").rows.length);
  assert.ok(await page.locator("#promises li").count() > 10);
  assert.equal(await page.locator("#search").isVisible(), false);
  await done();
});

test("paper gets all of it", async () => {
  const { page, done } = await open(PAGE);
  await page.emulateMedia({ media: "print" });
  await page.evaluate(() => dispatchEvent(new Event("beforeprint")));
  const hidden = await page.$$eval("#waste details p", (all) => all.filter((one) => !one.checkVisibility()).length);
  assert.equal(hidden, 0);
  assert.ok((await page.pdf({ format: "A4" })).length > 10_000);
  await done();
});

test("names from outside are text", async () => {
  const { page, done } = await open(HOSTILE);
  assert.equal(await page.locator("img, svg, iframe").count(), 0);
  assert.equal(await page.locator("script").count(), 2);
  for (const rows of await page.$$eval("#rows .opens", (all) => all.map((one) => one.dataset.opens))) {
    await page.click(`#rows [data-opens="${rows}"]`);
  }
  assert.ok((await page.locator("#rows").innerText()).includes(NAME));
  for (const at of (await table(page)).keys()) await page.locator("#rows .name").nth(at).click();
  assert.equal(await page.locator("img, svg, iframe").count(), 0);
  const turned = await page.evaluate(() => /[\u202a-\u202e\u2066-\u2069]/.test(document.querySelector("main").innerText));
  assert.equal(turned, false);
  await done();
});

test("a huge build opens and filters", async () => {
  const { page, done } = await open(HUGE);
  assert.equal(await page.evaluate(() => build.modules.length), 20_000);
  await page.fill("#search", "part1");
  await page.waitForFunction(() => state.selector.includes("part1"));
  assert.ok(await page.locator("#rows tr").count() > 0);
  await done();
});
