import { trackFor } from '#core/sim/ride'
import { rideTrack } from '#core/sim/halfCar'
import { sectionOf, testBike } from '#core/test/simulated'
import { medianMs, type Row } from './measure.ts'

/** A minute of trail through the half-car, at the rate that loggers record. */
export function ridingRows(): Row[] {
  const kinds = ['roots', 'braking-bumps', 'jump', 'berms', 'square-edges', 'flat-out'] as const
  const sections = kinds.map((k) => sectionOf(k, 78))
  const { car } = testBike()
  const track = trackFor(sections, 3, 4)
  const seconds = rideTrack(car, track, 500).front.length / 500
  const ms = medianMs(() => rideTrack(car, track, 500))
  return [
    {
      work: `simulate ${Math.round(seconds)} s of trail at 2 kHz`,
      figure: ms,
      unit: 'ms',
      against: 'Runge–Kutta of fourth order, both ends',
    },
    { work: 'simulating, times real time', figure: (1000 * seconds) / ms, unit: '×', against: 'bar ≥ 250 ×' },
    {
      work: 'build its ground',
      figure: medianMs(() => trackFor(sections, 3, 4)),
      unit: 'ms',
      against: 'once per run',
    },
  ]
}
