import { register } from "../languages.js";
export const pt = {
  months: [
    "janeiro",
    "fevereiro",
    "março",
    "abril",
    "maio",
    "junho",
    "julho",
    "agosto",
    "setembro",
    "outubro",
    "novembro",
    "dezembro"
  ],
  monthsShort: [
    "jan.",
    "fev.",
    "mar.",
    "abr.",
    "mai.",
    "jun.",
    "jul.",
    "ago.",
    "set.",
    "out.",
    "nov.",
    "dez."
  ],
  days: [
    "domingo",
    "segunda-feira",
    "terça-feira",
    "quarta-feira",
    "quinta-feira",
    "sexta-feira",
    "sábado"
  ],
  daysShort: [
    "dom.",
    "seg.",
    "ter.",
    "qua.",
    "qui.",
    "sex.",
    "sáb."
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd/MM/yyyy",
    longDate: "EEEE, d' de 'MMMM' de 'yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "há #",
    future: "em #",
    minute: [
      "1 minuto",
      "# minutos"
    ],
    hour: [
      "1 hora",
      "# horas"
    ],
    day: [
      "1 dia",
      "# dias"
    ]
  }
};
register("pt", pt);
