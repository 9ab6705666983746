import { banner, h } from "./ui.js";
import { t } from "./i18n.js";
import { online } from "./store.js";
const LINKS = ["timetable", "booking", "crew"];
export function page(current, ...content) {
  const links = LINKS.map((name) => h("a", { href: `${name}.html`, "aria-current": name === current ? "page" : null }, t(`nav.${name}`)));
  const warnings = h("div", { class: "warnings" });
  online.subscribe((isOnline) => warnings.replaceChildren(...(isOnline ? [] : [banner(t("error.offline"), { kind: "warning" })])));
  document.body.append(h("nav", { class: "site-nav" }, links), warnings, h("main", {}, ...content));
}
