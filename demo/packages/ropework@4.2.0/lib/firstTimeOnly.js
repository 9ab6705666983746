"use strict";
module.exports = function firstTimeOnly(fn) {
  let called = false;
  let result;
  return function () {
    if (!called) {
      called = true;
      result = fn.apply(this, arguments);
      fn = null;
    }
    return result;
  };
};
