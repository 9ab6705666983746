"use strict";
const wordsIn = require("./wordsIn");
module.exports = function dashed(text) {
  return wordsIn(text).map((word) => word.toLowerCase()).join("-");
};
