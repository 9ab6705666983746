"use strict";
module.exports = function pairedUp(keys, values) {
  const object = {};
  keys.forEach((key, at) => {
    object[key] = values[at];
  });
  return object;
};
