import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { forkAir, netPressurePsi, pressureForLoadPsi, shockAir, type AirSpringShape } from './air.ts'

/** Pressure for another sag under the same still load. */
function pressureForSagPsi(
  seen: { sagPct: number; pressurePsi: number },
  wanted: { sagPct: number; spacers?: number },
  shape: AirSpringShape,
): number {
  const load = netPressurePsi(seen.sagPct / 100, seen.pressurePsi, shape)
  return pressureForLoadPsi(load, wanted.sagPct / 100, shape, { spacers: wanted.spacers })
}

describe('air spring', () => {
  const seen = { sagPct: 20, pressurePsi: 120 }
  it('a default fork at 20 % and 120 psi needs 98.9 psi for 25 %', () => {
    expect(pressureForSagPsi(seen, { sagPct: 25 }, forkAir)).toBeCloseTo(98.9, 1)
  })
  it('at 125 psi that fork sags 19.1 %', () => {
    expect(pressureForSagPsi({ sagPct: 19.1, pressurePsi: 125 }, { sagPct: 20 }, forkAir)).toBeCloseTo(120, 0)
  })
  it('three spacers need 116.5 psi for the same sag', () => {
    expect(pressureForSagPsi(seen, { sagPct: 20, spacers: 3 }, forkAir)).toBeCloseTo(116.5, 1)
  })
  it('pushes back harder the deeper it goes and the more air it holds', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.97, noNaN: true }),
        fc.double({ min: 20, max: 300, noNaN: true }),
        fc.constantFrom(forkAir, shockAir),
        (u, psi, shape) => {
          const here = netPressurePsi(u, psi, shape)
          return (
            netPressurePsi(u + 0.02, psi, shape) > here &&
            netPressurePsi(Math.max(u, 0.1), psi + 5, shape) > netPressurePsi(Math.max(u, 0.1), psi, shape)
          )
        },
      ),
    )
  })
  it('refuses no air and a chamber full of spacers', () => {
    expect(() => netPressurePsi(0.2, 0, forkAir)).toThrow(/above 0 psi/)
    expect(() => netPressurePsi(0.2, 100, forkAir, { spacers: 14 })).toThrow(/at most 13 fit/)
  })
})
