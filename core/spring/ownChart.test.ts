import { describe, expect, it } from 'vitest'
import { Rider } from '#contract/rider'
import { fork } from '../test/dayBuilder.ts'
import { ownCharts } from './ownChart.ts'

const rider = (bodyMassKg: number | null): Rider =>
  Rider.parse({
    id: '00000000-0000-4000-8000-000000000001',
    version: 0,
    name: 'Tilde',
    bodyMassKg,
    kitMassKg: 5,
    level: 'advanced',
    taste: 'neutral',
    note: '',
  })
const charted = {
  ...fork,
  charts: [
    {
      id: 'chart',
      adjusterId: 'fp',
      input: 'riding-mass-kg' as const,
      source: 'leaflet',
      rows: [
        { at: 60, value: 60 },
        { at: 80, value: 80 },
      ],
    },
  ],
}

describe('what a unit’s own chart says for its rider', () => {
  it('is read at the weight with kit, and carries no weight', () => {
    expect(ownCharts([charted], rider(65))).toEqual([{ unitId: 'fork', psi: 70, source: 'leaflet' }])
  })
  it('is silent without a weight, outside its rows, and for a unit without a chart', () => {
    // What a rider weighs without kit answers another row of the chart.
    expect(ownCharts([charted], { ...rider(65), kitMassKg: null })).toEqual([])
    expect(ownCharts([charted], rider(null))).toEqual([])
    expect(ownCharts([charted], rider(95))).toEqual([])
    expect(ownCharts([fork], rider(65))).toEqual([])
  })
})
