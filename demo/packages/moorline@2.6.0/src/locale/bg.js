import { register } from "../languages.js";
export const bg = {
  months: [
    "януари",
    "февруари",
    "март",
    "април",
    "май",
    "юни",
    "юли",
    "август",
    "септември",
    "октомври",
    "ноември",
    "декември"
  ],
  monthsShort: [
    "01",
    "02",
    "03",
    "04",
    "05",
    "06",
    "07",
    "08",
    "09",
    "10",
    "11",
    "12"
  ],
  days: [
    "неделя",
    "понеделник",
    "вторник",
    "сряда",
    "четвъртък",
    "петък",
    "събота"
  ],
  daysShort: [
    "нд",
    "пн",
    "вт",
    "ср",
    "чт",
    "пт",
    "сб"
  ],
  dayPeriods: [
    "am",
    "pm"
  ],
  patterns: {
    date: "dd.MM.yyyy г.",
    longDate: "EEEE, d MMMM yyyy г.",
    time: "HH:mm"
  },
  relative: {
    past: "преди #",
    future: "след #",
    minute: [
      "1 минута",
      "# минути"
    ],
    hour: [
      "1 час",
      "# часа"
    ],
    day: [
      "1 ден",
      "# дни"
    ]
  }
};
register("bg", bg);
