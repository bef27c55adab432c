import type { Proposal } from '#contract/proposal'
import { isComplaint, wordRules } from '../causes/words.ts'
import { noticeable } from '../stats/verdict.ts'
import { plain, reason } from './cards.ts'
import type { DayHistory } from './dayHistory.ts'
import { countedRuns, setupOf, settingsKey } from './history.ts'

/**
 * Whether a settled setup has stopped being good: its last two runs carry the same complaint at the same end, and both
 * were rated clearly below its runs before. One bad run is a bad run.
 */
export function evidenceReturned(h: DayHistory): Proposal | null {
  const settled = setupOf(h, h.settledSetupId ?? '')
  if (!settled) return null
  const key = settingsKey(settled)
  const runs = countedRuns(h).filter((r) => {
    const s = setupOf(h, r.run.setupId)
    return s && settingsKey(s) === key && typeof r.feel?.rating === 'number'
  })
  if (runs.length < 3) return null
  const [a, b] = runs.slice(-2)
  const before = runs.slice(0, -2).map((r) => r.feel!.rating!)
  const level = before.reduce((s, x) => s + x, 0) / before.length
  const shared = a.feel!.marks.find(
    (m) => isComplaint(m.word) && b.feel!.marks.some((x) => x.word === m.word && x.end === m.end),
  )
  if (!shared || [a, b].some((r) => r.feel!.rating! > level - 2 * noticeable)) return null
  return {
    ...plain(
      'check-first',
      'It was settled; now it no longer is',
      'First look at what is not a dial: tyre pressures, air pressure, the track, the temperature. If all is as it was, open the day again.',
      'A run that feels as it did when it was settled.',
    ),
    speaksFor: [
      reason(
        `“${wordRules[shared.word].label}” on runs ${a.number} and ${b.number}, rated ${a.feel!.rating} and ${b.feel!.rating}; before, ${level.toFixed(1)}`,
        b.run.id,
      ),
    ],
  }
}
