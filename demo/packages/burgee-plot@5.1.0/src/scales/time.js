import { linear } from "./linear.js";
import { timeSteps } from "../ticks.js";
export function time(domain, range, { locale, zone = "UTC" } = {}) {
  const scale = linear(domain.map(Number), range);
  const span = scale.domain[1] - scale.domain[0];
  const options = span > 3 * 86400000 ? { day: "numeric", month: "short" } : { hour: "2-digit", minute: "2-digit" };
  const format = new Intl.DateTimeFormat(locale, { ...options, timeZone: zone });
  scale.ticks = (count) => timeSteps(scale.domain[0], scale.domain[1], count);
  scale.format = (value) => format.format(value);
  return scale;
}
