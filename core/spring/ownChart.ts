import type { ChartPressure } from '#contract/chart'
import type { Rider } from '#contract/rider'
import type { SuspensionUnit } from '#contract/unit'
import { readChart } from './chart.ts'
import { saidRidingMassKg } from './load.ts'

/**
 * Main pressures that the units' own charts give for a rider with kit; none where the weight of either is not known, or
 * lies outside what a chart can answer for.
 */
export function ownCharts(units: readonly SuspensionUnit[], rider: Rider): ChartPressure[] {
  const kg = saidRidingMassKg(rider)
  if (kg === null) return []
  return units.flatMap((unit) => {
    const main = unit.adjusters.find((a) => a.role === 'main-pressure')
    const chart = unit.charts.find((c) => c.adjusterId === main?.id && c.input === 'riding-mass-kg')
    const answer = chart && readChart(chart, kg)
    return chart && answer && !answer.tooFar
      ? [{ unitId: unit.id, psi: answer.value, source: chart.source }]
      : []
  })
}
