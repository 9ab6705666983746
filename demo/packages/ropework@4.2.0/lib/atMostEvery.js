"use strict";
module.exports = function atMostEvery(fn, wait) {
  let last = 0;
  let timer = null;
  return function throttled() {
    const now = Date.now();
    const rest = wait - (now - last);
    if (rest <= 0) {
      last = now;
      fn.apply(this, arguments);
    } else if (timer === null) {
      const args = arguments;
      timer = setTimeout(() => {
        timer = null;
        last = Date.now();
        fn.apply(this, args);
      }, rest);
    }
  };
};
