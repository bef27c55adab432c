import type { DayBundle } from '#contract/endpoints'
import { comparable } from '#core/adviser/comparable'
import { historyOf, sessionOf, settingsKey, setupOf } from '#core/adviser/history'
import { diffSetups, moveWords } from '#core/setup/diff'
import { asReadLater } from '#core/setup/readBetween'
import { canonicalUnits, type UnitChoice } from '#core/units/choice'
import { judge, type SetupVerdict } from '#core/stats/verdict'
import { factsOfBoth } from './runFacts.ts'

export interface RunComparison {
  verdict: SetupVerdict | null
  /** What was turned between the two. */
  changes: string[]
  /** Why they cannot be compared as if equal. */
  unlike: string[]
  /** What was noted of either run. */
  facts: { name: string; a: string; b: string }[]
  noiseSd: number
  repeats: number
}

/** Is run B's setup better than run A's? */
export function compareRuns(
  b: DayBundle,
  runA: string,
  runB: string,
  units: UnitChoice = canonicalUnits,
): RunComparison | null {
  const h = historyOf(b)
  const a = b.runs.find((r) => r.id === runA)
  const c = b.runs.find((r) => r.id === runB)
  const setupA = a && setupOf(h, a.setupId)
  const setupB = c && setupOf(h, c.setupId)
  if (!a || !c || !setupA || !setupB) return null
  const unlike: string[] = []
  for (const run of [a, c])
    if (run.kind !== 'counted')
      unlike.push(
        `Run ${b.runs.indexOf(run) + 1} ${run.kind === 'void' ? `does not count (${run.voidReason})` : 'is a warm-up and never counts'}.`,
      )
  const [ha, hb] = [a, c].map((r) => h.runs.find((x) => x.run.id === r.id)!)
  for (const d of comparable(h, ha, hb, units).differences) unlike.push(`From A to B: ${d}.`)
  for (const run of [a, c])
    if (run.mind !== 'normal')
      unlike.push(`Run ${b.runs.indexOf(run) + 1} was ridden ${run.mind.replace('-', ' ')}; it weighs less.`)
  const session = sessionOf(h)
  const keyA = settingsKey(setupA)
  const keyB = settingsKey(setupB)
  const bothRated = session.setups.includes(keyA) && session.setups.includes(keyB)
  return {
    verdict: keyA === keyB || !bothRated ? null : judge(session, keyA, keyB),
    // What was read meanwhile was not turned; either of the two may be the earlier.
    changes: diffSetups(
      asReadLater(h.setups, setupA, setupB.id),
      asReadLater(h.setups, setupB, setupA.id),
      b.units,
    ).map((m) => moveWords(m, units)),
    unlike,
    facts: factsOfBoth(b, a, c, units),
    noiseSd: session.noiseSd,
    repeats: Math.max(0, session.repeats),
  }
}
