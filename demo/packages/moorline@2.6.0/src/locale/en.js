import { register } from "../languages.js";
export const en = {
  months: [
    "January",
    "February",
    "March",
    "April",
    "May",
    "June",
    "July",
    "August",
    "September",
    "October",
    "November",
    "December"
  ],
  monthsShort: [
    "Jan",
    "Feb",
    "Mar",
    "Apr",
    "May",
    "Jun",
    "Jul",
    "Aug",
    "Sep",
    "Oct",
    "Nov",
    "Dec"
  ],
  days: [
    "Sunday",
    "Monday",
    "Tuesday",
    "Wednesday",
    "Thursday",
    "Friday",
    "Saturday"
  ],
  daysShort: [
    "Sun",
    "Mon",
    "Tue",
    "Wed",
    "Thu",
    "Fri",
    "Sat"
  ],
  dayPeriods: [
    "AM",
    "PM"
  ],
  patterns: {
    date: "MM/dd/yyyy",
    longDate: "EEEE, MMMM d, yyyy",
    time: "HH:mm"
  },
  relative: {
    past: "# ago",
    future: "in #",
    minute: [
      "1 minute",
      "# minutes"
    ],
    hour: [
      "1 hour",
      "# hours"
    ],
    day: [
      "1 day",
      "# days"
    ]
  }
};
register("en", en);
