import "./crew.css";
import { roster } from "../shared/api.js";
import { t } from "../shared/i18n.js";
import { page } from "../shared/page.js";
import { h, spinner, tabs } from "../shared/ui.js";
import { handover } from "./handover.js";
import { restTable } from "./rest-table.js";
import { workloadPlot } from "./workload-plot.js";
import { weatherCard } from "./weather-card.js";
import { weekOf } from "./week.js";
const body = h("div", {}, spinner());
page("crew", h("h1", {}, t("crew.title")), h("div", { class: "columns" }, body, h("aside", {}, weatherCard("kelpwick"), handover())));
roster(weekOf(new Date())).then((week) => {
  body.replaceChildren(tabs([
    { label: "Watches", body: () => workloadPlot(week) },
    { label: "Rest", body: () => restTable(week) },
  ]));
});
