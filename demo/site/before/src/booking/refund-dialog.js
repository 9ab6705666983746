import { fare } from "../shared/fares.js";
import { price } from "../shared/format.js";
import { dialog, h, table } from "../shared/ui.js";
import { CONDITIONS } from "./refund-conditions.js";
import { refundSteps } from "./refund-rules.js";
export function openRefundDialog(trip) {
  const paid = fare(trip);
  const columns = [
    { label: "Cancelled", of: ({ label }) => label },
    { label: "Refund", align: "right", of: ({ share }) => price(Math.round(paid * share)) },
  ];
  const body = h("div", { class: "refund" }, table(columns, refundSteps(trip)), ...CONDITIONS.map(({ title, text }) => h("details", {}, h("summary", {}, title), h("p", {}, text))));
  return dialog({ title: "Refund conditions", body, actions: [{ label: "Close", value: true, kind: "main" }] });
}
