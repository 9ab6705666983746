import { LineChart, Line, XAxis, YAxis, Tooltip } from 'recharts'
export default function Charts() {
  const data = Array.from({ length: 20 }, (_, x) => ({ x, y: x * x }))
  return <LineChart width={600} height={300} data={data}><XAxis dataKey="x" /><YAxis /><Tooltip /><Line dataKey="y" /></LineChart>
}
