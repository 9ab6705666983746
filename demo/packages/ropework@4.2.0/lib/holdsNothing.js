"use strict";
module.exports = function holdsNothing(value) {
  if (value === null || value === undefined) return true;
  if (typeof value === "string" || Array.isArray(value)) return value.length === 0;
  if (value instanceof Map || value instanceof Set) return value.size === 0;
  return typeof value === "object" && Object.keys(value).length === 0;
};
