import { fitParabola } from "sounding-math";
import { series } from "./predict.js";
const DAY = 86400000;
/** High and low waters between two times, by a parabola through each turning point. */
export function extremes(station, from, to) {
  const points = series(station, from - 600000, to + 600000);
  const found = [];
  for (let at = 1; at < points.length - 1; at++) {
    const [a, b, c] = [points[at - 1], points[at], points[at + 1]];
    const rises = b.height > a.height;
    if (rises === c.height > b.height) continue;
    const fit = fitParabola([a, b, c].map((p) => [(p.time - b.time) / 60000, p.height]));
    const height = fit.a * fit.vertex ** 2 + fit.b * fit.vertex + fit.c;
    found.push({ kind: rises ? "high" : "low", time: Math.round(b.time + fit.vertex * 60000), height });
  }
  return found.filter(({ time }) => time >= from && time <= to);
}
const next = (kind) => (station, from) =>
  extremes(station, from, from + 2 * DAY).find((turn) => turn.kind === kind) ?? null;
export const nextHighWater = next("high");
export const nextLowWater = next("low");
