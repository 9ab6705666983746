"use strict";
module.exports = function eachRewritten(object, fn) {
  const mapped = {};
  for (const key of Object.keys(object)) mapped[key] = fn(object[key], key, object);
  return mapped;
};
