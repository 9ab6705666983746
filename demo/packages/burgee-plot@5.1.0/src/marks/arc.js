import { element, group, translate, round } from "../svg.js";
export function arc({ data, inner = 0.55 }, { color }, box) {
  const radius = Math.min(box.right - box.left, box.bottom - box.top) / 2;
  const total = data.reduce((sum, d) => sum + d.y, 0) || 1;
  let angle = -Math.PI / 2;
  const root = group({ class: "mark-arc", transform: translate((box.left + box.right) / 2, (box.top + box.bottom) / 2) });
  const at = (a, r) => `${round(r * Math.cos(a))} ${round(r * Math.sin(a))}`;
  for (const d of data) {
    const end = angle + (d.y / total) * 2 * Math.PI;
    const large = end - angle > Math.PI ? 1 : 0;
    const hole = radius * inner;
    const path = `M${at(angle, radius)}A${radius} ${radius} 0 ${large} 1 ${at(end, radius)}L${at(end, hole)}A${hole} ${hole} 0 ${large} 0 ${at(angle, hole)}Z`;
    root.append(element("path", { d: path, fill: color ? color(d.color) : "currentColor", stroke: "#fff" }));
    angle = end;
  }
  return root;
}
