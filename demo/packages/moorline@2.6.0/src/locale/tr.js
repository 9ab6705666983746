import { register } from "../languages.js";
export const tr = {
  months: [
    "Ocak",
    "Şubat",
    "Mart",
    "Nisan",
    "Mayıs",
    "Haziran",
    "Temmuz",
    "Ağustos",
    "Eylül",
    "Ekim",
    "Kasım",
    "Aralık"
  ],
  monthsShort: [
    "Oca",
    "Şub",
    "Mar",
    "Nis",
    "May",
    "Haz",
    "Tem",
    "Ağu",
    "Eyl",
    "Eki",
    "Kas",
    "Ara"
  ],
  days: [
    "Pazar",
    "Pazartesi",
    "Salı",
    "Çarşamba",
    "Perşembe",
    "Cuma",
    "Cumartesi"
  ],
  daysShort: [
    "Paz",
    "Pzt",
    "Sal",
    "Çar",
    "Per",
    "Cum",
    "Cmt"
  ],
  dayPeriods: [
    "ÖÖ",
    "ÖS"
  ],
  patterns: {
    date: "dd.MM.yyyy",
    longDate: "d MMMM yyyy EEEE",
    time: "HH:mm"
  },
  relative: {
    past: "# önce",
    future: "# sonra",
    minute: [
      "1 dakika",
      "# dakika"
    ],
    hour: [
      "1 saat",
      "# saat"
    ],
    day: [
      "1 gün",
      "# gün"
    ]
  }
};
register("tr", tr);
