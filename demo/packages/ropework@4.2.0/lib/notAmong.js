"use strict";
module.exports = function notAmong(list, others) {
  const gone = new Set(others);
  return list.filter((item) => !gone.has(item));
};
