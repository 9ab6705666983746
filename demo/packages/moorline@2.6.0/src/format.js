import { language } from "./languages.js";
const TOKEN = /yyyy|yy|MMMM|MMM|MM|M|dd|d|EEEE|EEE|HH|H|hh|h|mm|ss|a|'[^']*'/g;
const two = (number) => String(number).padStart(2, "0");
export function format(date, pattern, name = "en") {
  const words = language(name);
  const hours = date.getHours();
  const values = {
    yyyy: () => String(date.getFullYear()), yy: () => two(date.getFullYear() % 100),
    MMMM: () => words.months[date.getMonth()], MMM: () => words.monthsShort[date.getMonth()],
    MM: () => two(date.getMonth() + 1), M: () => String(date.getMonth() + 1),
    dd: () => two(date.getDate()), d: () => String(date.getDate()),
    EEEE: () => words.days[date.getDay()], EEE: () => words.daysShort[date.getDay()],
    HH: () => two(hours), H: () => String(hours), hh: () => two(hours % 12 || 12), h: () => String(hours % 12 || 12),
    mm: () => two(date.getMinutes()), ss: () => two(date.getSeconds()), a: () => words.dayPeriods[hours < 12 ? 0 : 1],
  };
  return (words.patterns[pattern] ?? pattern).replace(TOKEN, (token) => (token[0] === "'" ? token.slice(1, -1) : values[token]()));
}
