"use strict";
const isBareRecord = require("./isBareRecord");
module.exports = function layered(target) {
  for (let at = 1; at < arguments.length; at++) {
    const source = arguments[at];
    for (const key of Object.keys(source || {})) {
      if (key === "__proto__") continue;
      if (isBareRecord(source[key]) && isBareRecord(target[key])) {
        layered(target[key], source[key]);
      } else if (source[key] !== undefined) {
        target[key] = source[key];
      }
    }
  }
  return target;
};
