export { predict, series } from "./predict.js";
export { extremes, nextHighWater, nextLowWater } from "./extremes.js";
export { loadStation, stationNames } from "./stations.js";
export { toDatum, DATUMS } from "./datum.js";
export { springNeap } from "./springs.js";
export { clearance } from "./clearance.js";
export { CONSTITUENTS } from "./constituents.js";
