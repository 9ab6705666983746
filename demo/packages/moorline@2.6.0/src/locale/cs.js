import { register } from "../languages.js";
export const cs = {
  months: [
    "leden",
    "únor",
    "březen",
    "duben",
    "květen",
    "červen",
    "červenec",
    "srpen",
    "září",
    "říjen",
    "listopad",
    "prosinec"
  ],
  monthsShort: [
    "led",
    "úno",
    "bře",
    "dub",
    "kvě",
    "čvn",
    "čvc",
    "srp",
    "zář",
    "říj",
    "lis",
    "pro"
  ],
  days: [
    "neděle",
    "pondělí",
    "úterý",
    "středa",
    "čtvrtek",
    "pátek",
    "sobota"
  ],
  daysShort: [
    "ne",
    "po",
    "út",
    "st",
    "čt",
    "pá",
    "so"
  ],
  dayPeriods: [
    "dop.",
    "odp."
  ],
  patterns: {
    date: "dd. MM. yyyy",
    longDate: "EEEE d. MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "před #ami",
    future: "za #",
    minute: [
      "1 minuta",
      "# minut"
    ],
    hour: [
      "1 hodina",
      "# hodin"
    ],
    day: [
      "1 den",
      "# dnů"
    ]
  }
};
register("cs", cs);
