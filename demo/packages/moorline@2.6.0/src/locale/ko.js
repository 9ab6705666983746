import { register } from "../languages.js";
export const ko = {
  months: [
    "1월",
    "2월",
    "3월",
    "4월",
    "5월",
    "6월",
    "7월",
    "8월",
    "9월",
    "10월",
    "11월",
    "12월"
  ],
  monthsShort: [
    "1월",
    "2월",
    "3월",
    "4월",
    "5월",
    "6월",
    "7월",
    "8월",
    "9월",
    "10월",
    "11월",
    "12월"
  ],
  days: [
    "일요일",
    "월요일",
    "화요일",
    "수요일",
    "목요일",
    "금요일",
    "토요일"
  ],
  daysShort: [
    "일",
    "월",
    "화",
    "수",
    "목",
    "금",
    "토"
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "yyyy. MM. dd.",
    longDate: "yyyy년 MMMM d일 EEEE",
    time: "HH:mm"
  },
  relative: {
    past: "# 전",
    future: "# 후",
    minute: [
      "1분",
      "#분"
    ],
    hour: [
      "1시간",
      "#시간"
    ],
    day: [
      "1일",
      "#일"
    ]
  }
};
register("ko", ko);
