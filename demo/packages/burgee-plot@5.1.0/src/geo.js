import { round } from "./svg.js";
const y = (lat) => Math.log(Math.tan(Math.PI / 4 + (lat * Math.PI) / 360));
export function project([lon, lat], zoom, box) {
  const scale = ((box.right - box.left) / 2) * zoom * 10;
  const [cx, cy] = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
  return ([px, py]) => [round(cx + (px - lon) * scale * 0.1), round(cy - ((y(py) - y(lat)) * 180 * scale * 0.1) / Math.PI)];
}
export function graticule([lon, lat], step, count) {
  const lines = [];
  const first = (value) => Math.round(value / step) * step;
  for (let at = -count; at <= count; at++) {
    const [x0, y0] = [first(lon) + at * step, first(lat) + at * step];
    lines.push([[x0, lat - count * step], [x0, lat + count * step]], [[lon - count * step, y0], [lon + count * step, y0]]);
  }
  return lines;
}
