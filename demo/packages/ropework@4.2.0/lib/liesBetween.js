"use strict";
module.exports = function liesBetween(value, start, end) {
  if (end === undefined) return value >= 0 && value < start;
  return value >= Math.min(start, end) && value < Math.max(start, end);
};
