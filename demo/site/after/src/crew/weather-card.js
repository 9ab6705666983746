import { weather } from "../shared/api.js";
import { portName } from "../shared/ports.js";
import { plotCard } from "@kelpwick/ui/plot-card";
import { card, h } from "../shared/ui.js";
const FORCES = [0.3, 1.6, 3.4, 5.5, 8, 10.8, 13.9, 17.2, 20.8, 24.5, 28.5, 32.7];
export const beaufort = (speed) => FORCES.filter((limit) => speed >= limit).length;
export function weatherCard(port) {
  const root = card(`Wind at ${portName(port)}`);
  weather(port).then((now) => {
    if (!now) return root.append(h("p", {}, "–"));
    root.append(h("p", {}, `${beaufort(now.speed)} Bft, ${now.direction}°, ${now.visibility} M`));
    root.append(plotCard("Last week", { axes: false, marks: [{ type: "rose", data: now.rose, classes: ["1–3", "4–5", "6–7", "8+"] }] }));
  });
  return root;
}
