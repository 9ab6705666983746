import { register } from "../languages.js";
export const ro = {
  months: [
    "ianuarie",
    "februarie",
    "martie",
    "aprilie",
    "mai",
    "iunie",
    "iulie",
    "august",
    "septembrie",
    "octombrie",
    "noiembrie",
    "decembrie"
  ],
  monthsShort: [
    "ian.",
    "feb.",
    "mar.",
    "apr.",
    "mai",
    "iun.",
    "iul.",
    "aug.",
    "sept.",
    "oct.",
    "nov.",
    "dec."
  ],
  days: [
    "duminică",
    "luni",
    "marți",
    "miercuri",
    "joi",
    "vineri",
    "sâmbătă"
  ],
  daysShort: [
    "dum.",
    "lun.",
    "mar.",
    "mie.",
    "joi",
    "vin.",
    "sâm."
  ],
  dayPeriods: [
    "a.m.",
    "p.m."
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE, d MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "acum #",
    future: "peste #",
    minute: [
      "1 minut",
      "# minute"
    ],
    hour: [
      "1 oră",
      "# ore"
    ],
    day: [
      "1 zi",
      "# zile"
    ]
  }
};
register("ro", ro);
