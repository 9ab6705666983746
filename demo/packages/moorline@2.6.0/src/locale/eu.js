import { register } from "../languages.js";
export const eu = {
  months: [
    "urtarrila",
    "otsaila",
    "martxoa",
    "apirila",
    "maiatza",
    "ekaina",
    "uztaila",
    "abuztua",
    "iraila",
    "urria",
    "azaroa",
    "abendua"
  ],
  monthsShort: [
    "urt.",
    "ots.",
    "mar.",
    "api.",
    "mai.",
    "eka.",
    "uzt.",
    "abu.",
    "ira.",
    "urr.",
    "aza.",
    "abe."
  ],
  days: [
    "igandea",
    "astelehena",
    "asteartea",
    "asteazkena",
    "osteguna",
    "ostirala",
    "larunbata"
  ],
  daysShort: [
    "ig.",
    "al.",
    "ar.",
    "az.",
    "og.",
    "or.",
    "lr."
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "yyyy/MM/dd",
    longDate: "yyyy'(e)ko 'MMMM'ren 'd'(a), 'EEEE",
    time: "HH:mm"
  },
  relative: {
    past: "duela #",
    future: "# barru",
    minute: [
      "1 minutu",
      "# minutu"
    ],
    hour: [
      "1 ordu",
      "# ordu"
    ],
    day: [
      "1 egun",
      "# egun"
    ]
  }
};
register("eu", eu);
