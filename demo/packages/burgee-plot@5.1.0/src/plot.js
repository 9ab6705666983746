import { axis } from "./axis.js";
import { frame } from "./layout.js";
import { legend } from "./legend.js";
import { marks } from "./registry.js";
import { infer } from "./scales/infer.js";
import { element } from "./svg.js";
import { tooltip } from "./tooltip.js";
import { brush } from "./interaction/brush.js";
import { zoom } from "./interaction/zoom.js";
/** Draws a description `{width, height, x, y, color, marks: [{type, data, …}]}` as an SVG element. */
export function plot(description) {
  const { width = 640, height = 360, marks: list = [] } = description;
  const box = frame(width, height, description.margin);
  const root = element("svg", { viewBox: `0 0 ${width} ${height}`, role: "img", "aria-label": description.title ?? "" });
  const scales = {
    x: infer("x", description.x, list, [box.left, box.right]),
    y: infer("y", description.y, list, [box.bottom, box.top]),
    color: infer("color", description.color, list),
  };
  if (description.axes !== false) root.append(axis("x", scales.x, box), axis("y", scales.y, box));
  for (const { type, ...options } of list) {
    const mark = marks.get(type);
    if (!mark) throw new RangeError(`no mark ${type}, there are ${[...marks.keys()].join(", ")}`);
    root.append(mark(options, scales, box));
  }
  if (scales.color && description.legend !== false) root.append(legend(scales.color, box));
  if (description.tooltip) tooltip(root, scales, list);
  if (description.brush) brush(root, scales, box, description.brush);
  if (description.zoom) zoom(root, scales, box, () => root.replaceWith(plot(description)));
  return root;
}
