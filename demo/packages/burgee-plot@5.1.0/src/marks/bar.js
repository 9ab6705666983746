import { stack } from "../layout.js";
import { element, group } from "../svg.js";
export function bar({ data, stacked = false }, { x, y, color }) {
  const root = group({ class: "mark-bar" });
  const rect = (d, low, high) => {
    const [top, bottom] = [y(high), y(low)].sort((a, b) => a - b);
    return element("rect", { x: x(d.x), width: x.width, y: top, height: bottom - top, fill: color && d.color ? color(d.color) : "currentColor" });
  };
  if (!stacked) {
    root.append(...data.map((d) => rect(d, 0, d.y)));
    return root;
  }
  const names = [...new Set(data.map((d) => d.color))];
  const places = [...new Set(data.map((d) => d.x))];
  const value = (name, place) => data.find((d) => d.color === name && d.x === place)?.y ?? 0;
  const layers = stack(names.map((name) => places.map((place) => value(name, place))));
  names.forEach((name, n) => places.forEach((place, p) => root.append(rect({ x: place, color: name }, ...layers[n][p]))));
  return root;
}
