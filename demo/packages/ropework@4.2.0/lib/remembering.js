"use strict";
module.exports = function remembering(fn, keyOf) {
  const cache = new Map();
  function memoized() {
    const key = keyOf ? keyOf.apply(this, arguments) : arguments[0];
    if (!cache.has(key)) cache.set(key, fn.apply(this, arguments));
    return cache.get(key);
  }
  memoized.cache = cache;
  return memoized;
};
