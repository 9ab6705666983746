"use strict";
module.exports = function withoutGaps(list) {
  const kept = [];
  for (const item of list) if (item) kept.push(item);
  return kept;
};
