import { contrast, sequential } from "../palette.js";
import { element, group } from "../svg.js";
export function heat({ data, most }, { x, y }) {
  const highest = most ?? Math.max(...data.map((d) => d.value));
  return group({ class: "mark-heat" }, ...data.flatMap((d) => {
    const fill = sequential(d.value / (highest || 1));
    const cell = element("rect", { x: x(d.x), y: y(d.y), width: x.width, height: y.width, fill });
    const text = element("text", { x: x(d.x) + x.width / 2, y: y(d.y) + y.width / 2 + 4, fill: contrast(fill), "text-anchor": "middle", "font-size": 10 });
    text.textContent = d.value;
    return [cell, text];
  }));
}
