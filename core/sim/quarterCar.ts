import { damperForceN, type DamperShape } from '../damper/force.ts'
import { netPressurePsi, type AirSpringShape } from '../spring/air.ts'
import type { Road } from './road.ts'

/** One end of the bike on its own: sprung mass, wheel, air spring, damper, tyre. All at the axle. */
export interface QuarterCar {
  sprungKg: number
  unsprungKg: number
  travelM: number
  air: AirSpringShape
  pressurePsi: number
  spacers: number
  /** Force per psi of net pressure at the axle, N. */
  newtonPerPsi: number
  compression: DamperShape
  compressionClicks: number
  rebound: DamperShape
  reboundClicks: number
  frictionN: number
  tyreNPerM: number
  tyreNsPerM: number
  /** How much of the braking load arrives here: + front, − rear. */
  brakeShare: number
}

const g = 9.80665
const dt = 1 / 4000
const bumpStopFrom = 0.97
const topOutNPerM = 60_000

/**
 * Rides a road and records depth, semi-implicit Euler at 4 kHz. Heave only: no pitch, no linkage; a stand-in source
 * of recordings, not a bicycle model.
 *
 * @returns depth in % of travel and bike speed, m/s, at `sampleRateHz` (a divisor of 4000)
 */
export function rideRoad(
  car: QuarterCar,
  road: Road,
  sampleRateHz: number,
): { depthPct: Float64Array; speedMS: Float64Array } {
  const every = Math.round(1 / dt / sampleRateHz)
  const spring = springTable(car)
  let zs = 0
  let vs = 0
  let zu = 0
  let vu = 0
  let x = staticDepth(car, spring)
  zs = -x
  let at = 0
  const depth: number[] = []
  const speed: number[] = []
  for (let step = 0; ; step++) {
    const i = Math.floor(at / road.stepM)
    if (i >= road.heightM.length - 1) break
    const f = at / road.stepM - i
    const ground = road.heightM[i] * (1 - f) + road.heightM[i + 1] * f
    const load = car.sprungKg * g * (1 + road.extraG[i] + car.brakeShare * road.brake[i])
    // x > 0: compressed. The wheel moves up toward the body.
    x = zu - zs
    const v = vu - vs
    const rub = car.frictionN * Math.tanh(v / 0.02)
    const damp =
      v >= 0
        ? damperForceN(v, car.compressionClicks, car.compression)
        : -damperForceN(-v, car.reboundClicks, car.rebound)
    const force = springForce(spring, x / car.travelM, car.travelM) + damp + rub
    const gap = ground - zu
    // The tyre pushes and never pulls.
    const squash = gap + ((car.sprungKg + car.unsprungKg) * g) / car.tyreNPerM
    const tyre = squash > 0 ? Math.max(0, car.tyreNPerM * squash - car.tyreNsPerM * vu) : 0
    vs += dt * ((force - load) / car.sprungKg)
    vu += dt * ((tyre - force - car.unsprungKg * g) / car.unsprungKg)
    zs += dt * vs
    zu += dt * vu
    if (step % every === 0) {
      depth.push((100 * x) / car.travelM)
      speed.push(road.speedMS[i])
    }
    at += road.speedMS[i] * dt
  }
  return { depthPct: Float64Array.from(depth), speedMS: Float64Array.from(speed) }
}

const tableSize = 512

/** Spring force over 0…1 of travel, moving exponent 1.3: the power function is too slow for every step. */
function springTable(car: QuarterCar): Float64Array {
  return Float64Array.from(
    { length: tableSize + 1 },
    (_, k) =>
      car.newtonPerPsi *
      netPressurePsi(k / tableSize, car.pressurePsi, car.air, { spacers: car.spacers, exponent: 1.3 }),
  )
}

function springForce(table: Float64Array, u: number, travelM: number): number {
  if (u <= 0) return table[0] + topOutNPerM * u * travelM
  const k = Math.min(tableSize - 1, Math.floor(u * tableSize))
  const f = Math.min(1, u * tableSize - k)
  const stop = u > bumpStopFrom ? 1_500_000 * (u - bumpStopFrom) * travelM : 0
  return table[k] + (table[k + 1] - table[k]) * f + stop
}

/** Depth at which the spring carries the sprung mass, m. */
function staticDepth(car: QuarterCar, table: Float64Array): number {
  let low = 0
  let high = 1
  for (let i = 0; i < 40; i++) {
    const mid = (low + high) / 2
    if (springForce(table, mid, car.travelM) < car.sprungKg * g) low = mid
    else high = mid
  }
  return low * car.travelM
}

/** newtonPerPsi that makes the static sag come out at `sagPct` for a pressure. */
export function forcePerPsiForSag(
  car: Pick<QuarterCar, 'sprungKg' | 'air' | 'spacers'>,
  pressurePsi: number,
  sagPct: number,
): number {
  return (
    (car.sprungKg * g) /
    netPressurePsi(sagPct / 100, pressurePsi, car.air, { spacers: car.spacers, exponent: 1.3 })
  )
}
