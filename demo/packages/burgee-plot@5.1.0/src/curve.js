import { round } from "./svg.js";
export const straight = (points) => points.map(([x, y], at) => `${at ? "L" : "M"}${round(x)} ${round(y)}`).join("");
/** A monotone cubic through points in order of x (Fritsch and Carlson). */
export function monotone(points) {
  if (points.length < 3) return straight(points);
  const slopes = points.slice(1).map(([x, y], at) => (y - points[at][1]) / (x - points[at][0] || 1));
  const tangents = points.map((_, at) => {
    if (at === 0) return slopes[0];
    if (at === points.length - 1) return slopes.at(-1);
    const [a, b] = [slopes[at - 1], slopes[at]];
    return a * b <= 0 ? 0 : (2 * a * b) / (a + b);
  });
  let path = `M${round(points[0][0])} ${round(points[0][1])}`;
  for (let at = 1; at < points.length; at++) {
    const [x0, y0] = points[at - 1];
    const [x1, y1] = points[at];
    const third = (x1 - x0) / 3;
    path += `C${[x0 + third, y0 + tangents[at - 1] * third, x1 - third, y1 - tangents[at] * third, x1, y1].map(round).join(" ")}`;
  }
  return path;
}
export const stepped = (points) => points.map(([x, y], at) => (at ? `H${round(x)}V${round(y)}` : `M${round(x)} ${round(y)}`)).join("");
export const curves = { straight, monotone, stepped };
