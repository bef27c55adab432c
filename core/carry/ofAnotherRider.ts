import type { Baseline } from '#contract/baseline'
import type { AdvisedPosition } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { canonicalUnits, say, type UnitChoice } from '../units/choice.ts'
import { carryOver } from './carryOver.ts'
import type { Situation } from './situation.ts'

/** Settings as they hold for a rider, and what was done to them. */
export interface ForRider {
  positions: AdvisedPosition[]
  /** Why they are not as written; null: they are. */
  words: string | null
}

/** Within this the same settings serve both, kg. */
const alikeKg = 2

const anywhere: Omit<Situation, 'ridingMassKg'> = {
  airTempC: 15,
  altitudeM: 300,
  surface: null,
  steepness: 'usual',
  pace: 'usual',
}

/**
 * What a recommended start says for this rider. Another rider's clicks at another weight are refused, and translated by
 * the spring and damper models instead; without the own weight nothing can be said.
 *
 * @param ownMassKg rider with kit and water; null: not known, or body alone
 */
export function forRider(
  b: Pick<Baseline, 'source' | 'riderMassKg' | 'positions'>,
  units: readonly SuspensionUnit[],
  ownMassKg: number | null,
  choice: UnitChoice = canonicalUnits,
): ForRider {
  if (b.source !== 'another-rider' || b.riderMassKg === null) return { positions: b.positions, words: null }
  const theirs = say('mass', Math.round(b.riderMassKg), choice)
  if (ownMassKg === null)
    return {
      positions: [],
      words: `Found by a rider of ${theirs}; they say nothing until your weight and that of your kit are known.`,
    }
  if (Math.abs(ownMassKg - b.riderMassKg) <= alikeKg) return { positions: b.positions, words: null }
  const carried = carryOver(
    b,
    units,
    { ...anywhere, ridingMassKg: b.riderMassKg },
    { ...anywhere, ridingMassKg: ownMassKg },
  )
  return {
    positions: carried.map((c) => ({ end: c.end, adjusterId: c.adjuster.id, value: c.to })),
    words: `Not as written: found by a rider of ${theirs}. Translated to yours, an estimate.`,
  }
}
