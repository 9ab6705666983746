import { Chart, registerables } from 'chart.js'
import * as d3 from 'd3'
Chart.register(...registerables)
export function draw(values: number[]) {
  const canvas = document.body.appendChild(document.createElement('canvas'))
  new Chart(canvas, { type: 'bar', data: { labels: values.map(String), datasets: [{ data: values }] } })
  d3.select('body').append('svg').selectAll('circle').data(values).join('circle').attr('r', (v) => d3.scaleLinear().range([0, 9])(v))
}
