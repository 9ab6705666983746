"use strict";
module.exports = function afterQuiet(fn, wait, options) {
  let timer = null;
  let lastArgs;
  let lastThis;
  const leading = Boolean(options && options.leading);
  function fire() {
    timer = null;
    if (lastArgs) {
      const args = lastArgs;
      lastArgs = undefined;
      fn.apply(lastThis, args);
    }
  }
  function debounced() {
    lastArgs = arguments;
    lastThis = this;
    if (leading && timer === null) fire();
    clearTimeout(timer);
    timer = setTimeout(fire, wait);
  }
  debounced.cancel = function () {
    clearTimeout(timer);
    timer = null;
    lastArgs = undefined;
  };
  debounced.flush = fire;
  return debounced;
};
