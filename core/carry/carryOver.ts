import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { AdvisedPosition, Position } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { adjusterRange, clampToRange } from '../adjusters/range.ts'
import { familyOf } from '../adjusters/words.ts'
import { clicksForTemperature } from '../damper/oil.ts'
import { usualRatioPerClick } from '../damper/clicks.ts'
import { InputError } from '../errors.ts'
import { canonicalUnits, say, sayDifference, type UnitChoice } from '../units/choice.ts'
import { netPressurePsi, pressureForLoadPsi } from '../spring/air.ts'
import { usualSprungBikeKg } from '../spring/load.ts'
import { assumed } from '../setup/known.ts'
import { isSameModel } from '../setup/sameModel.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { ambientPa } from '../spring/weather.ts'
import { groundRules } from './groundRules.ts'
import type { Shift, Situation } from './situation.ts'

export interface CarriedPosition {
  end: End
  adjuster: Adjuster
  from: number
  /** Where the part can stand, nearest to from + shifts. */
  to: number
  spread: number
  shifts: Shift[]
  /** Why it could not go all the way. */
  limit: string | null
}

const springMargin = 0.02
/** Two units of one kind want pressures this far apart, share. */
const otherUnitMargin = 0.12

/** What the springs carry, kg: the rider and the sprung part of a usual bike. */
const carriedKg = (s: Situation) => s.ridingMassKg + usualSprungBikeKg.plain

/**
 * A settled setup translated to another situation: springs by the still load (same sag), dampers by what the new
 * spring and mass ask for (same damping ratio), oil by temperature, and small documented rules for the ground. A start,
 * never a settled setup. Sources: docs/models.md, "Carry over".
 *
 * @param choice units in which the reasons speak
 * @throws InputError 'mass.missing', 'air.altitude', 'air.temperature'
 */
export function carryOver(
  setup: { positions: readonly AdvisedPosition[] },
  units: readonly SuspensionUnit[],
  from: Situation,
  to: Situation,
  choice: UnitChoice = canonicalUnits,
): CarriedPosition[] {
  for (const s of [from, to]) if (!(s.ridingMassKg > 0)) throw new InputError('mass.missing')
  const values = new Map(setup.positions.map((p) => [p.adjusterId, p.value]))
  return units.flatMap((u) =>
    u.adjusters.flatMap((adjuster): CarriedPosition[] => {
      const value = values.get(adjuster.id)
      if (value === undefined) return []
      const spacers = u.adjusters.find((a) => a.kind === 'spacer')
      const shifts = [
        ...springShifts(u, adjuster, value, (spacers && values.get(spacers.id)) ?? 0, from, to, choice),
        ...damperShifts(adjuster, from, to, choice),
        ...groundRules(u.end, adjuster, value, from, to),
      ].filter((s) => Math.abs(s.by) > 1e-9)
      const wanted = value + shifts.reduce((t, s) => t + s.by, 0)
      const r = adjusterRange(adjuster)
      const rounded =
        adjuster.kind === 'pressure' ? Math.round(wanted / adjuster.stepPsi) * adjuster.stepPsi : wanted
      const reached = shifts.length === 0 ? value : clampToRange(adjuster, rounded)
      const outside = wanted > r.max + 1e-9 || wanted < r.min - 1e-9
      return [
        {
          end: u.end,
          adjuster,
          from: value,
          to: reached,
          spread: Math.sqrt(shifts.reduce((t, s) => t + s.spread ** 2, 0)),
          shifts,
          limit: outside
            ? adjuster.kind === 'spring-rate'
              ? 'No listed spring comes near enough: another spring is needed.'
              : 'The part ends here; the rest needs another spring or another unit.'
            : null,
        },
      ]
    }),
  )
}

/**
 * The same, for a bike with other units: what has the same role at the same end takes the same share of its dial or the
 * same pressure, with a wide spread; what has no counterpart stays where it stands on that bike.
 *
 * @param fromUnits units the setup was found on; one of the same model takes its clicks as they are
 * @param standing positions on the other bike now
 */
