export { distance, bearing, destination } from "./sphere.js";
export { bounds, contains, expand } from "./bounds.js";
export { simplify } from "./simplify.js";
export { mercator, unmercator } from "./mercator.js";
export { encode, decode } from "./polyline.js";
