"use strict";
const ENTITIES = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" };
module.exports = function safeMarkup(text) {
  return String(text).replace(/[&<>"']/g, (c) => ENTITIES[c]);
};
