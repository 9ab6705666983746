import { longitudes } from "./astronomy.js";
/** 1 at springs, 0 at neaps: from the angle between moon and sun. */
export function springNeap(time) {
  const { s, h } = longitudes(time);
  const phase = (((s - h) % 180) + 180) % 180;
  return (1 + Math.cos((phase * Math.PI) / 90)) / 2;
}
