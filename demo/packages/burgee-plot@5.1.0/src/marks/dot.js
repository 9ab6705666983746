import { dodge } from "../layout.js";
import { element, group } from "../svg.js";
const SHAPES = {
  circle: (r) => `M${-r} 0a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`,
  square: (r) => `M${-r} ${-r}h${2 * r}v${2 * r}h${-2 * r}z`,
  triangle: (r) => `M0 ${-r}L${r} ${r}H${-r}z`,
};
export function dot({ data, radius = 4, shape = "circle", beeswarm = false }, { x, y, color }) {
  const spots = data.map((d) => ({ d, x: x(d.x), y: beeswarm ? 0 : y(d.y) }));
  const placed = beeswarm ? dodge(spots, radius) : spots;
  return group({ class: "mark-dot" }, ...placed.map((p) =>
    element("path", { d: SHAPES[shape](radius), transform: `translate(${p.x} ${p.y})`, fill: color && p.d.color ? color(p.d.color) : "currentColor" })));
}
