"use strict";
module.exports = function clamp(value, low, high) {
  if (Number.isNaN(value)) return low;
  return Math.min(Math.max(value, low), high);
};
