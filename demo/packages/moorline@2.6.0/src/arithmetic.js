const MS = { second: 1000, minute: 60000, hour: 3600000 };
export function add(date, amount, unit) {
  const result = new Date(date);
  if (unit in MS) result.setTime(result.getTime() + amount * MS[unit]);
  else if (unit === "day" || unit === "week") result.setDate(result.getDate() + amount * (unit === "week" ? 7 : 1));
  else {
    const day = result.getDate();
    result.setDate(1);
    result.setMonth(result.getMonth() + amount * (unit === "year" ? 12 : 1));
    const last = new Date(result.getFullYear(), result.getMonth() + 1, 0).getDate();
    result.setDate(Math.min(day, last));
  }
  return result;
}
export function startOf(date, unit, firstDay = 1) {
  const result = new Date(date);
  if (unit === "hour") result.setMinutes(0, 0, 0);
  else result.setHours(0, 0, 0, 0);
  if (unit === "week") result.setDate(result.getDate() - ((result.getDay() - firstDay + 7) % 7));
  if (unit === "month") result.setDate(1);
  return result;
}
export function difference(a, b, unit = "minute") {
  return (a - b) / (MS[unit] ?? 86400000);
}
