import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import { adjusterRange, canStandAt, clampToRange } from '../adjusters/range.ts'
import type { Step } from './candidates.ts'
import type { SetupSpace } from './dayHistory.ts'
import type { Dial } from './dials.ts'

/** One way to answer a cause: which adjuster, which way (+1 canonical up), and what else it does. */
interface Remedy {
  roles: AdjusterRole[]
  direction: 1 | -1
  end?: End
  /** Named when it only stands in for the right part. */
  sideEffect?: string
}

const lowComp: AdjusterRole[] = ['low-speed-compression', 'compression']
const highComp: AdjusterRole[] = ['high-speed-compression', 'compression']
const rebound: AdjusterRole[] = ['low-speed-rebound', 'rebound']

/** The right part first, then honest substitutes. Dials: up = open = faster or softer. Springs: up = firmer. */
const remedies: Partial<Record<CauseKind, Remedy[]>> = {
  'spring-soft': [
    { roles: ['main-pressure', 'spring-rate'], direction: 1 },
    {
      roles: lowComp,
      direction: -1,
      sideEffect:
        'It holds the end up when things happen slowly but does not repair the spring, and small bumps come through more.',
    },
  ],
  'spring-firm': [
    { roles: ['main-pressure', 'spring-rate'], direction: -1 },
    { roles: lowComp, direction: 1, sideEffect: 'It takes the edge off but the spring stays too firm.' },
  ],
  'ramp-low': [
    { roles: ['spacers'], direction: 1 },
    {
      roles: highComp,
      direction: -1,
      sideEffect: 'It stands in for a missing spacer and makes sharp edges harsher.',
    },
    {
      roles: ['main-pressure', 'spring-rate'],
      direction: 1,
      sideEffect: 'It stands in for a missing spacer and lifts the ride height.',
    },
  ],
  'ramp-high': [
    { roles: ['spacers'], direction: -1 },
    {
      roles: ['main-pressure', 'spring-rate'],
      direction: -1,
      sideEffect: 'It stands in for taking a spacer out and lowers the ride height.',
    },
  ],
  'lsc-open': [
    { roles: lowComp, direction: -1 },
    {
      roles: ['main-pressure'],
      direction: 1,
      sideEffect: 'It stands in for low-speed compression: air holds the end up everywhere, and costs grip.',
    },
  ],
  'lsc-closed': [{ roles: lowComp, direction: 1 }],
  'hsc-open': [
    { roles: highComp, direction: -1 },
    { roles: ['spacers'], direction: 1, sideEffect: 'It only acts at the end of the stroke.' },
  ],
  'hsc-closed': [
    { roles: highComp, direction: 1 },
    { roles: lowComp, direction: 1, sideEffect: 'It also lets the end dive and wallow sooner.' },
  ],
  'rebound-fast': [
    { roles: rebound, direction: -1 },
    { roles: ['high-speed-rebound'], direction: -1 },
  ],
  'rebound-slow': [
    { roles: rebound, direction: 1 },
    { roles: ['high-speed-rebound'], direction: 1 },
  ],
  'nose-low': [
    { roles: ['main-pressure', 'spring-rate'], direction: 1, end: 'front' },
    { roles: ['main-pressure', 'spring-rate'], direction: -1, end: 'rear' },
  ],
  'nose-high': [
    { roles: ['main-pressure', 'spring-rate'], direction: -1, end: 'front' },
    { roles: ['main-pressure', 'spring-rate'], direction: 1, end: 'rear' },
  ],
  heat: [
    { roles: rebound, direction: -1, end: 'rear' },
    { roles: rebound, direction: -1, end: 'front' },
  ],
  cold: [
    { roles: rebound, direction: 1, end: 'rear' },
    { roles: rebound, direction: 1, end: 'front' },
  ],
}

/** A cause as a direction on a dial; a stand-in acts on something else too. */
export interface Answer {
  end: End
  adjuster: Adjuster
  direction: 1 | -1
  standIn: boolean
}

/** What would answer a cause among the fitted parts, whatever their positions: the right part, else its substitute. */
export function answersOf(kind: CauseKind, end: End | null, space: SetupSpace): Answer[] {
  const out: Answer[] = []
  for (const r of remedies[kind] ?? []) {
    const at = r.end ?? end
    const adjuster =
      at &&
      r.roles.map((role) => space[at]?.adjusters.find((a) => a.role === role)).find((a) => a !== undefined)
    if (!at || !adjuster) continue
    out.push({ end: at, adjuster, direction: r.direction, standIn: r.sideEffect !== undefined })
    // Whole-bike causes have an answer at either end; at one end the first that is fitted is the one.
    if (!r.end) break
  }
  return out
}

/** The parts that are meant for it; where none is fitted, what stands in for them. */
export function ownOrStandIn(answers: readonly Answer[]): readonly Answer[] {
  const own = answers.filter((a) => !a.standIn)
  return own.length > 0 ? own : answers
}

/** Whether a step turns what one of these answers asks for, that way. */
export const isOneOf = (answers: readonly Answer[], dials: readonly Dial[]) => (s: Step) =>
  answers.some((a) => a.adjuster.id === dials[s.dial].adjuster.id && a.direction === Math.sign(s.to - s.from))

export interface RemedyMove {
  end: End
  adjuster: Adjuster
  from: number
  to: number
  sideEffect: string | null
  /** Canonical direction; two moves on one adjuster with other signs are opposite. */
  direction: 1 | -1
}

/**
 * Moves that answer a cause with what the units have, best first; nothing outside a range, nothing that is missing.
 * @param positions canonical position per adjuster id
 */
export function remedyMoves(
  kind: CauseKind,
  end: End | null,
  space: SetupSpace,
  positions: ReadonlyMap<string, number>,
): RemedyMove[] {
  const out: RemedyMove[] = []
  for (const r of remedies[kind] ?? []) {
    const at = r.end ?? end
    const unit = at && space[at]
    if (!at || !unit) continue
    for (const role of r.roles) {
      const adjuster = unit.adjusters.find((a) => a.role === role)
      const from = adjuster && positions.get(adjuster.id)
      if (!adjuster || from === undefined) continue
      const to = oneStep(adjuster, from, r.direction)
      if (to !== null)
        out.push({ end: at, adjuster, from, to, sideEffect: r.sideEffect ?? null, direction: r.direction })
      break
    }
  }
  return out
}

/** Share of the present pressure that a rider can feel and a gauge can show. */
const pressureShare = 0.04
const leastPsi = 2

/** One sensible step: a click, a part of a turn, about 4 % of pressure in whole steps, a spacer, the next spring. null at the end of the range. */
export function oneStep(a: Adjuster, from: number, direction: 1 | -1): number | null {
  const r = adjusterRange(a)
  let to: number
  if (r.allowed) {
    const i = r.allowed.findIndex((x) => Math.abs(x - from) < 1e-6)
    const next = r.allowed[i + direction]
    if (i < 0 || next === undefined) return null
    to = next
  } else if (a.kind === 'pressure') {
    const step = Math.max(leastPsi, Math.round((from * pressureShare) / a.stepPsi) * a.stepPsi)
    to = clampToRange(a, from + direction * step)
    if (Math.abs(to - from) < leastPsi) return null
  } else if (a.kind === 'turn') {
    to = clampToRange(a, from + direction * Math.max(a.stepTurns, Math.min(1, a.turns / 8)))
  } else {
    to = clampToRange(a, from + direction * Math.max(1, r.step))
  }
  return canStandAt(a, to) && Math.abs(to - from) > 1e-6 ? to : null
}
