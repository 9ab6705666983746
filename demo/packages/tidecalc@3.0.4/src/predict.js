import { longitudes, cosine } from "./astronomy.js";
import { CONSTITUENTS } from "./constituents.js";
import { nodal } from "./nodal.js";
function argument(doodson, sky) {
  const [T, s, h, p, N, pp] = doodson;
  return T * (sky.hour - sky.s + sky.h) + s * sky.s + h * sky.h + p * sky.p + N * -sky.N + pp * sky.pp;
}
/** Height above the station's datum in metres at a time in milliseconds. */
export function predict(station, time) {
  const sky = longitudes(time);
  let height = station.level;
  for (const [name, { amplitude, phase }] of Object.entries(station.harmonics)) {
    const constituent = CONSTITUENTS[name];
    if (!constituent) continue;
    const { f, u } = nodal(name, sky.N);
    height += f * amplitude * cosine(argument(constituent.doodson, sky) + u - phase);
  }
  return height;
}
export function series(station, from, to, step = 600000) {
  const points = [];
  for (let time = from; time <= to; time += step) points.push({ time, height: predict(station, time) });
  return points;
}
