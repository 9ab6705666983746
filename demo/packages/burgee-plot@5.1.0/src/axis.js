import { element, group, translate } from "./svg.js";
export function axis(side, scale, box) {
  const horizontal = side === "x";
  const line = horizontal
    ? `M${box.left} ${box.bottom}H${box.right}`
    : `M${box.left} ${box.top}V${box.bottom}`;
  const root = group({ class: `axis axis-${side}`, "font-size": 11 }, element("path", { d: line, fill: "none", stroke: "currentColor" }));
  for (const tick of scale.ticks(horizontal ? 8 : 5)) {
    const at = scale(tick);
    const text = element("text", { dy: horizontal ? 18 : 4, dx: horizontal ? 0 : -8, "text-anchor": horizontal ? "middle" : "end" });
    text.textContent = scale.format(tick);
    const mark = element("line", horizontal ? { y2: 5, stroke: "currentColor" } : { x2: -5, stroke: "currentColor" });
    root.append(group({ transform: horizontal ? translate(at, box.bottom) : translate(box.left, at) }, mark, text));
  }
  return root;
}
