import { longDate } from "../shared/format.js";
import { t } from "../shared/i18n.js";
export const messages = {
  submit: t("form.submit"),
  required: () => t("form.required"),
  email: () => t("form.email"),
  phone: () => t("form.phone"),
  date: () => t("form.date"),
  "too-early": ({ limit }) => t("form.early", { limit: longDate(new Date(limit)) }),
  between: ({ low, high }) => `${low} – ${high}`,
};
