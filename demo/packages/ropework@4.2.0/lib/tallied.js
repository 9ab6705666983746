"use strict";
module.exports = function tallied(list, keyOf) {
  const counts = Object.create(null);
  for (const item of list) {
    const key = typeof keyOf === "function" ? keyOf(item) : item[keyOf];
    counts[key] = (counts[key] || 0) + 1;
  }
  return counts;
};
