import { register } from "../languages.js";
export const hu = {
  months: [
    "január",
    "február",
    "március",
    "április",
    "május",
    "június",
    "július",
    "augusztus",
    "szeptember",
    "október",
    "november",
    "december"
  ],
  monthsShort: [
    "jan.",
    "febr.",
    "márc.",
    "ápr.",
    "máj.",
    "jún.",
    "júl.",
    "aug.",
    "szept.",
    "okt.",
    "nov.",
    "dec."
  ],
  days: [
    "vasárnap",
    "hétfő",
    "kedd",
    "szerda",
    "csütörtök",
    "péntek",
    "szombat"
  ],
  daysShort: [
    "V",
    "H",
    "K",
    "Sze",
    "Cs",
    "P",
    "Szo"
  ],
  dayPeriods: [
    "de.",
    "du."
  ],
  patterns: {
    date: "yyyy. MM. dd.",
    longDate: "yyyy. MMMM d., EEEE",
    time: "HH:mm"
  },
  relative: {
    past: "# órával ezelőtt",
    future: "# múlva",
    minute: [
      "1 perc",
      "# perc"
    ],
    hour: [
      "1 óra",
      "# óra"
    ],
    day: [
      "1 nap",
      "# nap"
    ]
  }
};
register("hu", hu);
