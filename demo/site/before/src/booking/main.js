import "./booking.css";
import { book } from "../shared/api.js";
import { t } from "../shared/i18n.js";
import { page } from "../shared/page.js";
import { banner, button, h } from "../shared/ui.js";
import { priceTag } from "./price-tag.js";
import { openRefundDialog } from "./refund-dialog.js";
import { steps } from "./steps.js";
import { trip } from "./trip.js";
const done = ({ reference }) => banner(t("booking.done", { reference }));
const wizard = steps(async () => wizard.element.replaceWith(done(await book(trip.get()))));
page(
  "booking",
  h("h1", {}, t("booking.title")),
  h("div", { class: "columns" }, wizard.element, h("aside", {}, priceTag(), button(t("booking.refund"), () => openRefundDialog(trip.get())))),
);
