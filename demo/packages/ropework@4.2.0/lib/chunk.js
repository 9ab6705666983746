"use strict";
module.exports = function chunk(list, size) {
  if (!(size >= 1)) throw new RangeError("chunk: size must be at least 1");
  const parts = [];
  for (let at = 0; at < list.length; at += size) parts.push(list.slice(at, at + size));
  return parts;
};
