"use client";
import { BarChart, Bar, XAxis } from "recharts";
import { format } from "date-fns";
import dayjs from "dayjs";
export function Prices() {
  const rows = [1, 2, 3].map((n) => ({ n: format(dayjs(0).add(n, "day").toDate(), "dd MMM"), price: n * n }));
  return <BarChart width={400} height={200} data={rows}><XAxis dataKey="n" /><Bar dataKey="price" /></BarChart>;
}
