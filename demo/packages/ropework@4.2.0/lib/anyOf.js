"use strict";
module.exports = function anyOf(list, random) {
  if (list.length === 0) return undefined;
  return list[Math.floor((random || Math.random)() * list.length)];
};
