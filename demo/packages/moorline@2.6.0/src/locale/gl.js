import { register } from "../languages.js";
export const gl = {
  months: [
    "xaneiro",
    "febreiro",
    "marzo",
    "abril",
    "maio",
    "xuño",
    "xullo",
    "agosto",
    "setembro",
    "outubro",
    "novembro",
    "decembro"
  ],
  monthsShort: [
    "xan.",
    "feb.",
    "mar.",
    "abr.",
    "maio",
    "xuño",
    "xul.",
    "ago.",
    "set.",
    "out.",
    "nov.",
    "dec."
  ],
  days: [
    "domingo",
    "luns",
    "martes",
    "mércores",
    "xoves",
    "venres",
    "sábado"
  ],
  daysShort: [
    "dom.",
    "luns",
    "mar.",
    "mér.",
    "xov.",
    "ven.",
    "sáb."
  ],
  dayPeriods: [
    "a.m.",
    "p.m."
  ],
  patterns: {
    date: "dd/MM/yyyy",
    longDate: "EEEE, d' de 'MMMM' de 'yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "hai #",
    future: "en #",
    minute: [
      "1 minuto",
      "# minutos"
    ],
    hour: [
      "1 hora",
      "# horas"
    ],
    day: [
      "1 día",
      "# días"
    ]
  }
};
register("gl", gl);
