import { inHeaps } from "../shared/lists.js";
import { plotCard } from "@kelpwick/ui/plot-card";
const DAYS = ["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"];
export function workloadPlot({ watches }) {
  const hours = watches.map(({ from, to, vessel }) => ({ day: DAYS[(new Date(from).getDay() + 6) % 7], vessel, hours: (Date.parse(to) - Date.parse(from)) / 3600000 }));
  const data = Object.values(inHeaps(hours, ({ day, vessel }) => `${day} ${vessel}`)).map((list) => ({
    x: list[0].day, color: list[0].vessel, y: list.reduce((sum, one) => sum + one.hours, 0),
  }));
  return plotCard("Hours on watch", { x: { type: "band", domain: DAYS }, y: { zero: true }, marks: [{ type: "bar", data, stacked: true }, { type: "rule", y: 48 }] });
}
