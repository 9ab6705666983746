import { element } from "../svg.js";
export function brush(root, scales, box, onSelect) {
  const shade = element("rect", { y: box.top, height: box.bottom - box.top, fill: "currentColor", "fill-opacity": 0.12, visibility: "hidden" });
  root.append(shade);
  let start = null;
  const place = (event) => {
    const bounds = root.getBoundingClientRect();
    const x = ((event.clientX - bounds.left) / bounds.width) * box.width;
    return Math.min(box.right, Math.max(box.left, x));
  };
  root.addEventListener("pointerdown", (event) => {
    start = place(event);
    root.setPointerCapture(event.pointerId);
  });
  root.addEventListener("pointermove", (event) => {
    if (start === null) return;
    const [left, right] = [start, place(event)].sort((a, b) => a - b);
    shade.setAttribute("visibility", "visible");
    shade.setAttribute("x", left);
    shade.setAttribute("width", right - left);
  });
  root.addEventListener("pointerup", (event) => {
    if (start === null) return;
    const ends = [start, place(event)].sort((a, b) => a - b).map(scales.x.invert);
    start = null;
    shade.setAttribute("visibility", "hidden");
    if (ends[0] !== ends[1]) onSelect(ends);
  });
}
