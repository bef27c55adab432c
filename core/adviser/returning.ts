import type { Proposal } from '#contract/proposal'
import { isComplaint, wordRules } from '../causes/words.ts'
import { noticeable } from '../stats/verdict.ts'
import { plain, reason } from './cards.ts'
import type { DayHistory, HistoryRun } from './dayHistory.ts'
import { countedRuns, setupOf, settingsKey } from './history.ts'

const strong = 3
/** Said strongly, one run is enough where it was rated this much below the runs before, rating points. */
const clearFall = 2

/** Whether what is on the bike is what was settled. */
export function isOnSettled(h: DayHistory): boolean {
  const [settled, now] = [h.settledSetupId ?? '', h.currentSetupId].map((id) => setupOf(h, id))
  return !settled || !now || settingsKey(settled) === settingsKey(now)
}

/**
 * Whether a settled setup has stopped being good: its last two runs were both rated clearly below its runs before, with
 * whatever words; or the last one far below, with a strong complaint. One bad run is a bad run.
 */
export function evidenceReturned(h: DayHistory): Proposal | null {
  const settled = setupOf(h, h.settledSetupId ?? '')
  if (!settled) return null
  const key = settingsKey(settled)
  const runs = countedRuns(h).filter((r) => {
    const s = setupOf(h, r.run.setupId)
    return s && settingsKey(s) === key && typeof r.feel?.rating === 'number'
  })
  return fallen(runs, 2, 2 * noticeable) ?? (isStrong(runs.at(-1)) ? fallen(runs, 1, clearFall) : null)
}

const isStrong = (r: HistoryRun | undefined) =>
  r?.feel?.marks.some((m) => isComplaint(m.word) && m.strength === strong) ?? false

/** The card, where each of the last runs was rated so far below the mean of those before. */
function fallen(runs: readonly HistoryRun[], last: number, by: number): Proposal | null {
  const [before, now] = [runs.slice(0, -last), runs.slice(-last)]
  if (before.length === 0 || now.length < last) return null
  const level = before.reduce((s, r) => s + r.feel!.rating!, 0) / before.length
  if (now.some((r) => r.feel!.rating! > level - by)) return null
  const words = now.flatMap((r) => r.feel!.marks.filter((m) => isComplaint(m.word)))
  const said = [...new Set(words.map((m) => `“${wordRules[m.word].label}”`))]
  const on = `run${last > 1 ? 's' : ''} ${now.map((r) => r.number).join(' and ')}`
  return {
    ...plain(
      'check-first',
      'It was settled; now it no longer is',
      'First look at what is not a dial: tyre pressures, air pressure, the track, the temperature. If all is as it was, open the day again.',
      'A run that feels as it did when it was settled.',
    ),
    speaksFor: [
      reason(
        `${said.length > 0 ? `${said.join(', ')} on` : 'No word on'} ${on}, rated ${now.map((r) => r.feel!.rating).join(' and ')}; before, ${level.toFixed(1)}`,
        now[now.length - 1].run.id,
      ),
    ],
  }
}
