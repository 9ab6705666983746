import { check, draft, form, summary } from "halyard-forms";
import { h } from "../shared/ui.js";
import { messages } from "./form-messages.js";
import { change } from "./trip.js";
export function contactStep(next) {
  const contact = form(
    {
      name: { label: "Name", checks: [check.required()], autocomplete: "name" },
      email: { label: "E-mail", type: "email", checks: [check.required(), check.email()] },
      phone: { label: "Phone", type: "tel", checks: [check.phone()], hint: "+44 …" },
      terms: { label: "I accept the conditions of carriage", type: "checkbox", checks: [check.required()] },
    },
    { messages, onSubmit: async (values) => (change({ contact: values }), next()) },
  );
  draft(contact, "kelpwick-contact", ["terms"]);
  return h("div", {}, summary(contact, (count) => h("strong", {}, `${count}`)), contact.element);
}
