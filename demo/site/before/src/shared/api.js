import { client, HttpError } from "capstan-fetch";
import { logger } from "fogbell-log";
import { online } from "./store.js";
const log = logger("api");
const api = client({ base: "/api/v3", timeout: 6000, headers: { "x-client": "site" } });
async function guarded(work, fallback) {
  try {
    return await work();
  } catch (error) {
    if (error instanceof HttpError && error.isClient) throw error;
    log.warn("request failed", error);
    if (!navigator.onLine) online.set(false);
    return fallback;
  }
}
export const sailings = (port, day) => guarded(() => api.getCached("/sailings", { params: { port, day } }), []);
export const notices = () => guarded(() => api.getCached("/notices"), []);
export const book = (trip) => api.post("/bookings", trip);
export const roster = (week) => guarded(() => api.get("/roster", { params: { week } }), { people: [], watches: [] });
export const weather = (port) => guarded(() => api.get("/weather", { params: { port } }), null);
