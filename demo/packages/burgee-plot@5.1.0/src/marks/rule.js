import { element } from "../svg.js";
export function rule({ x: at, y: level, dash = "4 3" }, { x, y }, box) {
  const ends = at === undefined
    ? { x1: box.left, x2: box.right, y1: y(level), y2: y(level) }
    : { x1: x(at), x2: x(at), y1: box.top, y2: box.bottom };
  return element("line", { class: "mark-rule", ...ends, stroke: "currentColor", "stroke-dasharray": dash });
}
