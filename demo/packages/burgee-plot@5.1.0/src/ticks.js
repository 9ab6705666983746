export function niceStep(span, count) {
  const rough = span / Math.max(1, count);
  const power = 10 ** Math.floor(Math.log10(rough || 1));
  const share = rough / power;
  return power * (share > 5 ? 10 : share > 2 ? 5 : share > 1 ? 2 : 1);
}
export function steps(low, high, step) {
  const list = [];
  for (let at = Math.ceil(low / step) * step; at <= high + step * 1e-9; at += step) list.push(Number(at.toPrecision(12)));
  return list;
}
const MINUTE = 60000;
const SPANS = [5, 15, 30, 60, 180, 360, 720, 1440, 2880, 10080].map((m) => m * MINUTE);
export function timeSteps(low, high, count) {
  const step = SPANS.find((span) => (high - low) / span <= count) ?? SPANS.at(-1);
  return steps(low, high, step);
}
