import { dampForceN, type DampSlope } from '../damper/force.ts'
import { standardGravity as g } from '../units/convert.ts'
import { at, springForceN, springEnergyJ, type TravelTable } from './endSpring.ts'
import type { Track } from './track.ts'

/** One end of the bike. Depth and forces are vertical, at the axle. */
export interface SimEnd {
  travelM: number
  unsprungKg: number
  /** Spring force at the axle over the share of travel, N. */
  springN: TravelTable
  /** Shaft movement per axle movement over the share of travel. */
  shaftPerAxle: TravelTable
  compression: DampSlope
  rebound: DampSlope
  /** Coulomb friction at the axle, N, smoothed below 20 mm/s. */
  frictionN: number
  tyreNPerM: number
  tyreNsPerM: number
}

/** Bike and rider in the plane: heave and pitch of what the springs carry, and two wheels. */
export interface HalfCar {
  sprungKg: number
  pitchKgM2: number
  /** From the centre of mass to the front and the rear axle, m. */
  aheadM: number
  behindM: number
  /** Height of the centre of mass above the ground, m: braking tips the bike over it. */
  centreM: number
  front: SimEnd
  rear: SimEnd
  /** Arms and legs hold the bike level: N·m per rad and N·m·s per rad. */
  holdNmPerRad: number
  holdNmsPerRad: number
}

/** Movement of a whole ride. One value per sample. */
export interface Ride {
  sampleRateHz: number
  /** Depth over travel at the axle; 0 extended, 1 = all of it. */
  front: Float64Array
  rear: Float64Array
  speedMS: Float64Array
  distanceM: Float64Array
  /** What an accelerometer reads, g, 1 at rest: at the front axle, the rear axle, the bar. */
  frontAxleG: Float64Array
  rearAxleG: Float64Array
  barG: Float64Array
}

/** What stands for the rider's moving about, m fore (+) and aft of the usual place, and the legs' phase. */
export interface RiderInput {
  shiftM: (tS: number) => number
  cadenceHz: number
}
const stillRider: RiderInput = { shiftM: () => 0, cadenceHz: 1.4 }

const slow = 0.02
/** Depths and rest position that hold the car still on level ground. */
export interface Rest {
  frontM: number
  rearM: number
}

/** Load at the axle of each end at rest on level ground, N. */
export function restLoadN(car: HalfCar, end: 'front' | 'rear'): number {
  const arm = end === 'front' ? car.behindM : car.aheadM
  return (car.sprungKg * g * arm) / (car.aheadM + car.behindM)
}

/** Where both springs carry their share: bisection on each force. */
export function restOf(car: HalfCar): Rest {
  const depth = (end: 'front' | 'rear') => {
    const load = restLoadN(car, end)
    let [low, high] = [-0.02, 1.05 * car[end].travelM]
    for (let i = 0; i < 60; i++) {
      const mid = (low + high) / 2
      if (springForceN(car[end].springN, mid, car[end].travelM) < load) low = mid
      else high = mid
    }
    return (low + high) / 2
  }
  return { frontM: depth('front'), rearM: depth('rear') }
}

function endForceN(e: SimEnd, depthM: number, rateMS: number): number {
  const share = depthM / e.travelM
  const per = at(e.shaftPerAxle, share)
  const shaft = rateMS * per
  const damp = dampForceN(shaft >= 0 ? e.compression : e.rebound, Math.abs(shaft))
  const rub = (e.frictionN * rateMS) / Math.sqrt(rateMS * rateMS + slow * slow)
  return springForceN(e.springN, depthM, e.travelM) + (shaft >= 0 ? damp : -damp) * per + rub
}

/**
 * State: heave z, pitch p (nose up), wheel heights f and r, then their four speeds. Heights are offsets from where the
 * tyre just touches level ground and the unit is fully extended; depth = wheel − frame.
 */
type State = Float64Array

interface Inputs {
  groundF: number
  groundR: number
  /** Vertical speed of the ground under each tyre, m/s. */
  riseF: number
  riseR: number
  loadG: number
  brakeG: number
  /** Pedalling and weight shift. */
  bobN: number
  shiftM: number
}

