// A small server of the sample site: fares for partners, worked out by the site's own module.
import { createServer } from "node:http";
import { fare } from "../src/shared/fares.js";

createServer((request, response) => {
  const asked = Object.fromEntries(new URL(request.url, "http://localhost").searchParams);
  response.setHeader("content-type", "application/json");
  response.end(JSON.stringify({ cents: fare({ passengers: { adult: 1 }, ...asked }) }));
}).listen(8080);
