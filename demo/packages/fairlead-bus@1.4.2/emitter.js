"use strict";
function Emitter() {
  this.handlers = {};
}
Emitter.prototype.on = function (name, handler) {
  (this.handlers[name] = this.handlers[name] || []).push(handler);
  const self = this;
  return function off() {
    self.off(name, handler);
  };
};
Emitter.prototype.once = function (name, handler) {
  const off = this.on(name, function () {
    off();
    handler.apply(null, arguments);
  });
  return off;
};
Emitter.prototype.off = function (name, handler) {
  const list = this.handlers[name] || [];
  const at = list.indexOf(handler);
  if (at >= 0) list.splice(at, 1);
};
Emitter.prototype.emit = function (name) {
  const args = Array.prototype.slice.call(arguments, 1);
  (this.handlers[name] || []).slice().forEach(function (handler) {
    handler.apply(null, args);
  });
};
module.exports = Emitter;
