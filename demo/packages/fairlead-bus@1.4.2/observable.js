"use strict";
module.exports = function observable(emitter, initial) {
  let value = initial;
  return {
    get: function () {
      return value;
    },
    set: function (next) {
      const before = value;
      value = typeof next === "function" ? next(value) : next;
      if (before !== value) emitter.emit("change", value, before);
    },
    subscribe: function (handler) {
      return emitter.on("change", handler);
    },
  };
};
