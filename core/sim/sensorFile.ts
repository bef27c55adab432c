import type { SimBike } from './bike.ts'
import type { Ride } from './halfCar.ts'
import { accelerationReading, shaftMm, travelReading } from './sensors.ts'

/**
 * Writes what a travel logger would: one line per sample, travel of both ends, the bar's acceleration, wheel speed.
 * @returns delimited text, comma-separated, decimal points, time in ms
 */
export function travelFile(bike: SimBike, ride: Ride, random: () => number): string {
  const ends = (['front', 'rear'] as const).filter((e) => bike[e])
  const names = { front: 'front_mm', rear: 'rear_shaft_mm' }
  const tracks = ends.map((e) => shaftMm(bike, ride, e))
  const lines = [`time_ms,${ends.map((e) => names[e]).join(',')},bar_g,speed_km/h`]
  for (let i = 0; i < ride.speedMS.length; i++) {
    const t = ((1000 * i) / ride.sampleRateHz).toFixed(1)
    const travel = tracks.map((mm) => travelReading(mm[i], random).toFixed(2)).join(',')
    const bar = accelerationReading(ride.barG[i], random).toFixed(3)
    lines.push(`${t},${travel},${bar},${(ride.speedMS[i] * 3.6).toFixed(1)}`)
  }
  return lines.join('\n') + '\n'
}
