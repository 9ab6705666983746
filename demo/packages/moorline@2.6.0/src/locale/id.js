import { register } from "../languages.js";
export const id = {
  months: [
    "Januari",
    "Februari",
    "Maret",
    "April",
    "Mei",
    "Juni",
    "Juli",
    "Agustus",
    "September",
    "Oktober",
    "November",
    "Desember"
  ],
  monthsShort: [
    "Jan",
    "Feb",
    "Mar",
    "Apr",
    "Mei",
    "Jun",
    "Jul",
    "Agu",
    "Sep",
    "Okt",
    "Nov",
    "Des"
  ],
  days: [
    "Minggu",
    "Senin",
    "Selasa",
    "Rabu",
    "Kamis",
    "Jumat",
    "Sabtu"
  ],
  daysShort: [
    "Min",
    "Sen",
    "Sel",
    "Rab",
    "Kam",
    "Jum",
    "Sab"
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "dd/MM/yyyy",
    longDate: "EEEE, d MMMM yyyy",
    time: "HH.mm"
  },
  relative: {
    past: "# yang lalu",
    future: "dalam #",
    minute: [
      "1 menit",
      "# menit"
    ],
    hour: [
      "1 jam",
      "# jam"
    ],
    day: [
      "1 hari",
      "# hari"
    ]
  }
};
register("id", id);
