import { sinks } from "./sinks.js";
import { LEVELS, levelOf } from "./levels.js";
let threshold = levelOf(globalThis.location?.hash === "#debug" ? "debug" : "warn");
export function setLevel(name) {
  threshold = levelOf(name);
}
export function logger(scope) {
  const write = (level) => (message, detail) => {
    if (levelOf(level) < threshold) return;
    for (const sink of sinks) sink({ at: Date.now(), level, scope, message, detail });
  };
  return Object.fromEntries(LEVELS.map((level) => [level, write(level)]));
}
