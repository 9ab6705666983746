"use strict";
const Emitter = require("./emitter");
const observable = require("./observable");
function fairlead(initial) {
  const emitter = new Emitter();
  return observable(emitter, initial);
}
fairlead.Emitter = Emitter;
module.exports = fairlead;
