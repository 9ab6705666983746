import { cached } from "./cache.js";
import { HttpError, TimeoutError } from "./errors.js";
import { query } from "./query.js";
import { retrying } from "./retry.js";
export { HttpError, TimeoutError };
export function client({ base, timeout = 8000, retries = 2, headers = {} }) {
  async function send(method, path, { params, body, signal } = {}) {
    const url = base + path + query(params);
    const stop = AbortSignal.timeout(timeout);
    const response = await fetch(url, {
      method,
      headers: { accept: "application/json", ...(body ? { "content-type": "application/json" } : {}), ...headers },
      body: body ? JSON.stringify(body) : undefined,
      signal: signal ? AbortSignal.any([signal, stop]) : stop,
    }).catch((error) => {
      throw error.name === "TimeoutError" ? new TimeoutError(url, timeout) : error;
    });
    if (!response.ok) throw new HttpError(url, response.status, await response.text());
    return response.status === 204 ? null : response.json();
  }
  const get = retrying((path, options) => send("GET", path, options), retries);
  return { get, getCached: cached(get), post: (path, body, options) => send("POST", path, { ...options, body }) };
}
