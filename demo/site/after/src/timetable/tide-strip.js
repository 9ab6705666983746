import { extremes, loadStation, nextHighWater, series, springNeap } from "tidecalc";
import { time } from "../shared/format.js";
import { t } from "../shared/i18n.js";
import { portName } from "../shared/ports.js";
import { plotCard } from "@kelpwick/ui/plot-card";
export function tideStrip(port) {
  const station = loadStation(port);
  const now = Date.now();
  const [from, to] = [now - 3 * 3600000, now + 21 * 3600000];
  const curve = series(station, from, to).map(({ time: x, height: y }) => ({ x, y }));
  const turns = extremes(station, from, to).map((turn) => ({ x: turn.time, y: turn.height, label: `${time(new Date(turn.time))} ${turn.height.toFixed(1)}` }));
  const next = nextHighWater(station, now);
  const root = plotCard(t("tide.title", { port: portName(port) }), {
    x: { type: "time" }, y: { zero: true },
    marks: [{ type: "area", data: curve }, { type: "line", data: curve }, { type: "label", data: turns }, { type: "rule", x: now }],
  });
  const text = document.createElement("p");
  text.textContent = next ? t("tide.next", { time: time(new Date(next.time)), height: next.height.toFixed(1) }) : "";
  text.dataset.springs = springNeap(now).toFixed(2);
  root.append(text);
  return root;
}
