"use strict";
module.exports = function difference(list, others) {
  const gone = new Set(others);
  return list.filter((item) => !gone.has(item));
};
