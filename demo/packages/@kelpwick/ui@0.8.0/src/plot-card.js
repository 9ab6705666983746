import { plot, register } from "burgee-plot";
import { card } from "./card.js";
import { element } from "./plot-frame.js";
// Cards draw tide gauges with a mark of their own.
register("gauge", ({ level, low, high }, { y }, box) => element(box, y(low), y(high), y(level)));
export function plotCard(title, description) {
  return card(title, plot({ width: 480, height: 220, tooltip: true, ...description }));
}
