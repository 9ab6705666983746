import { t } from "../shared/i18n.js";
import { badge, h, table } from "../shared/ui.js";
import { restHours } from "./rest-hours.js";
export function restTable(week) {
  const rows = restHours(week);
  const short = rows.filter((row) => row.short).length;
  const columns = [
    { label: "Name", of: ({ name }) => name },
    { label: "Rest", align: "right", of: ({ name, hours, short }) => badge(t("crew.rest", { name, hours }), short ? "alarm" : "calm") },
  ];
  return h("div", {}, short > 0 && h("p", { role: "alert" }, t("crew.short", { count: short })), table(columns, rows));
}
