import { fare } from "../shared/fares.js";
import { price } from "../shared/format.js";
import { t } from "../shared/i18n.js";
import { portName } from "../shared/ports.js";
import { card, h } from "../shared/ui.js";
import { heads, trip } from "./trip.js";
export function priceTag() {
  const root = h("div", { class: "price-tag", "aria-live": "polite" });
  const draw = (now) => root.replaceChildren(card(
    `${portName(now.from)} → ${portName(now.to)}`,
    h("p", {}, t("booking.passengers", { count: heads(now) })),
    h("p", { class: "total" }, t("booking.total", { price: price(fare(now)) })),
  ));
  trip.subscribe(draw);
  draw(trip.get());
  return root;
}
