"use strict";
module.exports = function filedUnder(list, keyOf) {
  const table = {};
  for (const item of list) table[typeof keyOf === "function" ? keyOf(item) : item[keyOf]] = item;
  return table;
};
