"use strict";
module.exports = function countUp(start, end, step) {
  if (end === undefined) {
    end = start;
    start = 0;
  }
  const stride = step || (end < start ? -1 : 1);
  const numbers = [];
  for (let at = start; stride > 0 ? at < end : at > end; at += stride) numbers.push(at);
  return numbers;
};
