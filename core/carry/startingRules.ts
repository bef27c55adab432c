import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Purpose } from '#contract/kept'
import type { ProfileShift, ShiftRole } from '#contract/profile'
import type { AdvisedPosition } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { familyOf } from '../adjusters/words.ts'
import { groundPressure } from './groundRules.ts'

interface RuleStep {
  /** What is moved; low-speed dials where both speeds have one of their own. */
  family: 'compression' | 'rebound'
  /** Left out: both. */
  end?: End
  /** Clicks of a usual dial: + firmer or slower, − softer or faster. */
  closer: number
}

/** A rule of thumb for another kind of riding: where to start, never called proven. Source: docs/models.md, "Starting rules". */
export interface StartingRule {
  key: string
  name: string
  purposes: Purpose[]
  why: string
  steps: RuleStep[]
  /** Share of the main pressure at both ends. */
  pressureShare?: number
}

export const startingRules: StartingRule[] = [
  {
    key: 'jump',
    name: 'Jumps, smooth and fast',
    purposes: ['jump'],
    why: 'Long smooth loads: firmer holds up in the lip, slower leaves it calmly.',
    steps: [
      { family: 'compression', closer: 1 },
      { family: 'rebound', closer: 1 },
    ],
  },
  {
    key: 'rough',
    name: 'Rough and fast',
    purposes: ['rough'],
    why: 'Hits follow each other soon: compression lets the wheel move, a quicker return has it back in time.',
    steps: [
      { family: 'compression', closer: -1 },
      { family: 'rebound', closer: -1 },
    ],
  },
  {
    key: 'flow',
    name: 'Flow',
    purposes: ['flow'],
    why: 'Pumping and pushing want something to push against; the dial stays off its stop, or small bumps get hard.',
    steps: [{ family: 'compression', closer: 2 }],
  },
  {
    key: 'chatter',
    name: 'Straight chatter',
    purposes: ['rough'],
    why: 'Small fast hits, nothing to lean on: compression open.',
    steps: [{ family: 'compression', closer: -2 }],
  },
  {
    key: 'wet',
    name: 'Wet, mud or loose',
    purposes: ['wet'],
    why: 'Grip counts before support: a little softer at both ends.',
    steps: [{ family: 'compression', closer: -1 }],
    pressureShare: groundPressure.softer,
  },
  {
    key: 'winter',
    name: 'Winter, near freezing',
    purposes: ['winter'],
    why: 'Cold oil damps harder: a click of both less, taken back as it warms. Thin lubricant in the lower legs is workshop’s work.',
    steps: [
      { family: 'compression', closer: -1 },
      { family: 'rebound', closer: -1 },
    ],
  },
  {
    key: 'braking',
    name: 'Braking turns',
    purposes: ['race'],
    why: 'Braking loads the fork for long: a platform in front instead of air.',
    steps: [{ family: 'compression', end: 'front', closer: 1 }],
  },
]

/** Clicks of a dial that rules of thumb speak of. */
const usualClicks = 16
/** A dial is not wound to its stop by a rule of thumb, clicks of a usual dial. */
const offTheStop = 2

const clickOf = (a: Adjuster): number | null =>
  a.kind === 'click'
    ? Math.max(1, Math.round(a.clicks / usualClicks)) * a.step
    : a.kind === 'turn'
      ? Math.max(a.stepTurns, Math.round(a.turns / usualClicks / a.stepTurns) * a.stepTurns)
      : null

/**
 * What a rule means on these units, dial by dial; only where it is known from where a dial would be turned.
 *
 * @param base where the dials stand, canonical
 */
export function ruleShifts(
  rule: StartingRule,
  base: { positions: readonly AdvisedPosition[] },
  units: readonly SuspensionUnit[],
): ProfileShift[] {
  const at = (a: Adjuster) => base.positions.find((p) => p.adjusterId === a.id)?.value
  return units.flatMap(({ end, adjusters }) => {
    const dials = rule.steps.flatMap(({ family, end: only, closer }): ProfileShift[] => {
      const mine = adjusters.filter((a) => familyOf(a) === family && clickOf(a) !== null)
      const dial = mine.find((a) => a.role.startsWith('low-speed')) ?? mine.at(0)
      const from = dial && at(dial)
      if (!dial || from === undefined || (only && only !== end)) return []
      const click = clickOf(dial)!
      // Canonical counts are from closed: firmer and slower is less.
      const room = Math.max(0, from - offTheStop * click)
      const by = closer > 0 ? -Math.min(closer * click, room) : -closer * click
      return by === 0 ? [] : [{ end, role: dial.role as ShiftRole, by }]
    })
    const air = rule.pressureShare && adjusters.find((a) => a.role === 'main-pressure')
    const psi = air && at(air)
    const softer = psi === undefined || !air ? 0 : Math.round(psi! * rule.pressureShare!)
    return softer === 0 ? dials : [...dials, { end, role: 'main-pressure' as const, by: softer }]
  })
}
