"use strict";
module.exports = function firstOfEach(list, keyOf) {
  const seen = new Set();
  return list.filter((item) => {
    const key = typeof keyOf === "function" ? keyOf(item) : item[keyOf];
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
};
