import "./register.js";
export { plot } from "./plot.js";
export { register, marks } from "./registry.js";
export { linear } from "./scales/linear.js";
export { time } from "./scales/time.js";
export { band } from "./scales/band.js";
export { log } from "./scales/log.js";
