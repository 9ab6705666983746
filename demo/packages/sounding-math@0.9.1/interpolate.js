export const lerp = (a, b, t) => a + (b - a) * t;
export const inverseLerp = (a, b, value) => (a === b ? 0 : (value - a) / (b - a));
export function smoothstep(low, high, value) {
  const t = Math.min(1, Math.max(0, inverseLerp(low, high, value)));
  return t * t * (3 - 2 * t);
}
