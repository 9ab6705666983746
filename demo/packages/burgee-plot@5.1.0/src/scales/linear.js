import { lerp, inverseLerp } from "sounding-math";
import { niceStep, steps } from "../ticks.js";
export function linear(domain, range, { clamp = false, digits } = {}) {
  const [low, high] = domain;
  const scale = (value) => {
    const t = inverseLerp(low, high, value);
    return lerp(range[0], range[1], clamp ? Math.min(1, Math.max(0, t)) : t);
  };
  scale.domain = domain;
  scale.range = range;
  scale.invert = (at) => lerp(low, high, inverseLerp(range[0], range[1], at));
  scale.ticks = (count) => steps(low, high, niceStep(high - low, count));
  scale.format = (value) => value.toFixed(digits ?? (Math.abs(high - low) < 10 ? 1 : 0));
  return scale;
}
