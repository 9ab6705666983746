"use strict";
module.exports = function inBatches(list, size) {
  if (!(size >= 1)) throw new RangeError("inBatches: size must be at least 1");
  const parts = [];
  for (let at = 0; at < list.length; at += size) parts.push(list.slice(at, at + size));
  return parts;
};
