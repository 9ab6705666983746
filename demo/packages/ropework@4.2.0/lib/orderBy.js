"use strict";
const get = require("./get");
module.exports = function orderBy(list, keys, directions) {
  const sorters = keys.map((key, at) => ({
    of: typeof key === "function" ? key : (item) => get(item, key),
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
