import type { End } from '#contract/common'
import type { FeelWord } from '#contract/run'
import { markCauses } from '../../causes/marks.ts'
import { isComplaint } from '../../causes/words.ts'
import { adjusterRange, clampToRange } from '../../adjusters/range.ts'
import type { Dial } from '../../adviser/dials.ts'
import { answersOf } from '../../adviser/remedies.ts'
import type { PracticeAct } from '../day.ts'
import type { HiddenRider } from '../hiddenRider.ts'
import type { Positions } from '../landscape.ts'
import type { Player } from './play.ts'

/** Clicks of a step, and what counts as one for pressure, psi. */
const stepClicks = 2
const stepShare = 0.04
/** No complaint and at least this twice: enough. */
const contentFrom = 8

/**
 * Changes one thing at a time: what the words point to first, by the handbook's likeliest cause, then dial after dial.
 * Two clicks; what is rated higher is kept and gone on with, the rest is put back. Asks nothing, reads nothing, rides
 * every setup once. That is how a careful person tests who has only a notebook.
 */
export function disciplinedTester(rider: HiddenRider): Player {
  const ratings = new Map<string, number[]>()
  let base: Positions = { ...rider.written }
  let spent = new Set<string>()
  let heard = 0
  let quiet = 0
  let trial: { dial: Dial; direction: 1 | -1; on: Positions } | null = null
  const key = (p: Positions) => JSON.stringify(Object.entries(p).sort())
  const mean = (p: Positions) => {
    const all = ratings.get(key(p)) ?? []
    return all.reduce((s, x) => s + x, 0) / all.length
  }
  const turned = (from: Positions, to: Positions, source: 'own-idea' | 'revert'): PracticeAct => ({
    do: 'turn',
    to: Object.fromEntries(Object.entries(to).filter(([id, v]) => from[id] !== v)),
    linked: false,
    text: '',
    source,
  })
  return {
    act: ({ bundle, written: positions, runs, since }) => {
      if (runs.length === heard) {
        // A trial was put back: the next one follows at once, from the base.
        return since.some((a) => a.do === 'turn' && a.source === 'own-idea')
          ? 'ride'
          : next(bundle, positions)
      }
      heard = runs.length
      const feel = bundle.feels[bundle.feels.length - 1]
      const rating = feel.rating ?? 0
      ratings.set(key(positions), [...(ratings.get(key(positions)) ?? []), rating])
      quiet = rating >= contentFrom && !feel.marks.some((m) => isComplaint(m.word)) ? quiet + 1 : 0
      if (trial && mean(trial.on) > mean(base)) {
        base = trial.on
        spent = new Set([`${trial.dial.adjuster.id} ${-trial.direction}`])
        trial = null
      } else if (trial) {
        spent.add(`${trial.dial.adjuster.id} ${trial.direction}`)
        trial = null
        quiet = 0
        return turned(positions, base, 'revert')
      }
      if (quiet >= 2) return { do: 'settle' }
      if (quiet === 1) return 'ride'
      return next(bundle, positions)
    },
  }

  function next(bundle: { feels: { marks: Mark[] }[] }, positions: Positions): PracticeAct | 'ride' {
    for (const { dial, direction } of wishes(bundle.feels[bundle.feels.length - 1].marks)) {
      if (spent.has(`${dial.adjuster.id} ${direction}`)) continue
      const on = stepped(dial, direction)
      if (!on) continue
      trial = { dial, direction, on }
      return turned(positions, on, 'own-idea')
    }
    return { do: 'settle' }
  }
  function* wishes(marks: readonly Mark[]): Generator<{ dial: Dial; direction: 1 | -1 }> {
    for (const m of marks) {
      if (m.end === 'both' || !isComplaint(m.word)) continue
      for (const c of markCauses(m.word, m.end, null)) {
        const [a] = answersOf(c.kind, c.end, rider.space)
        const dial = a && rider.dials.find((d) => d.adjuster.id === a.adjuster.id)
        if (dial) yield { dial, direction: a.direction }
      }
    }
    for (const dial of rider.dials)
      yield* [
        { dial, direction: 1 as const },
        { dial, direction: -1 as const },
      ]
  }
  function stepped(dial: Dial, direction: 1 | -1): Positions | null {
    const a = dial.adjuster
    const from = base[a.id]
    const { step } = adjusterRange(a)
    const by =
      a.kind === 'pressure' ? Math.round(from * stepShare) : a.kind === 'spacer' ? 1 : stepClicks * step
    const to = clampToRange(a, from + direction * by)
    return to === from ? null : { ...base, [a.id]: to }
  }
}
type Mark = { word: FeelWord; end: End | 'both' }
