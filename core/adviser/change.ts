import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Cause, Evidence, Outlook, Proposal } from '#contract/proposal'
import { adjusterName, distanceWords, effectWord, positionWords } from '../adjusters/words.ts'
import { causeLabel } from '../causes/kinds.ts'
import { normal80 } from '../stats/normal.ts'
import type { Candidate, Step } from './candidates.ts'
import { forAndAgainst, plain, reason } from './cards.ts'
import type { Dial } from './dials.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { countedRuns, setupOf } from './history.ts'
import { rememberedPlace } from './memory/words.ts'
import { remedyMoves, type RemedyMove } from './remedies.ts'
import { separatingTest, watchFor } from './watch.ts'

/** What the safety of a step asks for, at the place where it is turned. */
export function cautionFor(a: Adjuster): string {
  if (a.kind === 'pressure')
    return 'Shock pump only, and never above the maximum printed on the unit. Then check sag and rebound again.'
  if (a.kind === 'spacer')
    return 'Let all the air out slowly and cycle the unit before opening it. If unsure, leave it to a workshop.'
  if (a.kind === 'spring-rate') return 'Change the spring by the manual, or leave it to a workshop.'
  return a.role.includes('rebound')
    ? 'A wrong rebound setting can throw a rider: try it at low speed in a safe place first.'
    : 'Try it at low speed in a safe place first.'
}

/** "Rear rebound, 1 click faster" */
export function stepWords(end: End, a: Adjuster, from: number, to: number, space: SetupSpace): string {
  return `${end === 'front' ? 'Front' : 'Rear'} ${adjusterName(a).toLowerCase()}, ${distanceWords(a, from, to, space.units)} ${effectWord(a, from, to)}`
}

/** A cause whose right part it is tells why a step is made, from this share of the likelier one that it stands in for. */
const rightShare = 0.5

/** The cause that a step answers best, with the substitute's side effect where it only stands in. */
export function causeOfStep(
  step: Step,
  dial: Dial,
  causes: readonly Cause[],
  space: SetupSpace,
  positions: ReadonlyMap<string, number>,
): { cause: Cause; move: RemedyMove } | null {
  const found = causes.flatMap((cause) =>
    remedyMoves(cause.kind, cause.end, space, positions)
      .filter((m) => m.adjuster.id === dial.adjuster.id && Math.sign(step.to - step.from) === m.direction)
      .map((move) => ({ cause, move })),
  )
  const [first] = found
  // What it is the right part for is why it is turned, where that is nearly as likely as what it only stands in for.
  const right = found.find(
    (f) => !f.move.sideEffect && f.cause.probability >= rightShare * first.cause.probability,
  )
  return right ?? first ?? null
}

export function outlookOf(c: Candidate): Outlook {
  const half = normal80 * c.gainSd
  const round = (x: number) => Math.round(x * 100) / 100
  return { gain: round(c.gain), low80: round(c.gain - half), high80: round(c.gain + half), better: c.better }
}

