import { register } from "../languages.js";
export const fi = {
  months: [
    "tammikuu",
    "helmikuu",
    "maaliskuu",
    "huhtikuu",
    "toukokuu",
    "kesäkuu",
    "heinäkuu",
    "elokuu",
    "syyskuu",
    "lokakuu",
    "marraskuu",
    "joulukuu"
  ],
  monthsShort: [
    "tammi",
    "helmi",
    "maalis",
    "huhti",
    "touko",
    "kesä",
    "heinä",
    "elo",
    "syys",
    "loka",
    "marras",
    "joulu"
  ],
  days: [
    "sunnuntai",
    "maanantai",
    "tiistai",
    "keskiviikko",
    "torstai",
    "perjantai",
    "lauantai"
  ],
  daysShort: [
    "su",
    "ma",
    "ti",
    "ke",
    "to",
    "pe",
    "la"
  ],
  dayPeriods: [
    "ap.",
    "ip."
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "EEEE d. MMMM yyyy",
    time: "HH.mm"
  },
  relative: {
    past: "# sitten",
    future: "# tunnin päästä",
    minute: [
      "1 minuutti",
      "# minuuttia"
    ],
    hour: [
      "1 tunti",
      "# tuntia"
    ],
    day: [
      "1 päivä",
      "# päivää"
    ]
  }
};
register("fi", fi);
