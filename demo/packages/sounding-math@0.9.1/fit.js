import { mean } from "./stats.js";
export function fitLine(points) {
  const mx = mean(points.map(([x]) => x));
  const my = mean(points.map(([, y]) => y));
  let up = 0;
  let down = 0;
  for (const [x, y] of points) {
    up += (x - mx) * (y - my);
    down += (x - mx) ** 2;
  }
  const slope = down === 0 ? 0 : up / down;
  return { slope, offset: my - slope * mx };
}
export function fitParabola([[x1, y1], [x2, y2], [x3, y3]]) {
  const d = (x1 - x2) * (x1 - x3) * (x2 - x3);
  const a = (x3 * (y2 - y1) + x2 * (y1 - y3) + x1 * (y3 - y2)) / d;
  const b = (x3 * x3 * (y1 - y2) + x2 * x2 * (y3 - y1) + x1 * x1 * (y2 - y3)) / d;
  const c = (x2 * x3 * (x2 - x3) * y1 + x3 * x1 * (x3 - x1) * y2 + x1 * x2 * (x1 - x2) * y3) / d;
  return { a, b, c, vertex: -b / (2 * a) };
}