/** The card of a change: what to turn, why, what to watch for, what would prove it wrong. */
export function changeCard(
  h: DayHistory,
  space: SetupSpace,
  dials: readonly Dial[],
  candidate: Candidate,
  causes: Cause[],
  positions: ReadonlyMap<string, number>,
): Proposal {
  const [first] = candidate.steps
  const dial = dials[first.dial]
  const found = candidate.steps
    .map((s) => causeOfStep(s, dials[s.dial], causes, space, positions))
    .find((x) => x !== null)
  const cause = found?.cause ?? null
  const sectionId = cause?.evidence.find((e) => e.weight > 0 && e.link.sectionId)?.link.sectionId
  const section = h.sections.find((s) => s.id === sectionId)?.name ?? null
  const { watch, changeOurMind } = cause
    ? watchFor(cause.kind, cause.end, section)
    : {
        watch: 'Same line, same speed. Is it better, worse, or the same as the run before? Say that too.',
        changeOurMind: 'If it is worse, the best place lies the other way; one such run is worth a lot.',
      }
  const sideEffect = found?.move.sideEffect
  return {
    ...plain(
      'change',
      candidate.steps
        .map((s, i) => {
          const words = stepWords(dials[s.dial].end, dials[s.dial].adjuster, s.from, s.to, space)
          return i === 0 ? words : `with ${words.charAt(0).toLowerCase()}${words.slice(1)}`
        })
        .join(', '),
      watch,
      changeOurMind,
    ),
    moves: candidate.steps.map((s) => ({
      end: dials[s.dial].end,
      adjusterId: dials[s.dial].adjuster.id,
      from: s.from,
      to: s.to,
    })),
    ...withMemory(h, dial, first, space, cause ? forAndAgainst(cause) : null),
    caution: [sideEffect, cautionFor(dial.adjuster)].filter(Boolean).join(' '),
    outlook: outlookOf(candidate),
    causes,
  }
}

/** Adds what earlier days say of the place that a step goes to. */
function withMemory(
  h: DayHistory,
  d: Dial,
  step: Step,
  space: SetupSpace,
  said: ReturnType<typeof forAndAgainst> | null,
): Partial<ReturnType<typeof forAndAgainst>> {
  const place = h.memory?.dials.find((x) => x.adjusterId === d.adjuster.id)?.place
  if (!place) return said ?? { speaksFor: [unknownPlace(h, d)] }
  const best = rememberedPlace(d, place)
  const line = reason(
    `Earlier days: ${d.end} ${adjusterName(d.adjuster).toLowerCase()} is best near ${positionWords(d.adjuster, best, space.units)}`,
  )
  const closer = Math.abs(step.to - best) < Math.abs(step.from - best)
  return closer
    ? { ...said, speaksFor: [...(said?.speaksFor ?? []), line] }
    : {
        speaksFor: said?.speaksFor ?? [unknownPlace(h, d)],
        speaksAgainst: [...(said?.speaksAgainst ?? []), line],
      }
}

/** What is known of a place that nothing speaks for: nothing, or in how many places the dial was ridden. */
function unknownPlace(h: DayHistory, d: Dial): Evidence {
  const ridden = new Set(
    countedRuns(h).flatMap((r) =>
      (setupOf(h, r.run.setupId)?.positions ?? [])
        .filter((p) => p.adjusterId === d.adjuster.id)
        .map((p) => p.value),
    ),
  ).size
  if (ridden > 1)
    return reason(
      `The ${d.end} ${adjusterName(d.adjuster).toLowerCase()} was ridden in ${ridden} places today; its best may lie beside them`,
    )
  return reason(
    `Little is known yet of the ${d.end} ${adjusterName(d.adjuster).toLowerCase()}: a step shows which way is better`,
  )
}

/** Two likely causes, opposite moves: the test first, and one click as a probe if it cannot be ridden. */
export function separatingCard(
  h: DayHistory,
  space: SetupSpace,
  dials: readonly Dial[],
  probe: Candidate,
  first: Cause,
  rival: Cause,
  causes: Cause[],
  positions: ReadonlyMap<string, number>,
): Proposal {
  const card = changeCard(h, space, dials, probe, causes, positions)
  return {
    ...card,
    kind: 'separating-test',
    // The two that it tells apart lead; another may be as likely as they are.
    causes: [first, rival, ...causes.filter((c) => c !== first && c !== rival)],
    headline: `Two causes, opposite ways: find out which`,
    speaksFor: forAndAgainst(first).speaksFor,
    speaksAgainst: forAndAgainst(rival).speaksFor,
    watchFor: separatingTest(first.kind, rival.kind, first.end),
    changeOurMind: `It is ${causeLabel(first.kind, first.end)} or ${causeLabel(rival.kind, rival.end)}. If the test cannot be ridden, one click is a fair probe: ${card.headline.toLowerCase()}.`,
  }
}
