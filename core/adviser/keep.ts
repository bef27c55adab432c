import type { Setup } from '#contract/setup'
import { clicksOf } from './clues.ts'
import type { Outlook } from './decide.ts'
import type { DayHistory } from './dayHistory.ts'
import { countedRuns, setupOf, settingsKey } from './history.ts'

/**
 * What to keep if the day ended now: of all that was ridden, the setup that is expected to lose least against the best
 * reachable one. A trial that is on the bike is only that until it was ridden.
 */
export function keepOf(h: DayHistory, s: Outlook): Setup | null {
  let best: { setup: Setup; loss: number } | null = null
  const seen = new Set<string>()
  for (const r of countedRuns(h)) {
    const setup = setupOf(h, r.run.setupId)
    if (!setup || seen.has(settingsKey(setup))) continue
    seen.add(settingsKey(setup))
    const losses = s.surface.lossAt(clicksOf(h, setup.id, s.dials, null))
    const loss = losses.reduce((t, x) => t + x, 0) / s.surface.samples
    if (!best || loss < best.loss) best = { setup, loss }
  }
  return best?.setup ?? null
}
