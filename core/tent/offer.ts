import type { Adjuster } from '#contract/adjuster'
import type { DayBundle } from '#contract/endpoints'
import type { FeelWord, Mark } from '#contract/run'
import { adjusterRange, canStandAt, clampToRange } from '../adjusters/range.ts'
import { isComplaint } from '../causes/words.ts'
import type { Move } from '../setup/diff.ts'
import { laneOf } from './lane.ts'
import { runBefore } from '../setup/runBefore.ts'

type Said = Pick<Mark, 'word' | 'end'>

/** A change after which a rider said better, and what was complained of before and not after. */
export interface Worked {
  dayId: string
  atMs: number
  gone: Said[]
  moves: Move[]
}

/** What worked for another rider, on this rider’s bike. */
export interface Offer {
  /** Whose day it worked on. */
  fromDayId: string
  word: FeelWord
  end: Mark['end']
  moves: Move[]
}

const complaintsOf = (b: DayBundle, runId: string): Mark[] =>
  b.feels.find((f) => f.runId === runId)?.marks.filter((m) => isComplaint(m.word)) ?? []
const isSame = (a: Said, b: Said) =>
  a.word === b.word && (a.end === b.end || a.end === 'both' || b.end === 'both')

/**
 * What worked on a day: a rider compared the run after a change with the one before it and said better, and a complaint of
 * the run before was not said again. A rating alone is no comparison; two changes between the runs tell nothing of either.
 */
export function workedOn(b: DayBundle): Worked[] {
  const { changes } = laneOf(b)
  return b.runs.flatMap((run): Worked[] => {
    const before = run.kind === 'counted' ? runBefore(b.runs, run.id) : null
    if (!before) return []
    const verdict = b.feels
      .find((f) => f.runId === run.id)
      ?.verdicts.find((v) => v.againstRunId === before.id)?.value
    if (verdict === undefined || verdict <= 0) return []
    const between = changes.filter(
      (c) => c.atMs > Date.parse(before.startedAt) && c.atMs <= Date.parse(run.startedAt),
    )
    if (between.length !== 1 || between[0].back) return []
    const after = complaintsOf(b, run.id)
    const gone = complaintsOf(b, before.id).filter((m) => !after.some((x) => isSame(x, m)))
    if (gone.length === 0) return []
    return [
      {
        dayId: b.day.id,
        atMs: between[0].atMs,
        gone: gone.map(({ word, end }) => ({ word, end })),
        moves: between[0].moves,
      },
    ]
  })
}

/**
 * A move on another bike that does the same: a dial by the same share of its whole way, which is the same ratio of damping
 * whatever the mass, since it was right for that rider before; a spring by the same share of its load. Source:
 * docs/models.md, "What worked for another rider".
 *
 * @returns null where that bike has no such part, nobody knows where it stands, or it ends first
 */
export function translatedMove(m: Move, b: DayBundle): Move | null {
  const units = b.units.filter((u) => u.end === m.end)
  const now = b.setups.findLast((s) => s.dayId === b.day.id && !s.wanted)
  const start = b.setups.find((s) => s.id === b.day.startSetupId)
  const stands = new Map((now ?? start)?.positions.map((p) => [p.adjusterId, p.value]))
  const isSpring = (a: Adjuster) => a.role === 'main-pressure' || a.role === 'spring-rate'
  const fits = (a: Adjuster) => (isSpring(m.adjuster) ? isSpring(a) : a.role === m.adjuster.role)
  const adjuster = units
    .flatMap((u) => u.adjusters)
    .find((a) => fits(a) && (isSpring(a) || a.kind === 'click' || a.kind === 'turn'))
  const from = adjuster && stands.get(adjuster.id)
  if (!adjuster || from === undefined) return null
  const way = Math.sign(m.to - m.from)
  if (isSpring(adjuster)) {
    const wanted = from * (m.to / m.from)
    const to =
      adjuster.kind === 'pressure'
        ? Math.round(wanted / adjuster.stepPsi) * adjuster.stepPsi
        : clampToRange(adjuster, wanted)
    return canStandAt(adjuster, to) && Math.sign(to - from) === way
      ? { end: m.end, adjuster, from, to }
      : null
  }
  if (m.adjuster.kind !== 'click' && m.adjuster.kind !== 'turn') return null
  const size = (a: Adjuster) => adjusterRange(a).max - adjusterRange(a).min
  const step = adjusterRange(adjuster).step
  const share = (m.to - m.from) / size(m.adjuster)
  const steps = Math.max(1, Math.round((Math.abs(share) * size(adjuster)) / step))
  const to = from + way * steps * step
  return canStandAt(adjuster, to) ? { end: m.end, adjuster, from, to } : null
}

/**
 * What worked for another rider of the tent who said what this one says now; the newest first. Nothing where this bike was
 * turned since its last run, where the day is settled, or where a part of it cannot be done here.
 */
export function offerFor(b: DayBundle, worked: readonly Worked[]): Offer | null {
  if (b.day.settledSetupId !== null) return null
  const last = b.runs.findLast((r) => r.kind === 'counted')
  if (!last) return null
  if (laneOf(b).changes.some((c) => c.atMs > Date.parse(last.startedAt))) return null
  const says = complaintsOf(b, last.id)
  for (const w of [...worked].sort((x, y) => y.atMs - x.atMs)) {
    if (w.dayId === b.day.id) continue
    const shared = w.gone.find((g) => says.some((s) => isSame(s, g)))
    if (!shared) continue
    const moves = w.moves.map((m) => translatedMove(m, b))
    if (moves.includes(null)) continue
    return { fromDayId: w.dayId, word: shared.word, end: shared.end, moves: moves as Move[] }
  }
  return null
}
