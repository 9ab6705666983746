import { bearing, bounds, distance, expand, mercator } from "pelorus-geo";
import islands from "./islands.svg";
import { portName, ports } from "../shared/ports.js";
import { h } from "../shared/ui.js";
export function islandMap(home) {
  const points = Object.entries(ports).map(([id, { at }]) => ({ id, at, place: mercator(at) }));
  const [west, north, east, south] = expand(bounds(points.map(({ place }) => place)), 0.0004);
  const marks = points.map(({ id, at, place: [x, y] }) => {
    const away = id === home ? "" : ` ${(distance(ports[home].at, at) / 1852).toFixed(1)} M, ${Math.round(bearing(ports[home].at, at))}°`;
    const left = `${(100 * (x - west)) / (east - west)}%`;
    const top = `${(100 * (y - north)) / (south - north)}%`;
    return h("li", { style: `left:${left};top:${top}` }, portName(id) + away);
  });
  return h("figure", { class: "island-map", style: `background-image:url(${islands})` }, h("ul", {}, marks));
}
