import { direction, translator } from "windlass-i18n";
import { da } from "../messages/da.js";
import { en } from "../messages/en.js";
export const locale = document.documentElement.lang === "da" ? "da" : "en";
document.documentElement.dir = direction(locale);
export const t = translator(locale, locale === "da" ? { ...en, ...da } : en);
