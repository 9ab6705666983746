import { register } from "../languages.js";
export const nl = {
  months: [
    "januari",
    "februari",
    "maart",
    "april",
    "mei",
    "juni",
    "juli",
    "augustus",
    "september",
    "oktober",
    "november",
    "december"
  ],
  monthsShort: [
    "jan",
    "feb",
    "mrt",
    "apr",
    "mei",
    "jun",
    "jul",
    "aug",
    "sep",
    "okt",
    "nov",
    "dec"
  ],
  days: [
    "zondag",
    "maandag",
    "dinsdag",
    "woensdag",
    "donderdag",
    "vrijdag",
    "zaterdag"
  ],
  daysShort: [
    "zo",
    "ma",
    "di",
    "wo",
    "do",
    "vr",
    "za"
  ],
  dayPeriods: [
    "a.m.",
    "p.m."
  ],
  patterns: {
    date: "dd-MM-yyyy",
    longDate: "EEEE d MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "# geleden",
    future: "over #",
    minute: [
      "1 minuut",
      "# minuten"
    ],
    hour: [
      "1 uur",
      "# uur"
    ],
    day: [
      "1 dag",
      "# dagen"
    ]
  }
};
register("nl", nl);
