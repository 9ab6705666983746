import { check, form } from "halyard-forms";
import { messages } from "./form-messages.js";
import { change } from "./trip.js";
const KINDS = ["adult", "child", "islander", "dog"];
export function passengerStep(next) {
  const count = (label) => ({ label, type: "number", value: label === "adult" ? 1 : 0, min: 0, checks: [check.between(0, 9)] });
  const vehicles = ["", "bicycle", "motorcycle", "car", "van", "trailer"];
  const { element } = form({ ...Object.fromEntries(KINDS.map((kind) => [kind, count(kind)])), vehicle: { label: "Vehicle", type: "select", options: vehicles } }, {
    messages,
    onSubmit: async ({ vehicle, ...counts }) => {
      change({ vehicle: vehicle || null, passengers: Object.fromEntries(KINDS.map((kind) => [kind, Number(counts[kind])])) });
      next();
    },
  });
  return element;
}
