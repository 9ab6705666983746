"use strict";
module.exports = function inHeaps(list, keyOf) {
  const groups = {};
  for (const item of list) {
    const key = typeof keyOf === "function" ? keyOf(item) : item[keyOf];
    if (Object.prototype.hasOwnProperty.call(groups, key)) groups[key].push(item);
    else groups[key] = [item];
  }
  return groups;
};
