"use strict";
const isPlainObject = require("./isPlainObject");
module.exports = function deepMerge(target) {
  for (let at = 1; at < arguments.length; at++) {
    const source = arguments[at];
    for (const key of Object.keys(source || {})) {
      if (key === "__proto__") continue;
      if (isPlainObject(source[key]) && isPlainObject(target[key])) {
        deepMerge(target[key], source[key]);
      } else if (source[key] !== undefined) {
        target[key] = source[key];
      }
    }
  }
  return target;
};
