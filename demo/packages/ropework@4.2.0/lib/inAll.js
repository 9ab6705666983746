"use strict";
module.exports = function inAll(first) {
  const rest = Array.prototype.slice.call(arguments, 1).map((list) => new Set(list));
  return Array.from(new Set(first)).filter((item) => rest.every((set) => set.has(item)));
};
