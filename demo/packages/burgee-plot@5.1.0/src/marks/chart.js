import { graticule, project } from "../geo.js";
import { element, group } from "../svg.js";
/** A sea chart: depth contours, coasts and a graticule. */
export function chart({ coasts, contours, center, zoom = 1, step = 0.05 }, scales, box) {
  const to = project(center, zoom, box);
  const path = (line) => line.map((point, at) => `${at ? "L" : "M"}${to(point).join(" ")}`).join("");
  const root = group({ class: "mark-chart", fill: "none" });
  for (const line of graticule(center, step, 8)) root.append(element("path", { d: path(line), stroke: "#9bb", "stroke-width": 0.5 }));
  for (const { depth, lines } of contours) {
    for (const line of lines) root.append(element("path", { d: path(line), stroke: depth > 10 ? "#5a8fb0" : "#8fc1d6" }));
  }
  for (const coast of coasts) root.append(element("path", { d: `${path(coast)}Z`, fill: "#efe6c8", stroke: "#8a7a4a" }));
  return root;
}
