import { register } from "../languages.js";
export const pl = {
  months: [
    "styczeń",
    "luty",
    "marzec",
    "kwiecień",
    "maj",
    "czerwiec",
    "lipiec",
    "sierpień",
    "wrzesień",
    "październik",
    "listopad",
    "grudzień"
  ],
  monthsShort: [
    "sty",
    "lut",
    "mar",
    "kwi",
    "maj",
    "cze",
    "lip",
    "sie",
    "wrz",
    "paź",
    "lis",
    "gru"
  ],
  days: [
    "niedziela",
    "poniedziałek",
    "wtorek",
    "środa",
    "czwartek",
    "piątek",
    "sobota"
  ],
  daysShort: [
    "niedz.",
    "pon.",
    "wt.",
    "śr.",
    "czw.",
    "pt.",
    "sob."
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE, d MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "# temu",
    future: "za #",
    minute: [
      "1 minuta",
      "# minut"
    ],
    hour: [
      "1 godzina",
      "# godzin"
    ],
    day: [
      "1 dzień",
      "# dni"
    ]
  }
};
register("pl", pl);
