import { register } from "../languages.js";
export const es = {
  months: [
    "enero",
    "febrero",
    "marzo",
    "abril",
    "mayo",
    "junio",
    "julio",
    "agosto",
    "septiembre",
    "octubre",
    "noviembre",
    "diciembre"
  ],
  monthsShort: [
    "ene",
    "feb",
    "mar",
    "abr",
    "may",
    "jun",
    "jul",
    "ago",
    "sept",
    "oct",
    "nov",
    "dic"
  ],
  days: [
    "domingo",
    "lunes",
    "martes",
    "miércoles",
    "jueves",
    "viernes",
    "sábado"
  ],
  daysShort: [
    "dom",
    "lun",
    "mar",
    "mié",
    "jue",
    "vie",
    "sáb"
  ],
  dayPeriods: [
    "a. m.",
    "p. m."
  ],
  patterns: {
    date: "dd/MM/yyyy",
    longDate: "EEEE, d' de 'MMMM' de 'yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "hace #",
    future: "dentro de #",
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
register("es", es);
