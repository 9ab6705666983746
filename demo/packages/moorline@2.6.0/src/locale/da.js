import { register } from "../languages.js";
export const da = {
  months: [
    "januar",
    "februar",
    "marts",
    "april",
    "maj",
    "juni",
    "juli",
    "august",
    "september",
    "oktober",
    "november",
    "december"
  ],
  monthsShort: [
    "jan.",
    "feb.",
    "mar.",
    "apr.",
    "maj",
    "jun.",
    "jul.",
    "aug.",
    "sep.",
    "okt.",
    "nov.",
    "dec."
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
    "tirs.",
    "ons.",
    "tors.",
    "fre.",
    "lør."
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE' den 'd. MMMM yyyy",
    time: "HH.mm"
  },
  relative: {
    past: "for # siden",
    future: "om #",
    minute: [
      "1 minut",
      "# minutter"
    ],
    hour: [
      "1 time",
      "# timer"
    ],
    day: [
      "1 dag",
      "# dage"
    ]
  }
};
register("da", da);
