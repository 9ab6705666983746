import { register } from "../languages.js";
export const it = {
  months: [
    "gennaio",
    "febbraio",
    "marzo",
    "aprile",
    "maggio",
    "giugno",
    "luglio",
    "agosto",
    "settembre",
    "ottobre",
    "novembre",
    "dicembre"
  ],
  monthsShort: [
    "gen",
    "feb",
    "mar",
    "apr",
    "mag",
    "giu",
    "lug",
    "ago",
    "set",
    "ott",
    "nov",
    "dic"
  ],
  days: [
    "domenica",
    "lunedì",
    "martedì",
    "mercoledì",
    "giovedì",
    "venerdì",
    "sabato"
  ],
  daysShort: [
    "dom",
    "lun",
    "mar",
    "mer",
    "gio",
    "ven",
    "sab"
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd/MM/yyyy",
    longDate: "EEEE d MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "# fa",
    future: "tra #",
    minute: [
      "1 minuto",
      "# minuti"
    ],
    hour: [
      "1 ora",
      "# ore"
    ],
    day: [
      "1 giorno",
      "# giorni"
    ]
  }
};
register("it", it);
