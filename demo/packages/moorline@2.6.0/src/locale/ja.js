import { register } from "../languages.js";
export const ja = {
  months: [
    "1月",
    "2月",
    "3月",
    "4月",
    "5月",
    "6月",
    "7月",
    "8月",
    "9月",
    "10月",
    "11月",
    "12月"
  ],
  monthsShort: [
    "1月",
    "2月",
    "3月",
    "4月",
    "5月",
    "6月",
    "7月",
    "8月",
    "9月",
    "10月",
    "11月",
    "12月"
  ],
  days: [
    "日曜日",
    "月曜日",
    "火曜日",
    "水曜日",
    "木曜日",
    "金曜日",
    "土曜日"
  ],
  daysShort: [
    "日",
    "月",
    "火",
    "水",
    "木",
    "金",
    "土"
  ],
  dayPeriods: [
    "午前",
    "午後"
  ],
  patterns: {
    date: "yyyy/MM/dd",
    longDate: "yyyy年MMMM月d日EEEE",
    time: "HH:mm"
  },
  relative: {
    past: "#前",
    future: "#後",
    minute: [
      "1 分",
      "# 分"
    ],
    hour: [
      "1 時間",
      "# 時間"
    ],
    day: [
      "1 日",
      "# 日"
    ]
  }
};
register("ja", ja);
