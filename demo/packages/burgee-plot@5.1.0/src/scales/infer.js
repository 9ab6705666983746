import { CATEGORICAL } from "../palette.js";
import { band } from "./band.js";
import { linear } from "./linear.js";
import { time } from "./time.js";
export function infer(channel, given, marks, range) {
  const values = marks.flatMap(({ data = [] }) => data.map((d) => d[channel])).filter((v) => v !== undefined);
  if (channel === "color") {
    if (values.length === 0) return null;
    const domain = given?.domain ?? [...new Set(values)];
    const scale = (name) => CATEGORICAL[domain.indexOf(name) % CATEGORICAL.length];
    scale.domain = domain;
    return scale;
  }
  if (given?.type === "band" || typeof values[0] === "string") return band(given?.domain ?? [...new Set(values)], range, given);
  const numbers = values.flat().map(Number);
  const domain = given?.domain ?? [Math.min(...numbers, given?.zero ? 0 : Infinity), Math.max(...numbers)];
  return given?.type === "time" || values[0] instanceof Date ? time(domain, range, given) : linear(domain, range, given);
}
