import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Position, Setup } from '#contract/setup'
import { stepsBetween } from '../setup/readBetween.ts'
import { gaugeElsewherePsi, weatherOfBoth } from '../spring/weather.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { fittedUnits, setupOf } from './history.ts'

/** A gauge showed less than had been set, beyond what cooler air takes. */
export interface LostAir {
  end: End
  adjuster: Extract<Adjuster, { kind: 'pressure' }>
  setPsi: number
  readPsi: number
  /** Ridden since it was set or read. */
  runs: number
  /** Ridden since this reading. */
  since: number
}

/** Nobody reads a gauge closer than this, and a hose takes some when it is put on: psi, and share of what was set. */
const leastPsi = 2
const leastShare = 0.015

/**
 * What readings on the way from one setup to a later one found missing, by adjuster id; the latest reading of a part has
 * the word, so that what was lost and is held since is not in it.
 */
export function lostAirBetween(
  h: DayHistory,
  space: SetupSpace,
  fromId: string,
  toId: string,
): ReadonlyMap<string, LostAir> {
  const out = new Map<string, LostAir>()
  const parts = new Map(
    fittedUnits(space).flatMap((u) => u.adjusters.map((adjuster) => [adjuster.id, { end: u.end, adjuster }])),
  )
  for (const [before, after] of stepsBetween(h.setups, fromId, toId)) {
    if (after.reason.source !== 'reading') continue
    for (const p of after.positions) {
      const part = parts.get(p.adjusterId)
      const was = before.positions.find((x) => x.adjusterId === p.adjusterId)
      if (part?.adjuster.kind !== 'pressure' || !was || was.known.at === p.known.at) continue
      if (isOtherGauge(was, p)) continue
      const expected = expectedPsi(was, p)
      if (expected - p.value < leastLoss(was.value)) out.delete(p.adjusterId)
      else
        out.set(p.adjusterId, {
          end: part.end,
          adjuster: part.adjuster,
          setPsi: was.value,
          readPsi: p.value,
          runs: runsOn(h, was),
          since: runsSince(h, after),
        })
    }
  }
  return out
}

/** Two gauges can disagree by ten psi: what one shows says nothing of what another had shown. */
const isOtherGauge = (was: Position, now: Position) =>
  was.known.gaugeId !== null && now.known.gaugeId !== null && was.known.gaugeId !== now.known.gaugeId

/** Less than this is no loss, psi. */
export const leastLoss = (setPsi: number) => Math.max(leastPsi, leastShare * setPsi)

/** What the gauge would show of the same air in the air of the reading, where both were noted. */
function expectedPsi({ value, known }: Position, { known: now }: Position): number {
  const weather = weatherOfBoth(known, now)
  return weather ? Math.min(value, gaugeElsewherePsi(value, weather.from, weather.to)) : value
}

/** Runs, judged or not, on what was on the bike from a setup on. */
function runsSince(h: DayHistory, from: Setup): number {
  const later = new Set(h.setups.slice(h.setups.indexOf(from)).map((s) => s.id))
  return h.runs.filter((r) => r.run.kind !== 'void' && later.has(r.run.setupId)).length
}

/** Runs, judged or not, on a pressure as it was known then. */
function runsOn(h: DayHistory, was: Position): number {
  const same = (s: Setup | undefined) =>
    s?.positions.some(
      (p) => p.adjusterId === was.adjusterId && p.value === was.value && p.known.at === was.known.at,
    )
  return h.runs.filter((r) => r.run.kind !== 'void' && same(setupOf(h, r.run.setupId))).length
}
