import { format, parse, relative } from "moorline";
import { locale } from "./i18n.js";
export const time = (at) => format(at, "time", locale);
export const longDate = (at) => format(at, "longDate", locale);
export const ago = (at, now) => relative(at, now, locale);
export const moment = parse;
const money = new Intl.NumberFormat(locale, { style: "currency", currency: "EUR" });
export const price = (cents) => money.format(cents / 100);
