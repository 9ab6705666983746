import { compile } from "./compile.js";
import { plural } from "./plural.js";
export function translator(locale, messages) {
  const compiled = new Map();
  const rule = plural(locale);
  return function t(key, values = {}) {
    if (!(key in messages)) return key;
    if (!compiled.has(key)) compiled.set(key, compile(messages[key], rule));
    return compiled.get(key)(values);
  };
}
export { direction } from "./direction.js";
