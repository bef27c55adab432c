import { describe, expect, it } from 'vitest'
import { pressureReading, chamberPsi, shaftMm } from '../sim/sensors.ts'
import { rideTrail } from '../sim/ride.ts'
import { seededRandom } from '../numeric/random.ts'
import { chamberShare } from '../spring/air.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { sectionOf, testBike } from '../test/simulated.ts'
import { travelFromPressure } from './pressure.ts'

const bike = testBike()
const sections = [
  ...['smooth', 'roots', 'drop', 'jump', 'berms', 'rollers', 'square-edges', 'jump', 'flat-out', 'drop'].map(
    (k) => sectionOf(k as 'roots', 150),
  ),
  sectionOf('jump', 150),
]
const ride = rideTrail(bike, sections, { ground: 5, run: 6 }, 200)
const seconds = ride.front.length / 200

/** What a sensor on the valve reads on that ride. */
function pressures(end: 'front' | 'rear', warmth: (tS: number) => number) {
  const setting = bike[end]!
  const random = seededRandom(3)
  const truth = shaftMm(bike, ride, end)
  const psi = truth.map((mm, i) => pressureReading(chamberPsi(setting, mm, warmth(i / 200)), random))
  const { shape } = unitAir(setting.unit)
  const calibration = {
    compressionRatio: 1 / (1 - chamberShare(shape, setting.spacers)),
    baselinePsi: setting.pressurePsi!,
  }
  return { psi, calibration, truth: truth.map((mm) => mm / setting.unit.strokeMm) }
}

function off(share: Float64Array, truth: Float64Array) {
  const d = share.map((u, i) => u - truth[i])
  const sorted = d.map(Math.abs).sort()
  return {
    bias: d.reduce((s, x) => s + x, 0) / d.length,
    rms: Math.sqrt(d.reduce((s, x) => s + x * x, 0) / d.length),
    p99: sorted[Math.floor(0.99 * sorted.length)],
  }
}

/** 15 °C from 15 °C on, most of it in the first two minutes. */
const warming = (tS: number) => 1 + (15 / 288) * (1 - Math.exp(-tS / (seconds / 2)))

describe.each(['front', 'rear'] as const)('travel from the %s chamber', (end) => {
  it('is within 1.5 % of travel over a ride that warms by 15 °C', () => {
    const { psi, calibration, truth } = pressures(end, warming)
    const found = travelFromPressure(psi, 200, calibration)
    const { bias, rms, p99 } = off(found.share, truth)
    expect(Math.abs(bias)).toBeLessThan(0.015)
    expect(rms).toBeLessThan(0.015)
    expect(p99).toBeLessThan(0.03)
    expect(found.leaking).toBe(false)
  })
  it('follows the drift, where an untracked baseline would be far off', () => {
    const { psi, calibration, truth } = pressures(end, warming)
    const { drift, share } = travelFromPressure(psi, 200, calibration)
    expect(drift / warming(seconds)).toBeGreaterThan(0.985)
    expect(drift / warming(seconds)).toBeLessThan(1.015)
    const k = 1 - 1 / calibration.compressionRatio
    const naive = psi.map(
      (p) => (1 - Math.pow((calibration.baselinePsi + 14.696) / (p + 14.696), 1 / 1.3)) / k,
    )
    expect(off(naive, truth).rms).toBeGreaterThan(1.5 * off(share, truth).rms)
  })
  it('names a leak', () => {
    const { psi, calibration } = pressures(end, (t) => 1 - (0.06 * t) / 60)
    expect(travelFromPressure(psi, 200, calibration).leaking).toBe(true)
  })
})

it('keeps gaps', () => {
  const { psi, calibration } = pressures('front', () => 1)
  psi.fill(NaN, 1000, 1100)
  const { share } = travelFromPressure(psi, 200, calibration)
  expect(share.subarray(1000, 1100).every(Number.isNaN)).toBe(true)
  expect(Number.isFinite(share[1100])).toBe(true)
})
