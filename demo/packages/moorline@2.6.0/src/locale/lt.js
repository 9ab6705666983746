import { register } from "../languages.js";
export const lt = {
  months: [
    "sausis",
    "vasaris",
    "kovas",
    "balandis",
    "gegužė",
    "birželis",
    "liepa",
    "rugpjūtis",
    "rugsėjis",
    "spalis",
    "lapkritis",
    "gruodis"
  ],
  monthsShort: [
    "01",
    "02",
    "03",
    "04",
    "05",
    "06",
    "07",
    "08",
    "09",
    "10",
    "11",
    "12"
  ],
  days: [
    "sekmadienis",
    "pirmadienis",
    "antradienis",
    "trečiadienis",
    "ketvirtadienis",
    "penktadienis",
    "šeštadienis"
  ],
  daysShort: [
    "sk",
    "pr",
    "an",
    "tr",
    "kt",
    "pn",
    "št"
  ],
  dayPeriods: [
    "priešpiet",
    "popiet"
  ],
  patterns: {
    date: "yyyy-MM-dd",
    longDate: "yyyy' m. 'MMMM d' d., 'EEEE",
    time: "HH:mm"
  },
  relative: {
    past: "prieš # valandas",
    future: "po # valandų",
    minute: [
      "1 minutė",
      "# minutės"
    ],
    hour: [
      "1 valanda",
      "# valandos"
    ],
    day: [
      "1 diena",
      "# dienos"
    ]
  }
};
register("lt", lt);
