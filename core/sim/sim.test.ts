import { describe, expect, it } from 'vitest'
import { SectionKind } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import { coilSagMm } from '../spring/coil.ts'
import { strokeShareAt } from '../spring/air.ts'
import { unitAir } from '../spring/unitSpring.ts'
import { leverageOf, shaftMmAt } from '../linkage/leverage.ts'
import { paPerPsi } from '../units/convert.ts'
import { sectionOf, testBike, trailBike } from '../test/simulated.ts'
import { fork, shock } from '../test/dayBuilder.ts'
import { springEnergyJ, springForceN, tabulate } from './endSpring.ts'
import { letGo, restLoadN, restOf, rideTrack, type HalfCar } from './halfCar.ts'
import { simBike, usualFrame } from './bike.ts'
import { normalFrom, seededRandom } from '../numeric/random.ts'
import { rideTrail, trackFor } from './ride.ts'
import { roughGround, roughnessClassM3 } from './roughness.ts'
import { gpsFixes, metresPerDegree, shaftMm } from './sensors.ts'
import { buildTrack } from './track.ts'

const mean = (x: ArrayLike<number>) => Array.from(x).reduce((s, v) => s + v, 0) / x.length
const seeds = { ground: 3, run: 4 }
const ride = (kind: SectionKind, set = {}, severity = 1, run = 4) =>
  rideTrail(testBike(set), [sectionOf(kind, 120, severity)], { ...seeds, run }, 200)

/** Without dampers, rubbing, holding arms and gas that works: two wheels on plain springs. */
function bare(over: Partial<HalfCar> = {}): HalfCar {
  const { car } = testBike()
  const free = { lowNsPerM: 0, highNsPerM: 0, kneeMS: 1 }
  const end = (e: HalfCar['front']): HalfCar['front'] => ({
    ...e,
    travelM: 0.15,
    springN: tabulate((u) => 8000 * 0.15 * u),
    shaftPerAxle: tabulate(() => 1),
    compression: free,
    rebound: free,
    frictionN: 0,
    tyreNsPerM: 0,
  })
  return { ...car, front: end(car.front), rear: end(car.rear), holdNmPerRad: 0, holdNmsPerRad: 0, ...over }
}

describe('standing still', () => {
  it('an air fork stands at the sag of the static spring model along its legs', () => {
    const { car } = testBike()
    const { shape, pistonAreaCm2 } = unitAir(fork)
    const alongLegsN = restLoadN(car, 'front') * Math.sin((usualFrame.headAngleDeg * Math.PI) / 180)
    const want = strokeShareAt(alongLegsN / ((pistonAreaCm2 / 1e4) * paPerPsi), 80, shape)
    expect(restOf(car).frontM / car.front.travelM).toBeCloseTo(want, 3)
  })
  it('an air shock stands where its force over the leverage is the load', () => {
    const { car } = testBike()
    const { shape, pistonAreaCm2 } = unitAir(shock)
    const leverage = leverageOf(trailBike, 55)!
    const s = shaftMmAt(restOf(car).rearM * 1000, leverage)
    const h = 0.01
    const slope = h / (shaftMmAt(restOf(car).rearM * 1000 + h, leverage) - s)
    const loadPsi = (restLoadN(car, 'rear') * slope) / ((pistonAreaCm2 / 1e4) * paPerPsi)
    expect(s / 55).toBeCloseTo(strokeShareAt(loadPsi, 180, shape, { spacers: 1 }), 3)
  })
  it('a coil shock stands at the sag of the coil model', () => {
    const coil: SuspensionUnit = {
      ...shock,
      spring: 'coil',
      adjusters: [
        {
          id: 'k',
          alias: null,
          tool: 'workshop',
          kind: 'spring-rate',
          role: 'spring-rate',
          ratesNPerMm: [70],
        },
      ],
    }
    const { car } = simBike(trailBike, [fork, coil], [{ end: 'front', adjusterId: 'fp', value: 80 }], 80)
    const unit = { strokeMm: 55, pitchMm: 1.5, leverage: leverageOf(trailBike, 55), meanLeverage: 2.67 }
    const sagMm = coilSagMm({ rateNPerMm: 70, ratePoints: null }, 0, restLoadN(car, 'rear'), unit)
    expect(shaftMmAt(restOf(car).rearM * 1000, unit.leverage!)).toBeCloseTo(sagMm, 1)
  })
  it('stays there on level ground', () => {
    const { car } = testBike()
    const rest = restOf(car)
    const { frontM, rearM } = letGo(car, {}, 2)
    expect(Math.max(...frontM.map((d) => Math.abs(d - rest.frontM)))).toBeLessThan(1e-6)
    expect(Math.max(...rearM.map((d) => Math.abs(d - rest.rearM)))).toBeLessThan(1e-6)
  })
  it('refuses an air spring of which no pressure is known', () => {
    const noAir = { ...fork, adjusters: [] }
    expect(() => simBike(trailBike, [noAir, shock], [], 80)).toThrow('needs a pressure')
  })
})

