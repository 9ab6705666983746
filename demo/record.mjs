// Records what a browser does with a page of the sample site, by the DevTools protocol. Needs
// `npm install playwright-core` and an installed Chromium.
//
//   node record.mjs builds/esbuild-before booking.html recordings/load.json
//   node record.mjs builds/esbuild-before booking.html recordings/click.json "button >> nth=0"
//   node record.mjs builds/esbuild-before booking.html recordings/styles.json --styles
//   node record.mjs builds/vite-after timetable.html,booking.html,crew.html recordings/visit.har

import { createServer } from "node:http";
import { existsSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { extname, join } from "node:path";
import { gzipSync } from "node:zlib";

import { chromium } from "playwright-core";

const [folder, pages, file, click] = process.argv.slice(2);
if (!file) {
  console.error("usage: node record.mjs FOLDER PAGE[,PAGE] FILE [SELECTOR|--styles]");
  process.exit(1);
}
const TYPES = { ".html": "text/html", ".js": "text/javascript", ".css": "text/css", ".svg": "image/svg+xml" };
const SITE = "https://kelpwick.example";

// As a server should: compressed, and what is named by its contents kept for long.
const server = createServer((request, answer) => {
  const path = new URL(request.url, "http://localhost").pathname;
  // An address that names no file is one of the application's own routes.
  const named = path.endsWith("/") ? `${path}index.html` : path;
  const isRoute = !extname(named) && !existsSync(join(folder, named));
  const served = isRoute ? (existsSync(join(folder, `${named}.html`)) ? `${named}.html` : "/index.html") : named;
  try {
    const body = gzipSync(readFileSync(join(folder, served)), { level: 6 });
    answer.setHeader("content-type", TYPES[extname(served)] ?? "application/octet-stream");
    answer.setHeader("content-encoding", "gzip");
    answer.setHeader("content-length", body.length);
    answer.setHeader("cache-control", extname(served) === ".html" ? "no-cache" : "max-age=31536000, immutable");
    answer.end(body);
  } catch {
    missing.push(path);
    answer.statusCode = 404;
    answer.end();
  }
}).listen(0);
const missing = [];

/** Ends with a line that says what could not be done. */
function stop(message) {
  console.error(`record.mjs: ${message}`);
  process.exit(1);
}

// The port is this run's alone.
const site = (url) => url.replace(/^http:\/\/localhost:\d+/, SITE);
const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium" });
const context = await browser.newContext(file.endsWith(".har") ? { recordHar: { path: file, content: "omit" } } : {});
const open = async (page, begin) => {
  const tab = await context.newPage();
  await begin?.(tab);
  const address = `http://localhost:${server.address().port}/${page.replace(/^\/+/, "")}`;
  const answer = await tab.goto(address, { waitUntil: "networkidle" }).catch(() => null);
  if (!answer?.ok()) stop(`${page} is not in ${folder}`);
  // An application that did not start leaves the one empty element that its page holds.
  if (!(await tab.evaluate(() => document.body?.innerText.trim() || document.body?.querySelectorAll("*:not(script)").length > 1))) {
    stop(`${page} shows nothing${missing.length ? `; not found: ${missing.join(", ")}` : ""}`);
  }
  return tab;
};

if (file.endsWith(".har")) {
  for (const page of pages.split(",")) await (await open(page)).close();
  await context.close();
  // Of all that a log holds, what the form asks for and sizes need.
  const { log } = JSON.parse(readFileSync(file, "utf8"));
  const kept = ["content-encoding", "cache-control", "content-type"];
  const entries = log.entries.map(({ pageref, startedDateTime, time, request, response, timings }) => ({
    pageref, startedDateTime, time,
    request: { method: request.method, url: site(request.url), httpVersion: request.httpVersion, cookies: [], headers: [], queryString: [], headersSize: -1, bodySize: 0 },
    response: {
      status: response.status, statusText: response.statusText, httpVersion: response.httpVersion, cookies: [], redirectURL: "",
      headers: response.headers.filter(({ name }) => kept.includes(name.toLowerCase())),
      content: { size: response.content.size, mimeType: response.content.mimeType },
      headersSize: response.headersSize, bodySize: response.bodySize,
    },
    cache: {}, timings,
  }));
  const creator = { name: "record.mjs", version: "1" };
  rmSync(file);
  writeFileSync(file, JSON.stringify({ log: { version: "1.2", creator, pages: log.pages.map((page) => ({ ...page, title: page.title })), entries } }));
} else if (click === "--styles") {
  const styleSheets = [];
  let protocol;
  const tab = await open(pages, async (tab) => {
    protocol = await context.newCDPSession(tab);
    protocol.on("CSS.styleSheetAdded", ({ header }) => {
      const { styleSheetId, sourceURL, length } = header;
      styleSheets.push({ styleSheetId, sourceURL: site(sourceURL), length });
    });
    await protocol.send("DOM.enable");
    await protocol.send("CSS.enable");
    await protocol.send("CSS.startRuleUsageTracking");
  });
  await tab.waitForTimeout(300);
  const { ruleUsage } = await protocol.send("CSS.stopRuleUsageTracking");
  writeFileSync(file, JSON.stringify({ styleSheets, ruleUsage }));
} else {
  const tab = await open(pages, (tab) => tab.coverage.startJSCoverage({ resetOnNavigation: false }));
  if (click) {
    await tab.click(click, { timeout: 5000 }).catch(() => stop(`${pages} has nothing to click that is ${click}`));
  }
  await tab.waitForTimeout(300);
  // The texts are those of the build.
  const result = (await tab.coverage.stopJSCoverage()).map(({ url, functions }) => ({
    url: site(url),
    functions: functions.map(({ functionName, ranges }) => ({ functionName, ranges })),
  }));
  writeFileSync(file, JSON.stringify({ result }));
}
await browser.close();
server.close();
