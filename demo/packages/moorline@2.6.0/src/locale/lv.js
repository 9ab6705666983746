import { register } from "../languages.js";
export const lv = {
  months: [
    "janvāris",
    "februāris",
    "marts",
    "aprīlis",
    "maijs",
    "jūnijs",
    "jūlijs",
    "augusts",
    "septembris",
    "oktobris",
    "novembris",
    "decembris"
  ],
  monthsShort: [
    "janv.",
    "febr.",
    "marts",
    "apr.",
    "maijs",
    "jūn.",
    "jūl.",
    "aug.",
    "sept.",
    "okt.",
    "nov.",
    "dec."
  ],
  days: [
    "Svētdiena",
    "Pirmdiena",
    "Otrdiena",
    "Trešdiena",
    "Ceturtdiena",
    "Piektdiena",
    "Sestdiena"
  ],
  daysShort: [
    "Svētd.",
    "Pirmd.",
    "Otrd.",
    "Trešd.",
    "Ceturtd.",
    "Piektd.",
    "Sestd."
  ],
  dayPeriods: [
    "priekšp.",
    "pēcp."
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE, yyyy'. gada 'd. MMMM",
    time: "HH:mm"
  },
  relative: {
    past: "pirms # stundām",
    future: "pēc # stundām",
    minute: [
      "1 minūte",
      "# minūtes"
    ],
    hour: [
      "1 stunda",
      "# stundas"
    ],
    day: [
      "1 diena",
      "# dienas"
    ]
  }
};
register("lv", lv);
