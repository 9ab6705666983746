"use strict";
const Emitter = require("./emitter");
const observable = require("./observable");
function bollard(initial) {
  const emitter = new Emitter();
  return observable(emitter, initial);
}
bollard.Emitter = Emitter;
module.exports = bollard;
