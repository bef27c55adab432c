import { distanceM, type Fix, type Place } from './fix.ts'

export const trackRules = {
  /** Wander of a receiver from fix to fix, and how quickly a rider changes speed or direction; standard deviations. */
  fixM: 3,
  turnMS2: 4,
} as const

/** A track in metres east and north of its first fix, with its velocity. */
export interface SmoothTrack {
  timeS: Float64Array
  eastM: Float64Array
  northM: Float64Array
  speedMS: Float64Array
  /** The same plane for any other position. */
  toPlane: (at: Place) => { eastM: number; northM: number }
  toPlace: (eastM: number, northM: number) => Place
}

/**
 * Smooths fixes by a constant-velocity Kalman filter run forward and back: what a receiver wanders is told from what a
 * rider can turn. Corners are not cut as by an average, and standing still adds no way.
 * Source: Rauch, Tung & Striebel (1965), AIAA J. 3, 1445.
 *
 * @param fixes at least two, times rising
 * Cost O(N).
 */
export function smoothTrack(fixes: readonly Fix[]): SmoothTrack {
  const origin = fixes[0]
  const east = { ...origin, longitudeDeg: origin.longitudeDeg + 0.01 }
  const north = { ...origin, latitudeDeg: origin.latitudeDeg + 0.01 }
  const [perLon, perLat] = [distanceM(origin, east) / 0.01, distanceM(origin, north) / 0.01]
  const timeS = Float64Array.from(fixes, (f) => f.timeS)
  const e = axis(
    timeS,
    Float64Array.from(fixes, (f) => (f.longitudeDeg - origin.longitudeDeg) * perLon),
  )
  const n = axis(
    timeS,
    Float64Array.from(fixes, (f) => (f.latitudeDeg - origin.latitudeDeg) * perLat),
  )
  return {
    toPlane: (at) => ({
      eastM: (at.longitudeDeg - origin.longitudeDeg) * perLon,
      northM: (at.latitudeDeg - origin.latitudeDeg) * perLat,
    }),
    toPlace: (eastM, northM) => ({
      latitudeDeg: origin.latitudeDeg + northM / perLat,
      longitudeDeg: origin.longitudeDeg + eastM / perLon,
    }),
    timeS,
    eastM: e.x,
    northM: n.x,
    speedMS: e.v.map((v, i) => Math.hypot(v, n.v[i])),
  }
}

/** Variance of a speed that nothing is known of, (m/s)². */
const anySpeed = 1e4

/** One axis: position and velocity. */
function axis(timeS: Float64Array, z: Float64Array): { x: Float64Array; v: Float64Array } {
  const { fixM, turnMS2 } = trackRules
  const n = z.length
  const [x, v] = [new Float64Array(n), new Float64Array(n)]
  // Covariances after each fix (a: position, b: both, c: velocity), and before it, for the way back.
  const after = [new Float64Array(n), new Float64Array(n), new Float64Array(n)]
  const before = [new Float64Array(n), new Float64Array(n), new Float64Array(n)]
  const [xBefore, vBefore] = [new Float64Array(n), new Float64Array(n)]
  let [a, b, c] = [fixM ** 2, 0, anySpeed]
  x[0] = z[0]
  ;[after[0][0], after[1][0], after[2][0]] = [a, b, c]
  for (let i = 1; i < n; i++) {
    const dt = timeS[i] - timeS[i - 1]
    // Acceleration is white over the step of a second at most: fixes more often do not make a rider more nimble.
    const q = turnMS2 ** 2 * Math.min(1, dt)
    xBefore[i] = x[i - 1] + dt * v[i - 1]
    vBefore[i] = v[i - 1]
    ;[a, b, c] = [
      a + 2 * dt * b + dt * dt * c + (q * dt ** 3) / 3,
      b + dt * c + (q * dt ** 2) / 2,
      c + q * dt,
    ]
    ;[before[0][i], before[1][i], before[2][i]] = [a, b, c]
    const s = a + fixM ** 2
    const [kx, kv] = [a / s, b / s]
    const miss = z[i] - xBefore[i]
    x[i] = xBefore[i] + kx * miss
    v[i] = vBefore[i] + kv * miss
    ;[a, b, c] = [(1 - kx) * a, (1 - kx) * b, c - kv * b]
    ;[after[0][i], after[1][i], after[2][i]] = [a, b, c]
  }
  for (let i = n - 2; i >= 0; i--) {
    const dt = timeS[i + 1] - timeS[i]
    const [pa, pb, pc] = [after[0][i], after[1][i], after[2][i]]
    const [fa, fb, fc] = [before[0][i + 1], before[1][i + 1], before[2][i + 1]]
    const det = fa * fc - fb * fb
    // Gain: P·Fᵀ·(predicted)⁻¹.
    const [ga, gb] = [pa + dt * pb, pb]
    const [gc, gd] = [pb + dt * pc, pc]
    const [xa, xb] = [(ga * fc - gb * fb) / det, (gb * fa - ga * fb) / det]
    const [va, vb] = [(gc * fc - gd * fb) / det, (gd * fa - gc * fb) / det]
    const [dx, dv] = [x[i + 1] - xBefore[i + 1], v[i + 1] - vBefore[i + 1]]
    x[i] += xa * dx + xb * dv
    v[i] += va * dx + vb * dv
  }
  return { x, v }
}
