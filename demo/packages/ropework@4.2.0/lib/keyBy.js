"use strict";
module.exports = function keyBy(list, keyOf) {
  const table = {};
  for (const item of list) table[typeof keyOf === "function" ? keyOf(item) : item[keyOf]] = item;
  return table;
};
