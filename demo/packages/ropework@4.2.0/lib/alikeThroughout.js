"use strict";
module.exports = function alikeThroughout(a, b) {
  if (Object.is(a, b)) return true;
  if (typeof a !== "object" || typeof b !== "object" || !a || !b) return false;
  if (a.constructor !== b.constructor) return false;
  if (a instanceof Date) return a.getTime() === b.getTime();
  if (Array.isArray(a)) {
    return a.length === b.length && a.every((item, at) => alikeThroughout(item, b[at]));
  }
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return false;
  return keys.every((key) => key in b && alikeThroughout(a[key], b[key]));
};
