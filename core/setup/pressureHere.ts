import type { Known } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { unitAir } from '../spring/unitSpring.ts'
import { gaugeElsewherePsi, sameSagElsewherePsi, weatherOfBoth, type NotedAir } from '../spring/weather.ts'

export interface PressureHere {
  /** What a gauge would show here on the air that was set there. */
  readsPsi: number
  /** What to set here for the same sag. */
  sameSagPsi: number
}

/** A difference smaller than this is not worth a word, psi. */
const worthSayingPsi = 0.8

/**
 * What a pressure that was set or read in other air means in the weather of the day; null where nobody has noted the air
 * of both, where it is not known first hand, or where it makes no difference.
 */
export function pressureHere(
  psi: number,
  known: Pick<Known, 'how' | 'airTempC' | 'altitudeM'>,
  day: NotedAir,
  unit: SuspensionUnit,
  spacers: number,
): PressureHere | null {
  const weather = known.how === 'assumed' ? null : weatherOfBoth(known, day)
  if (!weather) return null
  const { from, to } = weather
  const readsPsi = gaugeElsewherePsi(psi, from, to)
  const sameSagPsi = sameSagElsewherePsi(psi, unit.sagTargetPct, unitAir(unit).shape, spacers, from, to)
  return Math.abs(readsPsi - sameSagPsi) < worthSayingPsi ? null : { readsPsi, sameSagPsi }
}
