import type { Adjuster } from '#contract/adjuster'
import type { RiderLevel } from '#contract/rider'
import type { SuspensionUnit } from '#contract/unit'
import { clampToRange } from '../adjusters/range.ts'
import { readChart } from '../spring/chart.ts'
import { usualRatioPerClick } from './clicks.ts'

/** Damping ratio of rebound to start with, by level: slower is safer for a novice. */
export const reboundRatioFor: Record<RiderLevel, number> = {
  novice: 0.7,
  intermediate: 0.65,
  advanced: 0.6,
  race: 0.55,
}

/**
 * What the middle of a rebound dial is taken to give: makers put it near the middle of their riders. Assumed, and said
 * so wherever a start click is computed.
 */
const middle = { ratio: 0.62, ridingMassKg: 80 }

export interface StartClick {
  from: 'chart' | 'earlier' | 'computed'
  /** Canonical position, one the dial can stand at. */
  value: number
  /** Clicks or turns to reckon with either way. */
  spread: number
  words: string
}

type Dial = Extract<Adjuster, { kind: 'click' | 'turn' }>

/**
 * Rebound positions to start with, the best source first: the unit's chart (by pressure, else by weight), what was
 * ridden before, and one computed for a damping ratio by level. With the same sag the stiffness grows with the mass,
 * so √(k·m) grows with the mass, and clicks with its logarithm.
 */
export function startClicks(
  unit: Pick<SuspensionUnit, 'charts' | 'revalved'>,
  dial: Dial,
  rider: { ridingMassKg: number; level: RiderLevel },
  pressurePsi: number | null,
  earlier: number | null,
): StartClick[] {
  const found: StartClick[] = []
  for (const chart of unit.charts.filter((c) => c.adjusterId === dial.id)) {
    const at = chart.input === 'pressure-psi' ? pressurePsi : rider.ridingMassKg
    if (at === null) continue
    const answer = readChart(chart, at)
    const words = unit.revalved
      ? `${chart.source}; the unit was re-valved, so its chart no longer holds`
      : answer.tooFar
        ? `${chart.source}, asked outside its rows: take it with care`
        : chart.source
    found.push({
      from: 'chart',
      value: clampToRange(dial, answer.value),
      spread: unit.revalved ? 4 : 2,
      words,
    })
  }
  if (earlier !== null)
    found.push({ from: 'earlier', value: earlier, spread: 1, words: 'what this bike had last' })
  const range = dial.kind === 'click' ? dial.clicks : dial.turns
  const perClick = dial.kind === 'click' ? usualRatioPerClick.low : Math.pow(4, 1 / range)
  const wish = (reboundRatioFor[rider.level] / middle.ratio) * (rider.ridingMassKg / middle.ridingMassKg)
  const closer = Math.log(wish) / Math.log(perClick)
  found.push({
    from: 'computed',
    value: clampToRange(dial, range / 2 - closer),
    spread: range / 4,
    words: `estimated from riding weight (damping ratio ${reboundRatioFor[rider.level]}; the middle of the dial taken as right for 80 kg)`,
  })
  return unit.revalved
    ? [...found.filter((f) => f.from !== 'chart'), ...found.filter((f) => f.from === 'chart')]
    : found
}
