"use strict";
module.exports = function within(value, low, high) {
  if (Number.isNaN(value)) return low;
  return Math.min(Math.max(value, low), high);
};