function derivative(car: HalfCar, levelPitch: number, s: State, u: Inputs, out: State): void {
  const { front, rear, aheadM: a, behindM: b } = car
  const frameF = s[0] + a * s[1]
  const frameR = s[0] - b * s[1]
  const forceF = endForceN(front, s[2] - frameF, s[6] - (s[4] + a * s[5]))
  const forceR = endForceN(rear, s[3] - frameR, s[7] - (s[4] - b * s[5]))
  // A tyre pushes and never pulls.
  const squashF = u.groundF - s[2]
  const squashR = u.groundR - s[3]
  const tyreF = squashF > 0 ? Math.max(0, front.tyreNPerM * squashF + front.tyreNsPerM * (u.riseF - s[6])) : 0
  const tyreR = squashR > 0 ? Math.max(0, rear.tyreNPerM * squashR + rear.tyreNsPerM * (u.riseR - s[7])) : 0
  const weight = car.sprungKg * g * u.loadG
  const onGround = tyreF > 0 || tyreR > 0 ? 1 : 0
  const moment =
    a * forceF -
    b * forceR -
    onGround * car.sprungKg * g * u.brakeG * car.centreM -
    weight * u.shiftM -
    car.holdNmPerRad * (s[1] - levelPitch) -
    car.holdNmsPerRad * s[5]
  out[0] = s[4]
  out[1] = s[5]
  out[2] = s[6]
  out[3] = s[7]
  out[4] = (forceF + forceR - weight - u.bobN) / car.sprungKg
  out[5] = moment / car.pitchKgM2
  out[6] = (tyreF - forceF) / front.unsprungKg - g * u.loadG
  out[7] = (tyreR - forceR) / rear.unsprungKg - g * u.loadG
}

function restState(car: HalfCar): State {
  const rest = restOf(car)
  const load = (end: 'front' | 'rear') => restLoadN(car, end) + car[end].unsprungKg * g
  const f = -load('front') / car.front.tyreNPerM
  const r = -load('rear') / car.rear.tyreNPerM
  const frameF = f - rest.frontM
  const frameR = r - rest.rearM
  const pitch = (frameF - frameR) / (car.aheadM + car.behindM)
  return Float64Array.of(frameF - car.aheadM * pitch, pitch, f, r, 0, 0, 0, 0)
}

/**
 * One step of the classical Runge–Kutta method of fourth order.
 * @param look sets the inputs at a time after the start of the step, s
 */
function stepper(car: HalfCar, levelPitch: number, s: State, u: Inputs) {
  const stage = new Float64Array(8)
  const [k1, k2, k3, k4] = [0, 1, 2, 3].map(() => new Float64Array(8))
  const step = (h: number, look: (afterS: number) => void) => {
    look(0)
    derivative(car, levelPitch, s, u, k1)
    look(h / 2)
    for (let i = 0; i < 8; i++) stage[i] = s[i] + (h / 2) * k1[i]
    derivative(car, levelPitch, stage, u, k2)
    for (let i = 0; i < 8; i++) stage[i] = s[i] + (h / 2) * k2[i]
    derivative(car, levelPitch, stage, u, k3)
    look(h)
    for (let i = 0; i < 8; i++) stage[i] = s[i] + h * k3[i]
    derivative(car, levelPitch, stage, u, k4)
    for (let i = 0; i < 8; i++) s[i] += (h / 6) * (k1[i] + 2 * k2[i] + 2 * k3[i] + k4[i])
  }
  return { step, /** Rates at the start of the step. */ rates: k1 }
}

const level = (): Inputs => ({
  groundF: 0,
  groundR: 0,
  riseF: 0,
  riseR: 0,
  loadG: 1,
  brakeG: 0,
  bobN: 0,
  shiftM: 0,
})

/**
 * Rides a track from one end to the other: Runge–Kutta of fourth order at a fixed step, the rear wheel a wheelbase
 * behind the front. Deterministic.
 *
 * @param sampleRateHz of the result; the step is the longest that divides it and is at most `maxStepS`
 * @throws whatever `onProgress` throws, to cancel
 */
