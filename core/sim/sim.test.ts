import { describe, expect, it } from 'vitest'
import { forkAir } from '../spring/air.ts'
import { forcePerPsiForSag, rideRoad, type QuarterCar } from './quarterCar.ts'
import { normalFrom, seededRandom } from './random.ts'
import { buildRoad, type Road } from './road.ts'
import { sensorFile } from './sensorFile.ts'

function car(change: Partial<QuarterCar> = {}): QuarterCar {
  const base = { sprungKg: 38, unsprungKg: 3.5, travelM: 0.15, air: forkAir, spacers: 1, pressurePsi: 80 }
  return {
    ...base,
    newtonPerPsi: forcePerPsiForSag(base, 80, 20),
    compression: { closedNsPerM: 1400, ratioPerClick: 0.9, kneeMS: 0.3, highShare: 0.3 },
    compressionClicks: 8,
    rebound: { closedNsPerM: 3600, ratioPerClick: 0.87, kneeMS: 0.8, highShare: 0.45 },
    reboundClicks: 7,
    frictionN: 25,
    tyreNPerM: 90_000,
    tyreNsPerM: 150,
    brakeShare: 0,
    ...change,
  }
}
const flat: Road = {
  stepM: 0.02,
  heightM: new Float64Array(2000),
  speedMS: new Float64Array(2000).fill(6),
  brake: new Float64Array(2000),
  extraG: new Float64Array(2000),
  lengthM: 40,
}
const mean = (x: Float64Array) => x.reduce((s, v) => s + v, 0) / x.length

describe('the stand-in ride', () => {
  it('at rest on flat ground stands at its static sag', () => {
    const { depthPct } = rideRoad(car({ frictionN: 0 }), flat, 500)
    expect(Math.max(...depthPct.map((d) => Math.abs(d - 20)))).toBeLessThan(0.1)
  })
  it('is the same for the same seed and another for another', () => {
    const ride = (seed: number) =>
      rideRoad(car(), buildRoad([{ kind: 'roots', lengthM: 60 }], seededRandom(seed)), 200).depthPct
    expect(ride(3)).toEqual(ride(3))
    expect(ride(3)).not.toEqual(ride(4))
  })
  it('rides deeper through roots with slower rebound', () => {
    const depth = (reboundClicks: number) =>
      mean(
        rideRoad(car({ reboundClicks }), buildRoad([{ kind: 'roots', lengthM: 120 }], seededRandom(5)), 200)
          .depthPct,
      )
    expect(depth(2)).toBeGreaterThan(depth(6))
    expect(depth(6)).toBeGreaterThan(depth(11))
  })
  it('rides higher with more air', () => {
    const depth = (pressurePsi: number) =>
      mean(
        rideRoad(car({ pressurePsi }), buildRoad([{ kind: 'berms', lengthM: 120 }], seededRandom(5)), 200)
          .depthPct,
      )
    expect(depth(90)).toBeLessThan(depth(80))
  })
})

describe('chance', () => {
  it('has the mean and spread of a standard normal', () => {
    const r = seededRandom(11)
    const x = Float64Array.from({ length: 20000 }, () => normalFrom(r))
    expect(Math.abs(mean(x))).toBeLessThan(0.03)
    expect(mean(x.map((v) => v * v))).toBeCloseTo(1, 1)
  })
})

describe('the sensor file', () => {
  it('has a header and a line per sample, without a rear column on a hardtail', () => {
    const track = {
      sampleRateHz: 200,
      frontMm: Float64Array.of(10, 20),
      rearMm: null,
      speedMS: Float64Array.of(5, 5),
    }
    const lines = sensorFile(track, seededRandom(1)).trim().split('\n')
    expect(lines[0]).toBe('time_ms,front_mm,speed_km/h')
    expect(lines).toHaveLength(3)
    expect(Number(lines[2].split(',')[1])).toBeCloseTo(20, 0)
  })
})
