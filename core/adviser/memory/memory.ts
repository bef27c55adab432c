import type { Conditions } from '#contract/conditions'
import type { FeelWord } from '#contract/run'
import type { SuspensionUnit } from '#contract/unit'
import { carryOver } from '../../carry/carryOver.ts'
import type { Situation } from '../../carry/situation.ts'
import { normal80, together, type Normal } from '../../stats/normal.ts'
import { dialsOf, type Dial } from '../dials.ts'
import type { SetupSpace } from '../dayHistory.ts'
import { fittedUnits } from '../history.ts'
import { usualHabit, type Habit } from '../surface/model.ts'
import type { Memory, RememberedDial } from './remembered.ts'
import type { Learnt, LearntDial } from './learnt.ts'

/** How much less is known of a best place because it was another day; click-equivalents, documented in docs/models.md. */
export const memoryRules = {
  /** However alike the days. */
  anotherDay: 1.5,
  anotherTrail: 0.8,
  /** One of the days has no temperature. */
  temperatureUnknown: 0.7,
  /** Of one of the days nobody has said what the ground was. */
  groundUnknown: 0.5,
  /** In so many days memory of a place fades by another click. */
  fadeDays: 90,
  /** No memory is surer than this. */
  leastSd: 2,
  /** Widths and scatter change less from day to day; spread of their logarithm. */
  logSd: 0.25,
  driftSd: 0.06,
}

/** A day, as it differs from others. */
export interface Today {
  /** YYYY-MM-DD. */
  date: string
  trailId: string
  conditions: Conditions
  space: SetupSpace
}

/** Carried over between the days of one rider: the weight is taken as the same. */
const sameRiderKg = 80

/**
 * What earlier days taught, as it holds today: places moved by temperature, height and ground through the models of
 * carry-over, and widened by what differs. Dials of other units, and of units re-valved since, are left out.
 *
 * @param learnt what each earlier day taught by itself
 */
export function memoryFor(today: Today, learnt: readonly Learnt[]): Memory | null {
  if (learnt.length === 0) return null
  const dials = dialsOf(today.space).map((d): RememberedDial => {
    const known = learnt.flatMap((day) => {
      const x = day.dials.find((l) => l.adjusterId === d.adjuster.id)
      const unit = today.space[d.end]!
      const revalved = unit.revalvedOn !== null && unit.revalvedOn > day.date
      return x && !revalved ? [{ day, x }] : []
    })
    const places = known.flatMap(({ day, x }) => placeToday(d, x, day, today) ?? [])
    const widths = known.flatMap(({ x }) =>
      x.logSteepness ? [widened(x.logSteepness, memoryRules.logSd)] : [],
    )
    const place = allOf(places)
    return {
      adjusterId: d.adjuster.id,
      place: place && { mean: place.mean, sd: Math.max(memoryRules.leastSd, place.sd) },
      logSteepness: allOf(widths),
    }
  })
  return {
    days: learnt.map(({ dayId, date }) => ({ dayId, date })),
    dials,
    habit: habitOf(learnt),
    lapS: lapOf(learnt.filter((l) => l.trailId === today.trailId)),
    words: wordsOf(learnt),
  }
}

/** The best place of an earlier day in today's air and on today's ground. */
function placeToday(d: Dial, x: LearntDial, day: Learnt, today: Today): Normal | null {
  if (!x.place) return null
  const now = today.conditions
  const [was, is] = [situationOf(day.conditions, now), situationOf(now, day.conditions)]
  const [carried] = carryOver(
    {
      positions: [{ end: d.end, adjusterId: d.adjuster.id, value: x.place.value }],
    },
    fittedUnits(today.space).filter((u: SuspensionUnit) => u.adjusters.some((a) => a.id === d.adjuster.id)),
    was,
    is,
  )
  const by = carried?.shifts.reduce((t, s) => t + s.by, 0) ?? 0
  const mean = d.toClicks(x.place.value + by)
  const spread = Math.abs(d.toClicks(x.place.value + by + (carried?.spread ?? 0)) - mean) / normal80
  const apart = Math.abs(Date.parse(today.date) - Date.parse(day.date)) / 86_400_000
  const { anotherDay, anotherTrail, temperatureUnknown, groundUnknown, fadeDays } = memoryRules
  const wider = Math.hypot(
    anotherDay,
    spread,
    apart / fadeDays,
    day.trailId === today.trailId ? 0 : anotherTrail,
    day.conditions.airTempC === null || now.airTempC === null ? temperatureUnknown : 0,
    day.conditions.surface === null || now.surface === null ? groundUnknown : 0,
  )
  return widened({ mean, sd: x.place.sdClicks }, wider)
}

/** What is not known of one day is taken as on the other. */
function situationOf(a: Learnt['conditions'], other: Learnt['conditions']): Situation {
  return {
    ridingMassKg: sameRiderKg,
    airTempC: a.airTempC ?? other.airTempC ?? 15,
    altitudeM: a.altitudeM ?? other.altitudeM ?? 0,
    surface: a.surface,
    steepness: 'usual',
    pace: 'usual',
  }
}

function lapOf(learnt: readonly Learnt[]): number | null {
  const laps = learnt.flatMap((l) => l.lapS ?? [])
  return laps.length > 0 ? Math.min(...laps) : null
}

function habitOf(learnt: readonly Learnt[]): Habit {
  const usual = usualHabit()
  const noise = allOf([
    { mean: Math.log(usual.noiseSd), sd: usual.noiseLogSd },
    ...learnt.flatMap((l) => (l.logNoise ? [widened(l.logNoise, memoryRules.logSd)] : [])),
  ])!
  const drift = allOf([usual.drift, ...learnt.map((l) => widened(l.drift, memoryRules.driftSd))])!
  return {
    noiseSd: Math.exp(noise.mean),
    noiseLogSd: noise.sd,
    // The day of a rider who usually gains may still be a tired one.
    drift: { mean: drift.mean, sd: Math.max(memoryRules.driftSd, drift.sd) },
  }
}

function wordsOf(learnt: readonly Learnt[]): Memory['words'] {
  const all = new Map<FeelWord, { word: FeelWord; times: number; right: number }>()
  for (const { word, times, right } of learnt.flatMap((l) => l.words)) {
    const before = all.get(word) ?? { word, times: 0, right: 0 }
    all.set(word, { word, times: before.times + times, right: before.right + right })
  }
  return [...all.values()]
}

const widened = (x: Normal, by: number): Normal => ({ mean: x.mean, sd: Math.hypot(x.sd, by) })
const allOf = (list: readonly Normal[]): Normal | null =>
  list.length === 0 ? null : list.reduce((a, b) => together(a, b))
