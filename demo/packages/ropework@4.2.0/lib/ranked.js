"use strict";
const readAt = require("./readAt");
module.exports = function ranked(list, keys, directions) {
  const sorters = keys.map((key, at) => ({
    of: typeof key === "function" ? key : (item) => readAt(item, key),
    sign: directions && directions[at] === "desc" ? -1 : 1,
  }));
  return list.slice().sort((a, b) => {
    for (const { of, sign } of sorters) {
      const left = of(a);
      const right = of(b);
      if (left < right) return -sign;
      if (left > right) return sign;
    }
    return 0;
  });
};
