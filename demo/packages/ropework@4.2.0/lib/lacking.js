"use strict";
module.exports = function lacking(object, keys) {
  const gone = new Set(keys);
  const rest = {};
  for (const key of Object.keys(object)) if (!gone.has(key)) rest[key] = object[key];
  return rest;
};
