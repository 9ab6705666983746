import { register } from "../languages.js";
export const nb = {
  months: [
    "januar",
    "februar",
    "mars",
    "april",
    "mai",
    "juni",
    "juli",
    "august",
    "september",
    "oktober",
    "november",
    "desember"
  ],
  monthsShort: [
    "jan",
    "feb",
    "mar",
    "apr",
    "mai",
    "jun",
    "jul",
    "aug",
    "sep",
    "okt",
    "nov",
    "des"
  ],
  days: [
    "søndag",
    "mandag",
    "tirsdag",
    "onsdag",
    "torsdag",
    "fredag",
    "lørdag"
  ],
  daysShort: [
    "søn.",
    "man.",
    "tir.",
    "ons.",
    "tor.",
    "fre.",
    "lør."
  ],
  dayPeriods: [
    "a.m.",
    "p.m."
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE d. MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "for # siden",
    future: "om #",
    minute: [
      "1 minutt",
      "# minutter"
    ],
    hour: [
      "1 time",
      "# timer"
    ],
    day: [
      "1 døgn",
      "# døgn"
    ]
  }
};
register("nb", nb);
