import type { Fix } from '../geo/fix.ts'
import { normalFrom, seededRandom } from '../numeric/random.ts'

/** A way down a slope: straights and half circles, ridden with a speed of its own on each. */
export interface Leg {
  lengthM: number
  speedMS: number
  /** Radius of a half circle; 0 is straight. Positive turns left. */
  radiusM: number
}

export interface RiddenTrack {
  fixes: Fix[]
  /** True distance along the way at each fix, m. */
  alongM: Float64Array
  /** Where on the ground a distance along the way lies. */
  placeAt: (alongM: number) => { latitudeDeg: number; longitudeDeg: number }
}

const origin = { latitudeDeg: -47.5, longitudeDeg: -122.3 }
const perLat = 111_195
const perLon = perLat * Math.cos((origin.latitudeDeg * Math.PI) / 180)

/** East and north after a distance along the legs. */
function positionOf(legs: readonly Leg[], alongM: number): [number, number] {
  let [e, n, heading, left] = [0, 0, 0.4, alongM]
  for (const leg of legs) {
    const d = Math.max(0, Math.min(leg.lengthM, left))
    if (leg.radiusM === 0) {
      e += d * Math.sin(heading)
      n += d * Math.cos(heading)
    } else {
      // About the centre beside the rider.
      const turned = d / leg.radiusM
      e += leg.radiusM * (Math.cos(heading - turned) - Math.cos(heading))
      n += leg.radiusM * (Math.sin(heading) - Math.sin(heading - turned))
      heading -= turned
    }
    left -= leg.lengthM
    if (left <= 0) break
  }
  return [e, n]
}

/**
 * Rides legs with a receiver that wanders, standing before and after.
 * @param wander 'slow': some seconds from one side to the other (Ornstein–Uhlenbeck, 5 s); 'white': anew at each fix
 */
export function rideTrack(
  legs: readonly Leg[],
  how: {
    rateHz: number
    wanderM: number
    wander: 'slow' | 'white'
    standS: number
    seed: number
    pace?: number
  },
): RiddenTrack {
  const random = seededRandom(how.seed)
  const dt = 1 / how.rateHz
  const sd = how.wanderM / Math.SQRT2
  const keep = how.wander === 'slow' ? Math.exp(-dt / 5) : 0
  let [we, wn] = [sd * normalFrom(random), sd * normalFrom(random)]
  const fixes: Fix[] = []
  const along: number[] = []
  const total = legs.reduce((s, l) => s + l.lengthM, 0)
  const speedAt = (d: number) => {
    let done = 0
    for (const leg of legs) if ((done += leg.lengthM) > d) return leg.speedMS * (how.pace ?? 1)
    return 0
  }
  const toDeg = ([e, n]: [number, number]) => ({
    latitudeDeg: origin.latitudeDeg + n / perLat,
    longitudeDeg: origin.longitudeDeg + e / perLon,
  })
  let [d, speed, t] = [0, 0, 0]
  const add = () => {
    we = keep * we + Math.sqrt(1 - keep * keep) * sd * normalFrom(random)
    wn = keep * wn + Math.sqrt(1 - keep * keep) * sd * normalFrom(random)
    const [e, n] = positionOf(legs, d)
    fixes.push({ timeS: t, ...toDeg([e + we, n + wn]), elevationM: 0 })
    along.push(d)
    t += dt
  }
  for (let s = 0; s < how.standS; s += dt) add()
  while (d < total) {
    // Speeds up and brakes at 3 m/s², looking ahead by a second.
    const wanted = Math.min(speedAt(d), Math.max(1, speedAt(d + speed)))
    speed += Math.max(-3 * dt, Math.min(3 * dt, wanted - speed))
    d = Math.min(total, d + Math.max(0.05, speed) * dt)
    add()
  }
  for (let s = 0; s < how.standS; s += dt) add()
  return {
    fixes,
    alongM: Float64Array.from(along),
    placeAt: (m) => toDeg(positionOf(legs, m)),
  }
}

const straight = (lengthM: number, speedMS: number): Leg => ({ lengthM, speedMS, radiusM: 0 })
const hairpin = (radiusM: number): Leg => ({ lengthM: Math.PI * Math.abs(radiusM), speedMS: 3, radiusM })

/** A kilometre with hairpins whose arms lie a dozen metres apart. */
export const hairpinTrail: Leg[] = [
  straight(140, 7),
  hairpin(5),
  straight(90, 6),
  hairpin(-6),
  straight(110, 7),
  hairpin(4),
  straight(60, 5),
  hairpin(-5),
  straight(160, 9),
  hairpin(6),
  straight(120, 8),
  straight(150, 6),
]
/** A forest road to the start. */
export const approach: Leg[] = [straight(300, 6)]
