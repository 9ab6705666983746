import { curves } from "../curve.js";
import { element, group } from "../svg.js";
export function line({ data, curve = "monotone", width = 1.5, dash }, { x, y, color }) {
  const series = new Map();
  for (const d of data) {
    if (!series.has(d.color)) series.set(d.color, []);
    series.get(d.color).push([x(d.x), y(d.y)]);
  }
  const root = group({ class: "mark-line", fill: "none", "stroke-width": width, "stroke-dasharray": dash });
  for (const [name, points] of series) {
    root.append(element("path", { d: curves[curve](points), stroke: color && name ? color(name) : "currentColor" }));
  }
  return root;
}
