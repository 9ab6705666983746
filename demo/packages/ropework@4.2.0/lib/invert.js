"use strict";
module.exports = function invert(object) {
  const inverted = {};
  for (const key of Object.keys(object)) inverted[object[key]] = key;
  return inverted;
};
