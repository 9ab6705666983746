"use strict";
const WORD = /[A-Z]{2,}(?=[A-Z][a-z]+|\b)|[A-Z]?[a-z]+|[A-Z]|\d+/g;
module.exports = function wordsIn(text) {
  return String(text).match(WORD) || [];
};