export function ontoOtherUnits(
  carried: readonly CarriedPosition[],
  fromUnits: readonly SuspensionUnit[],
  units: readonly SuspensionUnit[],
  standing: readonly AdvisedPosition[],
): CarriedPosition[] {
  const values = new Map(standing.map((p) => [p.adjusterId, p.value]))
  const twins = new Map(units.map((u) => [u.id, fromUnits.find((x) => isSameModel(x, u)) ?? null]))
  return units.flatMap((u) =>
    u.adjusters.flatMap((adjuster): CarriedPosition[] => {
      const same = carried.find((c) => c.adjuster.id === adjuster.id)
      if (same) return [same]
      const twin = twins.get(u.id)
      const counterpart =
        twin && carried.find((c) => c.adjuster.id === twin.adjusters[u.adjusters.indexOf(adjuster)].id)
      // Two of one model: the same click is the same click.
      if (counterpart)
        return [{ ...counterpart, adjuster, from: values.get(adjuster.id) ?? counterpart.from }]
      const from = values.get(adjuster.id)
      // Nobody has read it on that bike: there is nothing to keep.
      if (from === undefined) return []
      const like = carried.find(
        (c) => c.end === u.end && c.adjuster.role === adjuster.role && c.adjuster.kind === adjuster.kind,
      )
      const keep: CarriedPosition = {
        end: u.end,
        adjuster,
        from,
        to: from,
        spread: 0,
        shifts: [],
        limit: null,
      }
      if (!like || adjuster.kind === 'lever' || adjuster.kind === 'custom') return [keep]
      const here = adjusterRange(adjuster)
      const there = adjusterRange(like.adjuster)
      const share = (like.to - there.min) / Math.max(1e-9, there.max - there.min)
      const byDial = adjuster.kind === 'click' || adjuster.kind === 'turn'
      const to = clampToRange(adjuster, byDial ? here.min + share * (here.max - here.min) : like.to)
      const spread = byDial ? (here.max - here.min) / 6 : Math.abs(to) * otherUnitMargin
      const why = byDial
        ? 'another unit: the same share of its dial; its own chart comes first'
        : 'another unit: the same number; its own chart and sag come first'
      return [{ ...keep, to, spread, shifts: [{ by: to - from, spread, why }] }]
    }),
  )
}

/** Positions of the carried setup, for a record with its own lineage. */
export function carriedPositions(carried: readonly CarriedPosition[]): Position[] {
  return carried.map((c) => ({
    end: c.end,
    adjusterId: c.adjuster.id,
    value: c.to,
    known: assumed('carried over'),
  }))
}

function springShifts(
  u: SuspensionUnit,
  a: Adjuster,
  value: number,
  spacers: number,
  from: Situation,
  to: Situation,
  choice: UnitChoice,
): Shift[] {
  const mass = carriedKg(to) / carriedKg(from)
  if (a.kind === 'spring-rate')
    return mass === 1
      ? []
      : [{ by: value * (mass - 1), spread: value * springMargin, why: loadWords(from, to) }]
  if (a.kind !== 'pressure' || a.role !== 'main-pressure') return []
  const { shape } = unitAir(u)
  const depth = u.sagTargetPct / 100
  const at = (altitudeM: number) => ({ spacers, ambientPa: ambientPa(altitudeM) })
  const load = netPressurePsi(depth, value, shape, at(from.altitudeM))
  const heavier = pressureForLoadPsi(load * mass, depth, shape, at(from.altitudeM))
  const there = pressureForLoadPsi(load * mass, depth, shape, at(to.altitudeM))
  return [
    {
      by: heavier - value,
      spread: Math.abs(heavier - value) * 0.15 + (mass === 1 ? 0 : 1),
      why: loadWords(from, to),
    },
    {
      by: there - heavier,
      spread: from.altitudeM === to.altitudeM ? 0 : 0.5,
      why: `${say('altitude', Math.round(Math.abs(to.altitudeM - from.altitudeM)), choice)} ${to.altitudeM > from.altitudeM ? 'higher' : 'lower'}: ${to.altitudeM > from.altitudeM ? 'thinner' : 'thicker'} air outside, same sag`,
    },
  ]
}

const loadWords = (from: Situation, to: Situation) =>
  `${to.ridingMassKg > from.ridingMassKg ? 'more' : 'less'} weight on the spring, same sag`

/**
 * Same sag makes stiffness grow with the mass, so √(k·m) grows with it: ln(m₂/m₁)/ln r clicks for the same damping
 * ratio. Heat thins the oil: clicks by viscosity (core/damper/oil.ts).
 */
function damperShifts(a: Adjuster, from: Situation, to: Situation, choice: UnitChoice): Shift[] {
  const family = familyOf(a)
  if ((a.kind !== 'click' && a.kind !== 'turn') || (family !== 'rebound' && family !== 'compression'))
    return []
  const range = a.kind === 'click' ? a.clicks : a.turns
  const ratio = a.kind === 'click' ? usualRatioPerClick.low : Math.pow(4, 1 / range)
  const closer = Math.log(carriedKg(to) / carriedKg(from)) / Math.log(ratio)
  const colder = clicksForTemperature(from.airTempC, to.airTempC, { ratioPerClick: ratio })
  const word = family === 'rebound' ? ['slower', 'faster'] : ['firmer', 'softer']
  return [
    {
      by: -closer,
      spread: Math.abs(closer) * 0.4,
      why: `the spring is ${closer > 0 ? 'stiffer' : 'softer'} and carries ${closer > 0 ? 'more' : 'less'}: ${closer > 0 ? word[0] : word[1]}`,
    },
    {
      by: -colder,
      spread: Math.abs(colder) * 0.5,
      why: `${sayDifference('temperature', Math.round(Math.abs(to.airTempC - from.airTempC)), choice)} ${to.airTempC > from.airTempC ? 'warmer, the oil is thinner' : 'colder, the oil is thicker'}: ${colder > 0 ? word[0] : word[1]}`,
    },
  ]
}
