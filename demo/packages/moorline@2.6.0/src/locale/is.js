import { register } from "../languages.js";
export const is = {
  months: [
    "janúar",
    "febrúar",
    "mars",
    "apríl",
    "maí",
    "júní",
    "júlí",
    "ágúst",
    "september",
    "október",
    "nóvember",
    "desember"
  ],
  monthsShort: [
    "jan.",
    "feb.",
    "mar.",
    "apr.",
    "maí",
    "jún.",
    "júl.",
    "ágú.",
    "sep.",
    "okt.",
    "nóv.",
    "des."
  ],
  days: [
    "sunnudagur",
    "mánudagur",
    "þriðjudagur",
    "miðvikudagur",
    "fimmtudagur",
    "föstudagur",
    "laugardagur"
  ],
  daysShort: [
    "sun.",
    "mán.",
    "þri.",
    "mið.",
    "fim.",
    "fös.",
    "lau."
  ],
  dayPeriods: [
    "f.h.",
    "e.h."
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE, d. MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "fyrir # klukkustundum",
    future: "eftir #",
    minute: [
      "1 mínúta",
      "# mínútur"
    ],
    hour: [
      "1 klukkustund",
      "# klukkustundir"
    ],
    day: [
      "1 dagur",
      "# dagar"
    ]
  }
};
register("is", is);
