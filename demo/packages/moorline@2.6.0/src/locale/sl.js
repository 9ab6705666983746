import { register } from "../languages.js";
export const sl = {
  months: [
    "januar",
    "februar",
    "marec",
    "april",
    "maj",
    "junij",
    "julij",
    "avgust",
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
    "avg.",
    "sep.",
    "okt.",
    "nov.",
    "dec."
  ],
  days: [
    "nedelja",
    "ponedeljek",
    "torek",
    "sreda",
    "četrtek",
    "petek",
    "sobota"
  ],
  daysShort: [
    "ned.",
    "pon.",
    "tor.",
    "sre.",
    "čet.",
    "pet.",
    "sob."
  ],
  dayPeriods: [
    "dop.",
    "pop."
  ],
  patterns: {
    date: "dd. MM. yyyy",
    longDate: "EEEE, d. MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "pred #ami",
    future: "čez #",
    minute: [
      "1 minuta",
      "# minut"
    ],
    hour: [
      "1 ura",
      "# ur"
    ],
    day: [
      "1 dan",
      "# dni"
    ]
  }
};
register("sl", sl);
