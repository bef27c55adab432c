import type { Evidence } from '#contract/proposal'
import { pressureHere } from '../../setup/pressureHere.ts'
import { canonicalUnits, say } from '../../units/choice.ts'
import { reason } from '../cards.ts'
import { conditionsNow } from '../../conditions/at.ts'
import { fittedUnits } from '../history.ts'
import type { Climb } from './climb.ts'

/**
 * What the weather does to the air springs, said beside what it does to the oil: riders blame the spring, and a hot one has
 * gained pressure, not lost it. Only for a pressure that was set or read in air that somebody noted.
 * @returns one line an end
 */
export function airInWeather(c: Climb): Evidence[] {
  const air = conditionsNow(c.h)
  const units = c.space.units ?? canonicalUnits
  return fittedUnits(c.space).flatMap((unit) => {
    const main = unit.adjusters.find((a) => a.role === 'main-pressure')
    const held = main && c.now?.positions.find((p) => p.adjusterId === main.id)
    if (!held) return []
    const spacers = unit.adjusters.find((a) => a.role === 'spacers')
    const here = pressureHere(
      held.value,
      held.known,
      air,
      unit,
      (spacers && c.positions.get(spacers.id)) ?? 0,
    )
    const psi = (x: number) => say('pressure', x, units)
    return here
      ? [
          reason(
            `${unit.end === 'front' ? 'Front' : 'Rear'} air: ${psi(held.value)} reads about ${psi(here.readsPsi)} now; ${psi(here.sameSagPsi)} gives the sag it had. By the gauge, before it is called soft or hard`,
          ),
        ]
      : []
  })
}
