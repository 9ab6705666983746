import { register } from "../languages.js";
export const de = {
  months: [
    "Januar",
    "Februar",
    "März",
    "April",
    "Mai",
    "Juni",
    "Juli",
    "August",
    "September",
    "Oktober",
    "November",
    "Dezember"
  ],
  monthsShort: [
    "Jan",
    "Feb",
    "Mär",
    "Apr",
    "Mai",
    "Jun",
    "Jul",
    "Aug",
    "Sep",
    "Okt",
    "Nov",
    "Dez"
  ],
  days: [
    "Sonntag",
    "Montag",
    "Dienstag",
    "Mittwoch",
    "Donnerstag",
    "Freitag",
    "Samstag"
  ],
  daysShort: [
    "So",
    "Mo",
    "Di",
    "Mi",
    "Do",
    "Fr",
    "Sa"
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE, d. MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "vor #",
    future: "in #",
    minute: [
      "1 Minute",
      "# Minuten"
    ],
    hour: [
      "1 Stunde",
      "# Stunden"
    ],
    day: [
      "1 Tag",
      "# Tage"
    ]
  }
};
register("de", de);
