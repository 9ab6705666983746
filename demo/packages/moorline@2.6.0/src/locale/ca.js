import { register } from "../languages.js";
export const ca = {
  months: [
    "gener",
    "febrer",
    "març",
    "abril",
    "maig",
    "juny",
    "juliol",
    "agost",
    "setembre",
    "octubre",
    "novembre",
    "desembre"
  ],
  monthsShort: [
    "gen.",
    "febr.",
    "març",
    "abr.",
    "maig",
    "juny",
    "jul.",
    "ag.",
    "set.",
    "oct.",
    "nov.",
    "des."
  ],
  days: [
    "diumenge",
    "dilluns",
    "dimarts",
    "dimecres",
    "dijous",
    "divendres",
    "dissabte"
  ],
  daysShort: [
    "dg.",
    "dl.",
    "dt.",
    "dc.",
    "dj.",
    "dv.",
    "ds."
  ],
  dayPeriods: [
    "a. m.",
    "p. m."
  ],
  patterns: {
    date: "dd/MM/yyyy",
    longDate: "EEEE, d MMMM' del 'yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "fa #",
    future: "d’aquí a #",
    minute: [
      "1 minut",
      "# minuts"
    ],
    hour: [
      "1 hora",
      "# hores"
    ],
    day: [
      "1 dia",
      "# dies"
    ]
  }
};
register("ca", ca);
