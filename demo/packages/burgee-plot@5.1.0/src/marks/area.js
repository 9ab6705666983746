import { curves } from "../curve.js";
import { element } from "../svg.js";
export function area({ data, curve = "monotone", opacity = 0.25, base }, { x, y }, box) {
  const floor = base === undefined ? box.bottom : y(base);
  const points = data.map((d) => [x(d.x), y(d.y)]);
  const path = `${curves[curve](points)}V${floor}H${points[0]?.[0] ?? box.left}Z`;
  return element("path", { class: "mark-area", d: path, fill: "currentColor", "fill-opacity": opacity });
}
