"use strict";
module.exports = function unnested(list, depth) {
  const limit = depth === undefined ? Infinity : depth;
  const flat = [];
  (function walk(items, level) {
    for (const item of items) {
      if (Array.isArray(item) && level < limit) walk(item, level + 1);
      else flat.push(item);
    }
  })(list, 0);
  return flat;
};
