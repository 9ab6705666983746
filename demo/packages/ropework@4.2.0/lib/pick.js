"use strict";
module.exports = function pick(object, keys) {
  const picked = {};
  for (const key of keys) if (key in object) picked[key] = object[key];
  return picked;
};
