"use strict";
module.exports = function partition(list, test) {
  const pass = [];
  const fail = [];
  list.forEach((item, at) => (test(item, at) ? pass : fail).push(item));
  return [pass, fail];
};
