import { register } from "../languages.js";
export const hr = {
  months: [
    "siječanj",
    "veljača",
    "ožujak",
    "travanj",
    "svibanj",
    "lipanj",
    "srpanj",
    "kolovoz",
    "rujan",
    "listopad",
    "studeni",
    "prosinac"
  ],
  monthsShort: [
    "sij",
    "velj",
    "ožu",
    "tra",
    "svi",
    "lip",
    "srp",
    "kol",
    "ruj",
    "lis",
    "stu",
    "pro"
  ],
  days: [
    "nedjelja",
    "ponedjeljak",
    "utorak",
    "srijeda",
    "četvrtak",
    "petak",
    "subota"
  ],
  daysShort: [
    "ned",
    "pon",
    "uto",
    "sri",
    "čet",
    "pet",
    "sub"
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd. MM. yyyy.",
    longDate: "EEEE, d. MMMM yyyy.",
    time: "HH:mm"
  },
  relative: {
    past: "prije #",
    future: "za #",
    minute: [
      "1 minuta",
      "# minuta"
    ],
    hour: [
      "1 sat",
      "# sati"
    ],
    day: [
      "1 dan",
      "# dana"
    ]
  }
};
register("hr", hr);
