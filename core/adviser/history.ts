import type { Bike } from '#contract/bike'
import type { End } from '#contract/common'
import type { DayBundle } from '#contract/endpoints'
import type { Analysis } from '#contract/recording'
import type { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { logOf } from '../conditions/log.ts'
import { comparable } from './comparable.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import type { Memory } from './memory/remembered.ts'
import type { UnitChoice } from '../units/choice.ts'
import { axlePct, leverageOf } from '../linkage/leverage.ts'
import { canStandAt } from '../adjusters/range.ts'
import { withLaterReadings } from '../setup/known.ts'
import { fitSession, type RatedRun, type SaidDifference, type Session } from '../stats/session.ts'

/**
 * The setup a day speaks of. On the last day of a bike: what is on the bike now, wherever it was set. On a past day: what
 * was on it at the end of that day as logged.
 */
export function currentSetupId(bundle: Pick<DayBundle, 'day' | 'setups' | 'bike' | 'latest'>): string {
  const { currentSetupId: present } = bundle.bike
  if (bundle.latest && present !== null && bundle.setups.some((s) => s.id === present)) return present
  const ofDay = bundle.setups.filter((s) => s.dayId === bundle.day.id)
  return ofDay.length > 0 ? ofDay[ofDay.length - 1].id : bundle.day.startSetupId
}

/** @param memory what earlier days taught; null: judged on its own */
export function historyOf(b: DayBundle, memory: Memory | null = null): DayHistory {
  return {
    dayId: b.day.id,
    sections: b.trail.sections,
    ...logOf(b),
    runs: b.runs.map((run, i) => ({
      run,
      number: i + 1,
      feel: b.feels.find((f) => f.runId === run.id) ?? null,
      analysis: b.recordings.find((r) => r.runId === run.id)?.analysis ?? null,
    })),
    setups: withLaterReadings(b.setups),
    currentSetupId: currentSetupId(b),
    startSetupId: b.day.startSetupId,
    changeLimit: b.day.changeLimit,
    settledSetupId: b.day.settledSetupId,
    purpose: b.day.purpose,
    ownCharts: b.ownCharts,
    memory,
    bikeTyresPsi: { front: b.bike.tyres.front.pressurePsi, rear: b.bike.tyres.rear.pressurePsi },
  }
}

export function spaceOf(
  units: readonly SuspensionUnit[],
  bike?: Pick<Bike, 'leverageCurve' | 'leverageStart' | 'leverageEnd'>,
  choice?: UnitChoice,
): SetupSpace {
  const at = (end: End) => units.find((u) => u.end === end) ?? null
  const rear = at('rear')
  return {
    front: at('front'),
    rear,
    leverage: bike && rear ? leverageOf(bike, rear.strokeMm) : null,
    ...(choice ? { units: choice } : {}),
  }
}

/** What could be turned on a day: the units of the setup that it speaks of, whatever was fitted since. */
export function spaceOfDay(b: DayBundle, choice?: UnitChoice): SetupSpace {
  const now = b.setups.find((s) => s.id === currentSetupId(b))
  const ids = now && [now.frontUnitId, now.rearUnitId]
  return spaceOf(ids ? b.units.filter((u) => ids.includes(u.id)) : b.units, b.bike, choice)
}

/**
 * Sag targets in the unit that a recording's ride height has: a sag target is % of the shock's stroke, ride height at
 * the axle % of wheel travel.
 */
export function rideHeightTargets(space: SetupSpace, rearAt: Analysis['rearAt']): Record<End, number | null> {
  const rear = space.rear?.sagTargetPct ?? null
  const l = space.leverage
  return {
    front: space.front?.sagTargetPct ?? null,
    rear: rear !== null && l && rearAt === 'axle' ? axlePct(rear, space.rear!.strokeMm, l) : rear,
  }
}

export function fittedUnits(space: SetupSpace): SuspensionUnit[] {
  return [space.front, space.rear].filter((u) => u !== null)
}

/** Runs with equal settings share this key, whichever setup record they were ridden on. */
export function settingsKey(s: Setup): string {
  return s.positions
    .map((p) => `${p.adjusterId}=${p.value.toFixed(3)}`)
    .sort()
    .join('|')
}

export function countedRuns(h: DayHistory): HistoryRun[] {
  return h.runs.filter((r) => r.run.kind === 'counted')
}

export function setupOf(h: DayHistory, id: string): Setup | undefined {
  return h.setups.find((s) => s.id === id)
}

/** Key of the settings a run was ridden on; null when its setup is not kept. */
export function keyOfRun(h: DayHistory, r: HistoryRun): string | null {
  const s = setupOf(h, r.run.setupId)
  return s ? settingsKey(s) : null
}

/** The day's ratings and verdicts as one statistical model. Warm-up and void runs never count. */
export function sessionOf(h: DayHistory): Session {
  const rated: RatedRun[] = []
  const said: SaidDifference[] = []
  const counted = countedRuns(h)
  for (const r of counted) {
    const setupKey = keyOfRun(h, r)
    if (!setupKey || !r.feel) continue
    if (r.feel.rating !== null)
      rated.push({
        runId: r.run.id,
        setupKey,
        index: r.number,
        rating: r.feel.rating,
        mind: r.run.mind,
        otherConditions: !comparable(h, r, counted[counted.length - 1]).equal,
      })
    for (const v of r.feel.verdicts) {
      const other = counted.find((x) => x.run.id === v.againstRunId)
      const otherKey = other && keyOfRun(h, other)
      if (other && otherKey)
        said.push({
          setupA: otherKey,
          setupB: setupKey,
          indexA: other.number,
          indexB: r.number,
          value: v.value,
        })
    }
  }
  return fitSession(rated, said)
}

/** Whether every position of a setup can still be set; a recount or a swapped unit can end that. */
export function stillPossible(s: Setup, space: SetupSpace): boolean {
  const adjusters = new Map(fittedUnits(space).flatMap((u) => u.adjusters.map((a) => [a.id, a] as const)))
  return s.positions.every((p) => {
    const a = adjusters.get(p.adjusterId)
    return a !== undefined && canStandAt(a, p.value)
  })
}
