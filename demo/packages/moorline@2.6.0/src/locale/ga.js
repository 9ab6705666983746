import { register } from "../languages.js";
export const ga = {
  months: [
    "Eanáir",
    "Feabhra",
    "Márta",
    "Aibreán",
    "Bealtaine",
    "Meitheamh",
    "Iúil",
    "Lúnasa",
    "Meán Fómhair",
    "Deireadh Fómhair",
    "Samhain",
    "Nollaig"
  ],
  monthsShort: [
    "Ean",
    "Feabh",
    "Márta",
    "Aib",
    "Beal",
    "Meith",
    "Iúil",
    "Lún",
    "MFómh",
    "DFómh",
    "Samh",
    "Noll"
  ],
  days: [
    "Dé Domhnaigh",
    "Dé Luain",
    "Dé Máirt",
    "Dé Céadaoin",
    "Déardaoin",
    "Dé hAoine",
    "Dé Sathairn"
  ],
  daysShort: [
    "Domh",
    "Luan",
    "Máirt",
    "Céad",
    "Déar",
    "Aoine",
    "Sath"
  ],
  dayPeriods: [
    "r.n.",
    "i.n."
  ],
  patterns: {
    date: "dd/MM/yyyy",
    longDate: "EEEE d MMMM yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "#air an chloig ó shin",
    future: "i gceann #air an chloig",
    minute: [
      "1 nóim",
      "# nóim"
    ],
    hour: [
      "1 u",
      "# u"
    ],
    day: [
      "1 lá",
      "# lá"
    ]
  }
};
register("ga", ga);
