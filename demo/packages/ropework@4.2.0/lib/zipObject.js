"use strict";
module.exports = function zipObject(keys, values) {
  const object = {};
  keys.forEach((key, at) => {
    object[key] = values[at];
  });
  return object;
};
