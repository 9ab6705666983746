"use strict";
const escapeHtml = require("./escapeHtml");
const get = require("./get");
const HOLE = /\{\{(\{)?\s*([\w.[\]]+)\s*\}?\}\}/g;
module.exports = function template(text, options) {
  const missing = (options && options.missing) || "";
  return function render(data) {
    return text.replace(HOLE, (whole, raw, path) => {
      const value = get(data, path, missing);
      return raw ? String(value) : escapeHtml(value);
    });
  };
};
