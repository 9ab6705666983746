"use strict";
const words = require("./words");
module.exports = function kebabCase(text) {
  return words(text).map((word) => word.toLowerCase()).join("-");
};
