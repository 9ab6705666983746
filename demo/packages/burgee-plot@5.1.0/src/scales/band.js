export function band(domain, range, { gap = 0.2 } = {}) {
  const step = (range[1] - range[0]) / Math.max(1, domain.length);
  const index = new Map(domain.map((name, at) => [name, at]));
  const scale = (name) => range[0] + step * (index.get(name) + gap / 2);
  scale.domain = domain;
  scale.range = range;
  scale.width = Math.abs(step) * (1 - gap);
  scale.ticks = () => domain;
  scale.format = String;
  return scale;
}
