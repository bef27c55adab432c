import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { adjusterName } from '../adjusters/words.ts'
import { countedRuns, fittedUnits, sessionOf, type DayHistory, type SetupSpace } from './history.ts'
import { bracketOf, type Bracket } from './bracket.ts'

export interface DayKnowledge {
  /** One per adjuster that was moved today. */
  brackets: { end: End; adjuster: Adjuster; bracket: Bracket }[]
  settled: boolean
  /** A plain sentence on what is known and what not. */
  words: string
  noiseSd: number
  /** Runs on settings that had been ridden before; 0: the noise is a guess. */
  repeats: number
}

/** What the day has shown so far, adjuster by adjuster. */
export function summarise(h: DayHistory, space: SetupSpace): DayKnowledge {
  const session = sessionOf(h)
  const brackets = fittedUnits(space).flatMap((u) =>
    u.adjusters.flatMap((adjuster) => {
      const bracket = bracketOf(h, adjuster, session)
      return bracket ? [{ end: u.end, adjuster, bracket }] : []
    }),
  )
  const base = { brackets, noiseSd: session.noiseSd, repeats: Math.max(0, session.repeats) }
  if (h.settledSetupId !== null)
    return {
      ...base,
      settled: true,
      words: 'Settled. No neighbour click was likely to be better by more than you would notice.',
    }
  if (countedRuns(h).length === 0)
    return { ...base, settled: false, words: 'Nothing is known yet. The first counted run is the baseline.' }
  const open = brackets.filter((b) => b.bracket.lowOpen || b.bracket.highOpen)
  const name = (b: { end: End; adjuster: Adjuster }) => `${b.end} ${adjusterName(b.adjuster).toLowerCase()}`
  const sentences: string[] = ['Not settled yet.']
  if (brackets.length === 0) sentences.push('Nothing has been changed yet today.')
  if (open.length > 0) {
    const b = open[0]
    const sides = b.bracket.lowOpen && b.bracket.highOpen ? 'both ways' : 'one way'
    sentences.push(`${capital(name(b))} is still open ${sides}.`)
  }
  if (base.repeats === 0) sentences.push('No setting has been ridden twice, so the noise is a guess.')
  return { ...base, settled: false, words: sentences.join(' ') }
}

const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1)
