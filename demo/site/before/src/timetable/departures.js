import { sailings } from "../shared/api.js";
import { every } from "../shared/clock.js";
import { ago, moment, time } from "../shared/format.js";
import { t } from "../shared/i18n.js";
import { inHeaps } from "../shared/lists.js";
import { portName } from "../shared/ports.js";
import { session, toggleFavourite } from "../shared/store.js";
import { badge, button, card, h, spinner, table } from "../shared/ui.js";
const state = (sailing) => {
  if (sailing.cancelled) return badge(t("departures.cancelled", { reason: sailing.cancelled }), "alarm");
  if (sailing.delay > 2) return badge(t("departures.delayed", { minutes: sailing.delay }), "warning");
  return null;
};
export function departures(port) {
  const element = h("div", { class: "departures" }, spinner());
  let wanted = { port, to: null, day: new Date() };
  async function draw() {
    const list = await sailings(wanted.port, wanted.day.toISOString().slice(0, 10));
    const shown = list.filter((one) => !wanted.to || one.to === wanted.to).map((one) => ({ ...one, at: moment(one.departs) }));
    const byPort = inHeaps(shown, (one) => one.to);
    const star = (one) => button(session.get().favourites.includes(one.id) ? "★" : "☆", () => (toggleFavourite(one.id), draw()), { title: one.id });
    const columns = [{ label: "", of: star }, { label: "⏱", of: (one) => time(one.at) }, { label: "", of: (one) => ago(one.at) }, { label: "", of: state }];
    const cards = Object.entries(byPort).map(([to, rows]) => card(portName(to), table(columns, rows, { caption: t("departures.count", { count: rows.length }) })));
    element.replaceChildren(h("h1", {}, t("departures.title", { port: portName(wanted.port) })), ...(cards.length ? cards : [h("p", {}, t("departures.none"))]));
  }
  every(30000, draw);
  return { element, show: (next) => ((wanted = { ...wanted, ...next }), draw()) };
}
