"use strict";
const words = /[^.[\]]+/g;
module.exports = function readAt(object, path, fallback) {
  const keys = Array.isArray(path) ? path : String(path).match(words) || [];
  let value = object;
  for (const key of keys) {
    if (value === null || value === undefined) return fallback;
    value = value[key];
  }
  return value === undefined ? fallback : value;
};
