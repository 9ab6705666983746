import { t } from "../shared/i18n.js";
import { h } from "../shared/ui.js";
import { contactStep } from "./contact-step.js";
import { crossingStep } from "./crossing-step.js";
import { passengerStep } from "./passenger-step.js";
const STEPS = [crossingStep, passengerStep, contactStep];
export function steps(onDone) {
  const head = h("p", { class: "step" });
  const body = h("div");
  const show = (at) => {
    if (at >= STEPS.length) return onDone();
    head.textContent = t("booking.step", { at: at + 1, of: STEPS.length });
    body.replaceChildren(STEPS[at](() => show(at + 1)));
    scrollTo({ top: 0, behavior: "smooth" });
  };
  show(0);
  return { element: h("section", { class: "wizard" }, head, body) };
}
