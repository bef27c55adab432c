import type { Adjuster } from '#contract/adjuster'
import type { SuspensionUnit } from '#contract/unit'
import { kgToLb, paPerPsi } from '../units/convert.ts'
import { InputError } from '../errors.ts'
import { pressureForLoadPsi } from './air.ts'
import { readChart } from './chart.ts'
import { axleLoadN, type LoadCase } from './load.ts'
import { unitAir } from './unitSpring.ts'

export interface StartPressure {
  from: 'chart' | 'earlier' | 'solved' | 'rule'
  psi: number
  /** One standard deviation to reckon with before the first reading. */
  spreadPsi: number
  /** Where it comes from, and what to mind. */
  words: string
  /** The wish before the unit's limits. */
  clamped: boolean
}

/** Leverage at sag of a rear unit whose linkage is not known. */
const usualLeverage = 2.6
/** Spread of the solved pressure: area and shape of an unmeasured unit. */
const solvedSpread = 0.2

/**
 * Pressures to start with, the best source first: the unit's own chart, an earlier setup of this rider on this unit,
 * solved from weight and unit, and the trade's 1:1 rule (lb → psi for shocks, kg → psi for forks).
 *
 * @param earlierPsi      what this rider last rode on this unit
 * @param meanLeverage    wheel travel over stroke at the rear; null = usual
 */
export function startPressures(
  unit: SuspensionUnit,
  load: LoadCase,
  earlierPsi: number | null,
  meanLeverage: number | null,
): StartPressure[] {
  const main = unit.adjusters.find((a) => a.kind === 'pressure' && a.role === 'main-pressure')
  if (!main || main.kind !== 'pressure') return []
  const limits = main
  const found: StartPressure[] = []
  const add = (from: StartPressure['from'], wish: number, spreadPsi: number, words: string) => {
    const psi = Math.min(limits.maxPsi, Math.max(limits.minPsi, wish))
    found.push({ from, psi: Math.round(psi), spreadPsi, words, clamped: psi !== wish })
  }
  for (const chart of unit.charts.filter((c) => c.adjusterId === main.id && c.input === 'riding-mass-kg')) {
    const answer = readChart(chart, load.ridingMassKg)
    add(
      'chart',
      answer.value,
      0.05 * answer.value,
      answer.tooFar
        ? `${chart.source}, but the weight lies outside its rows: take it with care`
        : chart.source,
    )
  }
  if (earlierPsi !== null) add('earlier', earlierPsi, 3, 'what this bike had last')
  const solved = solvedPsi(unit, load, meanLeverage)
  if (solved !== null)
    add(
      'solved',
      solved,
      solvedSpread * solved,
      unitAir(unit).own
        ? 'solved from weight and this unit’s figures'
        : 'solved from weight and usual figures',
    )
  if (unit.end === 'front')
    add('rule', load.ridingMassKg, 0.15 * load.ridingMassKg, '1:1 rule for forks, kg of riding weight = psi')
  else {
    const lb = kgToLb(load.ridingMassKg)
    add('rule', lb, 0.15 * lb, '1:1 rule for shocks, lb of riding weight = psi')
  }
  return found
}

function solvedPsi(unit: SuspensionUnit, load: LoadCase, meanLeverage: number | null): number | null {
  const { shape, pistonAreaCm2 } = unitAir(unit)
  const spacers = middleSpacers(unit.adjusters)
  const lever = unit.end === 'front' ? 1 : (meanLeverage ?? usualLeverage)
  const loadPsi = (axleLoadN(unit.end, load) * lever) / (pistonAreaCm2 * 1e-4) / paPerPsi
  try {
    return pressureForLoadPsi(loadPsi, unit.sagTargetPct / 100, shape, { spacers })
  } catch (e) {
    if (e instanceof InputError && e.code === 'root.not-bracketed') return null
    throw e
  }
}

/** Units come with some spacers in; their number matters little at sag. */
function middleSpacers(adjusters: readonly Adjuster[]): number {
  const a = adjusters.find((x) => x.kind === 'spacer')
  return a?.kind === 'spacer' ? Math.floor(a.maxCount / 3) : 0
}
