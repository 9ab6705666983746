import { register } from "../languages.js";
export const fr = {
  months: [
    "janvier",
    "février",
    "mars",
    "avril",
    "mai",
    "juin",
    "juillet",
    "août",
    "septembre",
    "octobre",
    "novembre",
    "décembre"
  ],
  monthsShort: [
    "janv.",
    "févr.",
    "mars",
    "avr.",
    "mai",
    "juin",
    "juil.",
    "août",
    "sept.",
    "oct.",
    "nov.",
    "déc."
  ],
  days: [
    "dimanche",
    "lundi",
    "mardi",
    "mercredi",
    "jeudi",
    "vendredi",
    "samedi"
  ],
  daysShort: [
    "dim.",
    "lun.",
    "mar.",
    "mer.",
    "jeu.",
    "ven.",
    "sam."
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
    past: "il y a # heures",
    future: "dans # heures",
    minute: [
      "1 minute",
      "# minutes"
    ],
    hour: [
      "1 heure",
      "# heures"
    ],
    day: [
      "1 jour",
      "# jours"
    ]
  }
};
register("fr", fr);
