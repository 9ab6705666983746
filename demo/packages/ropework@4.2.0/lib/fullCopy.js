"use strict";
const isBareRecord = require("./isBareRecord");
module.exports = function fullCopy(value, seen) {
  seen = seen || new Map();
  if (value === null || typeof value !== "object") return value;
  if (seen.has(value)) return seen.get(value);
  if (value instanceof Date) return new Date(value.getTime());
  if (value instanceof RegExp) return new RegExp(value.source, value.flags);
  if (Array.isArray(value)) {
    const list = [];
    seen.set(value, list);
    for (const item of value) list.push(fullCopy(item, seen));
    return list;
  }
  if (!isBareRecord(value)) return value;
  const copy = {};
  seen.set(value, copy);
  for (const key of Object.keys(value)) copy[key] = fullCopy(value[key], seen);
  return copy;
};
