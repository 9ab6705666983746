import { register } from "../languages.js";
export const sv = {
  months: [
    "januari",
    "februari",
    "mars",
    "april",
    "maj",
    "juni",
    "juli",
    "augusti",
    "september",
    "oktober",
    "november",
    "december"
  ],
  monthsShort: [
    "jan.",
    "feb.",
    "mars",
    "apr.",
    "maj",
    "juni",
    "juli",
    "aug.",
    "sep.",
    "okt.",
    "nov.",
    "dec."
  ],
  days: [
    "söndag",
    "måndag",
    "tisdag",
    "onsdag",
    "torsdag",
    "fredag",
    "lördag"
  ],
  daysShort: [
    "sön",
    "mån",
    "tis",
    "ons",
    "tors",
    "fre",
    "lör"
  ],
  dayPeriods: [
    "fm",
    "em"
  ],
  patterns: {
    date: "yyyy-MM-dd",
    longDate: "EEEE d MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "för # sedan",
    future: "om #",
    minute: [
      "1 minut",
      "# minuter"
    ],
    hour: [
      "1 timme",
      "# timmar"
    ],
    day: [
      "1 dygn",
      "# dygn"
    ]
  }
};
register("sv", sv);
