import { register } from "../languages.js";
export const et = {
  months: [
    "jaanuar",
    "veebruar",
    "märts",
    "aprill",
    "mai",
    "juuni",
    "juuli",
    "august",
    "september",
    "oktoober",
    "november",
    "detsember"
  ],
  monthsShort: [
    "jaan",
    "veebr",
    "märts",
    "apr",
    "mai",
    "juuni",
    "juuli",
    "aug",
    "sept",
    "okt",
    "nov",
    "dets"
  ],
  days: [
    "pühapäev",
    "esmaspäev",
    "teisipäev",
    "kolmapäev",
    "neljapäev",
    "reede",
    "laupäev"
  ],
  daysShort: [
    "P",
    "E",
    "T",
    "K",
    "N",
    "R",
    "L"
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
    past: "# tunni eest",
    future: "# tunni pärast",
    minute: [
      "1 minut",
      "# minutit"
    ],
    hour: [
      "1 tund",
      "# tundi"
    ],
    day: [
      "1 ööpäev",
      "# ööpäeva"
    ]
  }
};
register("et", et);
