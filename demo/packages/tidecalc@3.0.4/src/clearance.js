import { bisect } from "sounding-math";
import { predict } from "./predict.js";
/** When a vessel of this draught first floats over a sill after a time; null within a day if never. */
export function clearance(station, { sill, draught, margin = 0.3 }, from) {
  const depth = (time) => predict(station, time) - sill - draught - margin;
  const step = 900000;
  for (let time = from; time < from + 86400000; time += step) {
    if (depth(time) >= 0) return time;
    if (depth(time + step) >= 0) return Math.round(bisect(depth, time, time + step, 1000));
  }
  return null;
}
