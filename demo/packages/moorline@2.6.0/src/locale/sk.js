import { register } from "../languages.js";
export const sk = {
  months: [
    "január",
    "február",
    "marec",
    "apríl",
    "máj",
    "jún",
    "júl",
    "august",
    "september",
    "október",
    "november",
    "december"
  ],
  monthsShort: [
    "jan",
    "feb",
    "mar",
    "apr",
    "máj",
    "jún",
    "júl",
    "aug",
    "sep",
    "okt",
    "nov",
    "dec"
  ],
  days: [
    "nedeľa",
    "pondelok",
    "utorok",
    "streda",
    "štvrtok",
    "piatok",
    "sobota"
  ],
  daysShort: [
    "ne",
    "po",
    "ut",
    "st",
    "št",
    "pi",
    "so"
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd. MM. yyyy",
    longDate: "EEEE d. MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "pred # hodinami",
    future: "o #",
    minute: [
      "1 minúta",
      "# minút"
    ],
    hour: [
      "1 hodina",
      "# hodín"
    ],
    day: [
      "1 deň",
      "# dní"
    ]
  }
};
register("sk", sk);