export function rideTrack(
  car: HalfCar,
  track: Track,
  sampleRateHz: number,
  options: { rider?: RiderInput; maxStepS?: number; onProgress?: (share: number) => void } = {},
): Ride {
  const { rider = stillRider, maxStepS = 1 / 2000, onProgress } = options
  const every = Math.max(1, Math.ceil(1 / sampleRateHz / maxStepS - 1e-9))
  const h = 1 / sampleRateHz / every
  const wheelbase = car.aheadM + car.behindM
  const { heightM, stepM, speedMS } = track
  const last = heightM.length - 1.001
  const samples = ridingSamples(track, sampleRateHz)
  const channel = () => new Float64Array(samples)
  const ride: Ride = {
    sampleRateHz,
    front: channel(),
    rear: channel(),
    speedMS: channel(),
    distanceM: channel(),
    frontAxleG: channel(),
    rearAxleG: channel(),
    barG: channel(),
  }
  const s = restState(car)
  const u = level()
  const { step, rates } = stepper(car, s[1], s, u)
  // The ground begins at height 0, wherever its first wave stands.
  const start = heightM[0]
  let x = 0
  let t = 0
  let v = speedMS[0]
  const look = (afterS: number) => {
    const distance = x + afterS * v
    const i = Math.min(last, distance / stepM)
    const a = i | 0
    u.groundF = heightM[a] + (heightM[a + 1] - heightM[a]) * (i - a) - start
    u.riseF = ((heightM[a + 1] - heightM[a]) / stepM) * v
    const j = Math.min(last, (distance - wheelbase) / stepM)
    const b = Math.max(0, j | 0)
    u.groundR = j < 0 ? 0 : heightM[b] + (heightM[b + 1] - heightM[b]) * (j - b) - start
    u.riseR = j < 0 ? 0 : ((heightM[b + 1] - heightM[b]) / stepM) * v
    u.loadG = track.loadG[a]
    u.brakeG = track.brakeG[a]
    const bob = track.bobShare[a]
    u.bobN = bob ? bob * car.sprungKg * g * Math.sin(4 * Math.PI * rider.cadenceHz * (t + afterS)) : 0
    u.shiftM = rider.shiftM(t + afterS)
  }
  for (let n = 0; n < samples; n++) {
    if (onProgress && n % 4096 === 0) onProgress(n / samples)
    v = speedMS[Math.min(last, x / stepM) | 0]
    ride.front[n] = (s[2] - s[0] - car.aheadM * s[1]) / car.front.travelM
    ride.rear[n] = (s[3] - s[0] + car.behindM * s[1]) / car.rear.travelM
    ride.speedMS[n] = v
    ride.distanceM[n] = Math.min(x, track.lengthM)
    for (let k = 0; k < every; k++) {
      v = speedMS[Math.min(last, x / stepM) | 0]
      step(h, look)
      if (k === 0) {
        const loadG = track.loadG[Math.min(last, x / stepM) | 0]
        ride.frontAxleG[n] = rates[6] / g + loadG
        ride.rearAxleG[n] = rates[7] / g + loadG
        ride.barG[n] = (rates[4] + car.aheadM * rates[5]) / g + loadG
      }
      x += h * v
      t += h
    }
  }
  return ride
}

/** Samples from the start of a track to its end at its own pace. */
function ridingSamples(track: Track, sampleRateHz: number): number {
  let seconds = 0
  for (const v of track.speedMS) seconds += track.stepM / v
  return Math.max(2, Math.floor(seconds * sampleRateHz))
}

/** Free movement on level ground from rest disturbed, for checks: depths in m, and the energy of everything, J. @public the simulator’s physics are checked with it */
export function letGo(
  car: HalfCar,
  disturbed: { heaveM?: number; pitchRad?: number; heaveMS?: number },
  durationS: number,
  stepS = 1 / 2000,
): { frontM: Float64Array; rearM: Float64Array; energyJ: Float64Array } {
  const s = restState(car)
  const levelPitch = s[1]
  s[0] += disturbed.heaveM ?? 0
  s[1] += disturbed.pitchRad ?? 0
  s[4] += disturbed.heaveMS ?? 0
  const n = Math.round(durationS / stepS)
  const out = {
    frontM: new Float64Array(n),
    rearM: new Float64Array(n),
    energyJ: new Float64Array(n),
  }
  const { step } = stepper(car, levelPitch, s, level())
  for (let i = 0; i < n; i++) {
    out.frontM[i] = s[2] - s[0] - car.aheadM * s[1]
    out.rearM[i] = s[3] - s[0] + car.behindM * s[1]
    out.energyJ[i] = energyJ(car, levelPitch, s)
    step(stepS, () => {})
  }
  return out
}

/** Kinetic, spring, tyre, gravity and holding energy on level ground, J. */
function energyJ(car: HalfCar, levelPitch: number, s: State): number {
  const end = (e: SimEnd, depth: number, wheel: number, speed: number) =>
    springEnergyJ(e.springN, depth, e.travelM) +
    (e.tyreNPerM * Math.min(0, wheel) ** 2) / 2 +
    e.unsprungKg * (g * wheel + speed ** 2 / 2)
  return (
    car.sprungKg * (g * s[0] + s[4] ** 2 / 2) +
    (car.pitchKgM2 * s[5] ** 2) / 2 +
    (car.holdNmPerRad * (s[1] - levelPitch) ** 2) / 2 +
    end(car.front, s[2] - s[0] - car.aheadM * s[1], s[2], s[6]) +
    end(car.rear, s[3] - s[0] + car.behindM * s[1], s[3], s[7])
  )
}
