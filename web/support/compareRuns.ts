import type { DayBundle } from '#contract/endpoints'
import type { Run } from '#contract/run'
import { historyOf, sessionOf, settingsKey, setupOf } from '#core/adviser/history'
import { diffSetups, moveWords } from '#core/setup/diff'
import { canonicalUnits, say, type UnitChoice } from '#core/units/choice'
import { judge, type SetupVerdict } from '#core/stats/verdict'

export interface RunComparison {
  verdict: SetupVerdict | null
  /** What was turned between the two. */
  changes: string[]
  /** Why they cannot be compared as if equal. */
  unlike: string[]
  noiseSd: number
  repeats: number
}

const tyreTolerancePsi = 1

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
        `Run ${b.runs.indexOf(run) + 1} is ${run.kind === 'void' ? `void (${run.voidReason})` : 'a warm-up'} and never counts.`,
      )
  if (setupA.frontUnitId !== setupB.frontUnitId || setupA.rearUnitId !== setupB.rearUnitId)
    unlike.push('A different unit was fitted.')
  for (const [key, end] of [
    ['tyreFrontPsi', 'front'],
    ['tyreRearPsi', 'rear'],
  ] as const) {
    const x = a[key]
    const y = c[key]
    if (x !== null && y !== null && Math.abs(x - y) > tyreTolerancePsi)
      unlike.push(
        `The ${end} tyre was at ${say('pressure', x, units)} in one and ${say('pressure', y, units)} in the other.`,
      )
  }
  const ground = (r: Run) => r.surface ?? b.day.conditions.surface
  if (ground(a) !== ground(c))
    unlike.push(`The ground was ${ground(a)} in one and ${ground(c)} in the other.`)
  for (const run of [a, c])
    if (run.mind !== 'normal')
      unlike.push(`Run ${b.runs.indexOf(run) + 1} was ridden ${run.mind.replace('-', ' ')}; it weighs less.`)
  const session = sessionOf(h)
  const keyA = settingsKey(setupA)
  const keyB = settingsKey(setupB)
  const bothRated = session.setups.includes(keyA) && session.setups.includes(keyB)
  return {
    verdict: keyA === keyB || !bothRated ? null : judge(session, keyA, keyB),
    changes: diffSetups(setupA, setupB, b.units).map((m) => moveWords(m, units)),
    unlike,
    noiseSd: session.noiseSd,
    repeats: Math.max(0, session.repeats),
  }
}
