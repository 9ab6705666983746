"use strict";
module.exports = function carrying(object, keys) {
  const picked = {};
  for (const key of keys) if (key in object) picked[key] = object[key];
  return picked;
};
