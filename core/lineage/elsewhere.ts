import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { gaugeElsewherePsi, weatherOfBoth, type NotedAir } from '../spring/weather.ts'
import type { KnownPlace } from './facts.ts'

/** What a pressure shows in the air of another day. */
export interface PressureElsewhere {
  end: End
  fromPsi: number
  fromC: number
  showsPsi: number
  toC: number
}

/** A difference that a gauge cannot show is not worth a word, psi. */
const worthSayingPsi = 0.8

/** The air a place is known from: of the day it was ridden last, else what was noted. Null: nobody has noted it. */
export function airOf(p: KnownPlace): NotedAir {
  const ride = p.rides.find((r) => r.conditions.airTempC !== null)
  const noted = p.kept?.found ?? p.setup.foundIn
  return {
    airTempC: ride?.conditions.airTempC ?? noted?.airTempC ?? null,
    altitudeM: ride?.conditions.altitudeM ?? noted?.altitudeM ?? null,
  }
}

/**
 * Main pressures of the first place as a gauge would show them in the air of the second, on a chamber nobody opened: what
 * of a difference is only weather. Nothing where the air of either is not known.
 */
export function mainPressureElsewhere(
  first: KnownPlace,
  second: KnownPlace,
  units: readonly SuspensionUnit[],
): PressureElsewhere[] {
  const weather = weatherOfBoth(airOf(first), airOf(second))
  if (!weather) return []
  const { from: there, to: here } = weather
  return units.flatMap((u) =>
    u.adjusters.flatMap((a): PressureElsewhere[] => {
      if (a.kind !== 'pressure' || a.role !== 'main-pressure') return []
      const fromPsi = first.setup.positions.find((p) => p.adjusterId === a.id)?.value
      if (fromPsi === undefined) return []
      const showsPsi = gaugeElsewherePsi(fromPsi, there, here)
      return Math.abs(showsPsi - fromPsi) < worthSayingPsi
        ? []
        : [{ end: u.end, fromPsi, fromC: there.tempC, showsPsi, toC: here.tempC }]
    }),
  )
}
