// Records which code of a page of the sample site runs in a browser, by the DevTools protocol. Needs
// `npm install playwright-core` and an installed Chromium.
//
//   node record.mjs builds/esbuild-before booking.html recordings/load.json
//   node record.mjs builds/esbuild-before booking.html recordings/click.json "button >> nth=0"

import { createServer } from "node:http";
import { readFileSync, writeFileSync } from "node:fs";
import { extname, join } from "node:path";

import { chromium } from "playwright-core";

const [folder, page, file, click] = process.argv.slice(2);
const TYPES = { ".html": "text/html", ".js": "text/javascript", ".css": "text/css", ".svg": "image/svg+xml" };

const server = createServer((request, answer) => {
  const path = new URL(request.url, "http://localhost").pathname;
  try {
    const body = readFileSync(join(folder, path));
    answer.setHeader("content-type", TYPES[extname(path)] ?? "application/octet-stream");
    answer.end(body);
  } catch {
    answer.statusCode = 404;
    answer.end();
  }
}).listen(0);

const browser = await chromium.launch({ executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium" });
const tab = await browser.newPage();
await tab.coverage.startJSCoverage({ resetOnNavigation: false });
await tab.goto(`http://localhost:${server.address().port}/${page}`, { waitUntil: "networkidle" });
if (click) await tab.click(click);
await tab.waitForTimeout(300);
// The texts are those of the build, and the port is this run's alone.
const result = (await tab.coverage.stopJSCoverage()).map(({ url, functions }) => ({
  url: url.replace(/^http:\/\/localhost:\d+/, "https://kelpwick.example"),
  functions: functions.map(({ functionName, ranges }) => ({ functionName, ranges })),
}));
writeFileSync(file, JSON.stringify({ result }));
await browser.close();
server.close();
