"use strict";
module.exports = function twoPiles(list, test) {
  const pass = [];
  const fail = [];
  list.forEach((item, at) => (test(item, at) ? pass : fail).push(item));
  return [pass, fail];
};