describe('free movement', () => {
  it('heaves at √(k/m)/2π of springs and tyres in series, within 1 %', () => {
    // Light wheels, and the centre of mass in the middle: heave without pitch.
    const base = bare({ aheadM: 0.6, behindM: 0.6 })
    const light = (e: HalfCar['front']) => ({ ...e, unsprungKg: 0.2, tyreNsPerM: 60 })
    const car = {
      ...base,
      front: { ...light(base.front), tyreNPerM: 80_000 },
      rear: { ...light(base.rear), tyreNPerM: 80_000 },
    }
    const { frontM } = letGo(car, { heaveM: -0.01 }, 6, 1 / 8000)
    const centre = mean(frontM)
    const crossings: number[] = []
    for (let i = 1; i < frontM.length; i++)
      if (frontM[i - 1] < centre && frontM[i] >= centre)
        crossings.push((i - (frontM[i] - centre) / (frontM[i] - frontM[i - 1])) / 8000)
    const hz = (crossings.length - 1) / (crossings.at(-1)! - crossings[0])
    const k = 2 / (1 / 8000 + 1 / 80_000)
    const want = Math.sqrt(k / car.sprungKg) / (2 * Math.PI)
    expect(Math.abs(hz / want - 1)).toBeLessThan(0.01)
  })
  it('keeps its energy to a thousandth without dampers', () => {
    const { energyJ } = letGo(bare(), { heaveM: -0.03, pitchRad: 0.03 }, 4)
    const span = Math.max(...energyJ) - Math.min(...energyJ)
    const rest = letGo(bare(), {}, 0.001).energyJ[0]
    expect(span / (energyJ[0] - rest)).toBeLessThan(1e-3)
  })
  it('only ever loses energy with them, even when dropped to the end of the stroke', () => {
    const { car } = testBike()
    const { energyJ, frontM } = letGo(car, { heaveM: 0.35, heaveMS: -1 }, 4)
    expect(Math.max(...frontM) / car.front.travelM).toBeGreaterThan(0.9)
    let worst = 0
    for (let i = 1; i < energyJ.length; i++) worst = Math.max(worst, energyJ[i] - energyJ[i - 1])
    expect(worst).toBeLessThan(1e-3 * (energyJ[0] - energyJ.at(-1)!))
  })
  it('has spring energies that are the integrals of the forces', () => {
    const table = tabulate((u) => 900 * u + 400 * u ** 3)
    for (const depth of [-0.004, 0.03, 0.1, 0.149, 0.153]) {
      const h = 1e-6
      const slope = (springEnergyJ(table, depth + h, 0.15) - springEnergyJ(table, depth - h, 0.15)) / (2 * h)
      expect(slope).toBeCloseTo(springForceN(table, depth, 0.15), 2)
    }
  })
})

describe('riding', () => {
  it('moves no figure by 1 % when the step is halved', () => {
    const { car } = testBike()
    const sections = SectionKind.options.map((k) => sectionOf(k, 60))
    const track = trackFor(sections, 3, 4)
    const figures = (maxStepS: number) => {
      const r = rideTrack(car, track, 200, { maxStepS })
      const of = (x: Float64Array) => {
        const sorted = x.slice().sort()
        const q = (p: number) => sorted[Math.floor(p * (sorted.length - 1))]
        const m = mean(x)
        return [m, q(0.05), q(0.5), q(0.95), q(0.99), Math.sqrt(mean(x.map((v) => (v - m) ** 2)))]
      }
      return [...of(r.front), ...of(r.rear), ...of(r.barG).slice(5)]
    }
    const coarse = figures(1 / 2000)
    figures(1 / 4000).forEach((f, i) => expect(Math.abs(coarse[i] / f - 1), `figure ${i}`).toBeLessThan(0.01))
  })
  it('is the same for the same seeds; another run differs, on the same ground', () => {
    expect(ride('roots').rear).toEqual(ride('roots').rear)
    const a = ride('roots', {}, 1, 4)
    const b = ride('roots', {}, 1, 5)
    expect(a.rear).not.toEqual(b.rear)
    expect(Math.abs(mean(a.rear) - mean(b.rear))).toBeLessThan(0.02)
  })
  it('lets the wheels leave the ground on a jump, and lands', () => {
    const r = ride('jump', {}, 1.3)
    const light = r.front.map((f, i) => (f < 0.04 && r.rear[i] < 0.04 ? 1 : 0))
    expect(mean(light) * r.front.length).toBeGreaterThan(0.2 * 200)
    expect(Math.max(...r.front)).toBeGreaterThan(0.7)
    expect(Math.min(...r.frontAxleG)).toBeLessThan(0.3)
  })
  it('dives in braking and squats at the rear end under the legs of a climb', () => {
    const rest = restOf(testBike().car)
    const brake = ride('braking-bumps', {}, 0.2)
    const car = testBike().car
    expect(mean(brake.front)).toBeGreaterThan(rest.frontM / car.front.travelM + 0.05)
    expect(mean(brake.rear)).toBeLessThan(rest.rearM / car.rear.travelM)
    const climb = ride('climb').rear
    const m = mean(climb)
    expect(Math.sqrt(mean(climb.map((v) => (v - m) ** 2)))).toBeGreaterThan(0.004)
  })
  it('sits deeper in berms by about the load', () => {
    const car = testBike().car
    expect(mean(ride('g-out').rear)).toBeGreaterThan(restOf(car).rearM / car.rear.travelM + 0.08)
  })
  it('answers the dials: slower rebound rides deeper in roots, more air higher, firmer compression less deep', () => {
    const roots = (rr: number) => mean(ride('roots', { rr }).rear)
    expect(roots(2)).toBeGreaterThan(roots(7))
    expect(roots(7)).toBeGreaterThan(roots(12))
    expect(mean(ride('berms', { rp: 200 }).rear)).toBeLessThan(mean(ride('berms').rear))
    const dive = (fc: number) => {
      const sorted = ride('braking-bumps', { fc }).front.sort()
      return sorted[Math.floor(0.95 * sorted.length)]
    }
    expect(dive(2)).toBeLessThan(dive(14))
    const worst = (rs: number) => Math.max(...ride('jump', { rs }, 1.4).rear)
    expect(worst(3)).toBeLessThan(worst(0))
  })
  it('rides a hardtail, whose rear hardly gives', () => {
    const tail = simBike(
      { ...trailBike, rearUnitId: null },
      [fork],
      [{ end: 'front', adjusterId: 'fp', value: 80 }],
      80,
    )
    const r = rideTrail(tail, [sectionOf('roots')], seeds, 200)
    expect(tail.rear).toBeNull()
    expect(Math.max(...r.rear) * tail.car.rear.travelM).toBeLessThan(0.03)
    expect(Math.max(...r.front)).toBeGreaterThan(0.4)
  })
  it('stops when it is told to', () => {
    const stop = () => {
      throw new Error('enough')
    }
    expect(() =>
      rideTrack(testBike().car, trackFor([sectionOf('roots')], 1, 1), 200, { onProgress: stop }),
    ).toThrow('enough')
  })
})

