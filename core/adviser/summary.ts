import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { adjusterName } from '../adjusters/words.ts'
import { bracketOf, type Bracket } from './bracket.ts'
import { contradictions } from './contradictions.ts'
import { outlookOf, type Outlook } from './decide.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { countedRuns, fittedUnits, keyOfRun, sessionOf, settingsKey, setupOf } from './history.ts'
import { keepOf } from './keep.ts'
import { isOnSettled } from './returning.ts'
import { memoryWords } from './memory/words.ts'

export interface DayKnowledge {
  /** One per adjuster that was moved today. */
  brackets: { end: End; adjuster: Adjuster; bracket: Bracket }[]
  settled: boolean
  /** A plain sentence on what is known and what not. */
  words: string
  /** What does not fit together, in plain words. */
  notes: string[]
  noiseSd: number
  /** Runs on settings that had been ridden before; 0: the noise is a guess. */
  repeats: number
  /** Points per run that the day itself drifts by. */
  driftPerRun: number
  /** Earlier days that the judgement starts from, and what they taught; null: judged on its own. */
  remembered: { dates: string[]; words: string[] } | null
  /** Points the present settings are expected to lose against the best reachable ones; null before anything is rated. */
  expectedLoss: number | null
}

/** What the day has shown so far, adjuster by adjuster. */
export function summarise(
  h: DayHistory,
  space: SetupSpace,
  outlook: () => Outlook = () => outlookOf(h, space),
): DayKnowledge {
  const session = sessionOf(h)
  const base = {
    brackets: [] as DayKnowledge['brackets'],
    notes: contradictions(h, space),
    noiseSd: session.noiseSd,
    repeats: Math.max(0, session.repeats),
    driftPerRun: session.driftPerRun,
    remembered: h.memory && { dates: h.memory.days.map((d) => d.date), words: memoryWords(h.memory, space) },
    expectedLoss: null,
  }
  if (countedRuns(h).length === 0)
    return { ...base, settled: false, words: 'Nothing is known yet. The first counted run is the baseline.' }
  const s = outlook()
  const brackets = fittedUnits(space).flatMap((u) =>
    u.adjusters.flatMap((adjuster) => {
      const bracket = bracketOf(h, adjuster, session, s)
      return bracket ? [{ end: u.end, adjuster, bracket }] : []
    }),
  )
  const known = { ...base, brackets, expectedLoss: session.setups.length > 0 ? s.expectedLoss : null }
  if (h.settledSetupId !== null && isOnSettled(h))
    return { ...known, settled: true, words: 'Settled. Nothing is proposed until a complaint comes back.' }
  if (s.settled)
    return {
      ...known,
      settled: true,
      words: `Settled: with ${Math.round(100 * (1 - s.doubt))} % nothing reachable is better by what you would notice.`,
    }
  const open = brackets.filter((b) => b.bracket.lowOpen || b.bracket.highOpen)
  const name = (b: { end: End; adjuster: Adjuster }) => `${b.end} ${adjusterName(b.adjuster).toLowerCase()}`
  const sentences = [
    h.settledSetupId === null ? 'Not settled yet.' : 'Something was turned since it was settled.',
  ]
  if (brackets.length === 0) sentences.push('Nothing has been changed yet today.')
  if (open.length > 0) {
    const b = open[0]
    const sides = b.bracket.lowOpen && b.bracket.highOpen ? 'either way' : 'in one direction'
    sentences.push(`${capital(name(b))} was not tried ${sides} yet.`)
  }
  const unmoved =
    s.dials.length - brackets.filter((b) => s.dials.some((d) => d.adjuster.id === b.adjuster.id)).length
  if (brackets.length > 0 && open.length === 0 && unmoved > 0)
    sentences.push(`${unmoved} of ${s.dials.length} adjusters are known by words only.`)
  const kept = keepOf(h, s)
  const on = kept && [...countedRuns(h)].reverse().find((r) => keyOfRun(h, r) === settingsKey(kept))
  const now = setupOf(h, h.currentSetupId)
  if (on && kept && now && settingsKey(now) !== settingsKey(kept))
    sentences.push(`If the day ended now, the settings of run ${on.number} would be the ones to keep.`)
  if (base.repeats === 0) sentences.push('No setting has been ridden twice, so the noise is a guess.')
  return { ...known, settled: false, words: sentences.join(' ') }
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
