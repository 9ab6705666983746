import { element, group } from "../svg.js";
export function label({ data, size = 11, anchor = "middle" }, { x, y }) {
  const taken = [];
  const root = group({ class: "mark-label", "font-size": size, "text-anchor": anchor });
  for (const d of data) {
    const wide = d.label.length * size * 0.55;
    const box = { left: x(d.x) - wide / 2, right: x(d.x) + wide / 2, y: y(d.y) };
    if (taken.some((t) => t.left < box.right && box.left < t.right && Math.abs(t.y - box.y) < size)) continue;
    taken.push(box);
    const text = element("text", { x: x(d.x), y: y(d.y) - 6 });
    text.textContent = d.label;
    root.append(text);
  }
  return root;
}
