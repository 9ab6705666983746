"use strict";
module.exports = function turnedRound(object) {
  const inverted = {};
  for (const key of Object.keys(object)) inverted[object[key]] = key;
  return inverted;
};
