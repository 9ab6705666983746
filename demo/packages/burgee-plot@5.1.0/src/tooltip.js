import { element, group } from "./svg.js";
export function tooltip(root, scales, marks) {
  const text = element("text", { "font-size": 12, "text-anchor": "middle", "pointer-events": "none" });
  const hint = group({ class: "hint", visibility: "hidden" }, text);
  root.append(hint);
  const points = marks.flatMap(({ data = [] }) => data).filter((d) => "x" in d && "y" in d);
  root.addEventListener("pointermove", (event) => {
    const box = root.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * root.viewBox.baseVal.width;
    let best = null;
    for (const d of points) {
      const away = Math.abs(scales.x(d.x) - x);
      if (!best || away < best.away) best = { d, away };
    }
    hint.setAttribute("visibility", best && best.away < 24 ? "visible" : "hidden");
    if (!best) return;
    text.textContent = best.d.label ?? `${scales.x.format(best.d.x)}: ${scales.y.format(best.d.y)}`;
    text.setAttribute("x", scales.x(best.d.x));
    text.setAttribute("y", scales.y(best.d.y) - 10);
  });
  root.addEventListener("pointerleave", () => hint.setAttribute("visibility", "hidden"));
}
