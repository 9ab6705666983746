"use strict";
const safeMarkup = require("./safeMarkup");
const readAt = require("./readAt");
const HOLE = /\{\{(\{)?\s*([\w.[\]]+)\s*\}?\}\}/g;
module.exports = function filledIn(text, options) {
  const missing = (options && options.missing) || "";
  return function render(data) {
    return text.replace(HOLE, (whole, raw, path) => {
      const value = readAt(data, path, missing);
      return raw ? String(value) : safeMarkup(value);
    });
  };
};