describe('the ground', () => {
  it('has the spectral density of its ISO 8608 class', () => {
    const [n, step] = [100_000, 0.02]
    const random = seededRandom(8)
    const h = roughGround(n, step, roughnessClassM3.C, random)
    // Power in one octave, by a plain Fourier sum, against the integral of the standard's density.
    const [from, to] = [0.4, 0.8]
    let power = 0
    for (let k = Math.ceil(from * n * step); k < to * n * step; k++) {
      let [re, im] = [0, 0]
      const turn = (2 * Math.PI * k) / n
      for (let i = 0; i < n; i++) {
        re += h[i] * Math.cos(turn * i)
        im += h[i] * Math.sin(turn * i)
      }
      power += (2 * (re * re + im * im)) / (n * n)
    }
    const want = roughnessClassM3.C * 0.1 ** 2 * (1 / from - 1 / to)
    expect(power / want).toBeGreaterThan(0.75)
    expect(power / want).toBeLessThan(1.25)
  })
  it('grows with severity and keeps its length', () => {
    const high = (severity: number) => {
      const t = buildTrack([sectionOf('square-edges', 80, severity)], seededRandom(2))
      expect(t.heightM.length * t.stepM).toBeCloseTo(80, 1)
      return Math.max(...t.heightM) - Math.min(...t.heightM)
    }
    expect(high(2)).toBeGreaterThan(1.7 * high(1))
  })
  it.each(SectionKind.options)('%s can be ridden at every severity', (kind) => {
    for (const severity of [0.2, 2.5]) {
      const r = ride(kind, {}, severity)
      expect([...r.front, ...r.rear].every((d) => d > -0.2 && d < 1.1)).toBe(true)
    }
  })
})

describe('the sensors', () => {
  it('read a shaft that stays within its stroke', () => {
    const bike = testBike()
    const mm = shaftMm(bike, ride('jump', {}, 2), 'rear')
    expect(Math.min(...mm)).toBeGreaterThanOrEqual(0)
    expect(Math.max(...mm)).toBeLessThanOrEqual(55)
  })
  it('read one g when nothing happens', () => {
    const r = rideTrail(testBike(), [sectionOf('smooth', 60, 0.2)], seeds, 200)
    expect(mean(r.barG)).toBeCloseTo(1, 1)
    expect(mean(r.frontAxleG)).toBeCloseTo(1, 1)
  })
  it('fix the way that was ridden', () => {
    const r = ride('smooth')
    const fixes = gpsFixes(r, 5, seededRandom(1))
    let way = 0
    for (let i = 5; i < fixes.length; i += 5) {
      const [a, b] = [fixes[i - 5], fixes[i]]
      const dn = (b.latitudeDeg - a.latitudeDeg) * metresPerDegree
      const de =
        (b.longitudeDeg - a.longitudeDeg) * metresPerDegree * Math.cos((a.latitudeDeg * Math.PI) / 180)
      way += Math.hypot(dn, de)
    }
    expect(way / 120).toBeGreaterThan(0.8)
    expect(way / 120).toBeLessThan(1.25)
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
