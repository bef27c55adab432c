import type { Chart } from '#contract/chart'

export interface ChartAnswer {
  value: number
  /** Outside the printed rows, by how much in the chart's own input; 0 inside. */
  beyond: number
  /** Beyond what a chart can answer for: 5 kg, or 5 % of a pressure. */
  tooFar: boolean
}

/**
 * Reads a chart: straight between its rows, the last row held outside them.
 * A chart is not extrapolated; the answer says how far outside it is asked.
 */
export function readChart(chart: Pick<Chart, 'input' | 'rows'>, at: number): ChartAnswer {
  const { rows, input } = chart
  const first = rows[0]
  const last = rows[rows.length - 1]
  if (at <= first.at) return outside(first.value, first.at - at, input, at)
  if (at >= last.at) return outside(last.value, at - last.at, input, at)
  const i = rows.findIndex((r) => r.at > at)
  const [a, b] = [rows[i - 1], rows[i]]
  return { value: a.value + ((b.value - a.value) * (at - a.at)) / (b.at - a.at), beyond: 0, tooFar: false }
}

const outside = (value: number, beyond: number, input: Chart['input'], at: number): ChartAnswer => ({
  value,
  beyond,
  tooFar: beyond > (input === 'riding-mass-kg' ? 5 : 0.05 * at),
})
