import { linear } from "./linear.js";
export function log(domain, range) {
  const inner = linear(domain.map(Math.log10), range);
  const scale = (value) => inner(Math.log10(value));
  scale.domain = domain;
  scale.range = range;
  scale.invert = (at) => 10 ** inner.invert(at);
  scale.ticks = () => {
    const list = [];
    for (let p = Math.ceil(Math.log10(domain[0])); p <= Math.log10(domain[1]); p++) list.push(10 ** p);
    return list;
  };
  scale.format = (value) => (value >= 1000 ? `${value / 1000}k` : String(value));
  return scale;
}
