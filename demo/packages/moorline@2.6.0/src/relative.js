import { language } from "./languages.js";
const STEPS = [["minute", 60000, 60], ["hour", 3600000, 24], ["day", 86400000, 30]];
export function relative(date, now = new Date(), name = "en") {
  const words = language(name).relative;
  const distance = date - now;
  for (const [unit, size, most] of STEPS) {
    const count = Math.round(Math.abs(distance) / size);
    if (count < most) {
      const form = count === 1 ? words[unit][0] : words[unit][1].replace("#", count);
      return (distance < 0 ? words.past : words.future).replace("#", form);
    }
  }
  return new Intl.DateTimeFormat(name).format(date);
}
