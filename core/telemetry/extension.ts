import { cholesky, choleskySolve } from '../stats/solve.ts'

export const extensionRules = {
  /** An extended moment lasts so long; longer where the sensor is noisy. */
  quietS: 0.06,
  noisyQuietS: 0.1,
  noisyPsi: 0.3,
  /** Quiet: scatter within the moment over that of the sensor, and what a still chamber does of itself, psi. */
  quietOverNoise: 1.5,
  quietPsi: 0.15,
  /** The lowest within so long on either side. */
  lowestWithinS: 4,
  /** No gas warms by more than this within a ride, share of the absolute pressure: 30 °C from 15 °C. */
  mostWarming: 0.104,
  /** Fastest: that much with a time constant of a minute. */
  warmingS: 60,
  /** Cooling that passes unseen where nothing tells of it: 5 °C. */
  unseenCooling: 0.017,
  /** How far a moment may stand above the lower envelope, share of the absolute pressure. */
  envelopeShare: 0.006,
  /** Scatter of a moment, of the expected one at the start, of the depth at which units hang, and of the bend from knot to knot. */
  momentSd: 0.004,
  expectedSd: 0.008,
  hangingSd: 0.006,
  bendSd: 0.0012,
  /** Moments at a stop are crowded: quiet stretches within `onLine` of the line over those in twice that width above. */
  onLine: 0.005,
  crowding: 2,
  leastCrowd: 12,
  leastMoments: 3,
  /** So early the gas is as it was filled. */
  earlyS: 20,
  /** Room for what the bounds leave out: the mean depth, too, is off where the gas is. */
  margin: 1.4,
  /** What a moment may stand over what warming allows since an earlier one. */
  slack: 0.02,
  /** Resting so far below or above what it should is of another fill. */
  fillBelow: 0.02,
  fillAbove: [0.04, 0.15],
} as const

export interface Moment {
  atS: number
  absolutePsi: number
}

/** Pressure at full extension over a ride, as moments at the stop tell it. */
export interface ExtensionLine {
  moments: Moment[]
  /** Absolute pressure over the expected one at a time of the ride; 1 throughout without moments. */
  overExpected(atS: number): number
  /** How far that may be off, share of the absolute pressure. */
  unsureShare: number
}

/**
 * Quiet stretches of a pressure, from which the moments at full extension are chosen: the lowest of some seconds.
 * @param psi absolute; NaN = gap
 * @param noisePsi scatter of the sensor, standard deviation
 */
export function quietMoments(
  psi: Float64Array,
  sampleRateHz: number,
  noisePsi: number,
): { quiet: Moment[]; lowest: Moment[] } {
  const r = extensionRules
  const span = Math.max(3, Math.round((noisePsi > r.noisyPsi ? r.noisyQuietS : r.quietS) * sampleRateHz))
  const most = r.quietOverNoise * noisePsi + r.quietPsi
  const blocks = Math.floor(psi.length / span)
  const level = new Float64Array(blocks).fill(Infinity)
  const quiet: Moment[] = []
  for (let b = 0; b < blocks; b++) {
    let [sum, squares] = [0, 0]
    // About the first value, so that the squares keep their digits.
    const first = psi[b * span]
    for (let i = b * span; i < (b + 1) * span; i++) {
      const d = psi[i] - first
      sum += d
      squares += d * d
    }
    const variance = (squares - (sum * sum) / span) / (span - 1)
    if (!(variance <= most * most)) continue
    level[b] = first + sum / span
    quiet.push({ atS: ((b + 0.5) * span) / sampleRateHz, absolutePsi: level[b] })
  }
  const reach = Math.round((r.lowestWithinS * sampleRateHz) / span)
  const lowest: Moment[] = []
  for (let b = 0; b < blocks; b++) {
    if (!Number.isFinite(level[b])) continue
    let least = true
    for (let c = Math.max(0, b - reach); least && c <= Math.min(blocks - 1, b + reach); c++)
      if (level[c] < level[b] || (level[c] === level[b] && c < b)) least = false
    if (least) lowest.push({ atS: ((b + 0.5) * span) / sampleRateHz, absolutePsi: level[b] })
  }
  return { quiet, lowest }
}

/**
 * Where a unit rests at the start, when that is not its baseline: it was filled anew since. Lifted out of its sag the gas is
 * colder for some seconds; above the baseline the bike may just stand on its wheels.
 *
 * @param baselinePsi absolute, settled
 * @param coldPsi absolute, just lifted out of the depth it dwells at
 * @returns absolute psi; null when it never rests there, or rests where it should
 */
export function otherFill(
  quiet: readonly Moment[],
  baselinePsi: number,
  coldPsi: number,
  noisePsi: number,
): number | null {
  const r = extensionRules
  const early = quiet.filter((m) => m.atS < r.earlyS)
  const width = r.onLine + noisePsi / baselinePsi
  const near = (psi: number) => early.filter((m) => Math.abs(m.absolutePsi / psi - 1) < width)
  const rests = early.filter((m) => near(m.absolutePsi).length >= r.leastCrowd)
  if (rests.length === 0) return null
  const rest = Math.min(...rests.map((m) => m.absolutePsi))
  const over = rest / baselinePsi - 1
  const [least, most] = r.fillAbove
  return rest / coldPsi - 1 < -r.fillBelow || (over > least && over < most) ? rest : null
}

/**
 * The line of full extension over the ride. At the stop many quiet moments have the same pressure and few have a little
 * more; a bike that only rolls lightly has ever more of them the deeper it stands. So only lines that are crowded are
 * believed; without one the calibration stands, and how far it may be off is what warming could have done without any
 * pressure falling below the stop.
 *
 * @param expectedPsi absolute pressure of a hanging unit by the calibration
 */
export function extensionLine(
  { quiet, lowest }: { quiet: Moment[]; lowest: Moment[] },
  durationS: number,
  expectedPsi: number,
  noisePsi: number,
): ExtensionLine {
  const r = extensionRules
  const grain = noisePsi / expectedPsi
  const near = reachable(lowest, expectedPsi, grain)
  const kept = lowerEnvelope(near, durationS, expectedPsi, grain)
  if (kept.length >= r.leastMoments) {
    const { line, offset } = fitLine(kept, durationS, expectedPsi)
    let [crowd, loose] = [0, 0]
    const width = r.onLine + grain
    for (const m of quiet) {
      const over = m.absolutePsi / (expectedPsi * (line(m.atS) + offset)) - 1
      if (Math.abs(over) < width) crowd++
      else if (over > 0 && over < 3 * width) loose++
    }
    if (crowd >= r.leastCrowd && crowd >= r.crowding * loose) {
      // Where the moments alone would have the ride begin.
      const start = fitLine(kept, durationS, expectedPsi, 1).line(0)
      return {
        moments: kept,
        overExpected: line,
        unsureShare:
          Math.hypot(r.hangingSd, (r.momentSd + grain) / Math.sqrt(kept.length)) +
          unseen(kept, durationS) +
          Math.abs(start - line(0)),
      }
    }
  }
  // Nothing can lie below the stop: the lowest of the ride bounds how warm the gas can have become.
  let room: number = r.mostWarming
  let lost = 0
  for (const m of lowest) {
    const over = m.absolutePsi / expectedPsi - 1
    room = Math.min(room, Math.max(0, over) + warmingWithin(durationS) - warmingWithin(m.atS))
    lost = Math.max(lost, -2 * over - 4 * grain)
  }
  return {
    moments: [],
    overExpected: () => 1,
    unsureShare: r.margin * Math.max(room, r.unseenCooling, lost),
  }
}

/** The most that gas can have warmed in so long, share of the absolute pressure. */
const warmingWithin = (s: number) => extensionRules.mostWarming * (1 - Math.exp(-s / extensionRules.warmingS))

/** Moments that warming can have come to since the start and since every lower one before. */
function reachable(lowest: readonly Moment[], expectedPsi: number, grain: number): Moment[] {
  const slack = extensionRules.slack + grain
  const kept: Moment[] = [{ atS: 0, absolutePsi: expectedPsi }]
  for (const m of lowest)
    if (
      kept.every((k) => (m.absolutePsi - k.absolutePsi) / expectedPsi <= warmingWithin(m.atS - k.atS) + slack)
    )
      kept.push(m)
  return kept.slice(1)
}

/** What warming can have done between moments and after the last: bend of an exponential over a gap, its slope beyond. */
function unseen(moments: readonly Moment[], durationS: number): number {
  const r = extensionRules
  const times = [0, ...moments.map((m) => m.atS)]
  let gapS = 0
  for (let i = 1; i < times.length; i++) gapS = Math.max(gapS, times[i] - times[i - 1])
  const last = times[times.length - 1]
  const between = r.mostWarming * Math.min(1, (gapS / r.warmingS) ** 2 / 8)
  return Math.max(between, warmingWithin(durationS) - warmingWithin(last))
}

/** Drops what stands above the fit, until only the envelope is left. */
function lowerEnvelope(moments: Moment[], durationS: number, expectedPsi: number, grain: number): Moment[] {
  const { envelopeShare, leastMoments } = extensionRules
  let kept = moments
  for (let round = 0; round < 12 && kept.length > leastMoments; round++) {
    const { line, offset } = fitLine(kept, durationS, expectedPsi)
    const next = kept.filter(
      (m) => m.absolutePsi <= expectedPsi * (line(m.atS) + offset) * (1 + envelopeShare + grain),
    )
    if (next.length === kept.length || next.length < leastMoments) break
    kept = next
  }
  return kept
}

const intervals = 16

/**
 * Smooth pressure at full extension over the expected one: knots, straight between them, near the moments less what
 * units hang deeper or less deep than usual (one number for the ride), near 1 at the start, and bending little.
 * Penalised least squares (Whittaker 1923), solved exactly.
 *
 * @param startSd how firmly the start is held to 1
 */
function fitLine(
  moments: readonly Moment[],
  durationS: number,
  expectedPsi: number,
  startSd: number = extensionRules.expectedSd,
): { line: (atS: number) => number; offset: number } {
  const r = extensionRules
  const n = intervals + 2
  const own = n - 1
  const matrix = new Float64Array(n * n)
  const right = new Float64Array(n)
  /** One equation Σ c·unknown = value with a standard deviation. */
  const add = (terms: readonly [number, number][], value: number, sd: number) => {
    for (const [i, ci] of terms) {
      right[i] += (ci * value) / sd ** 2
      for (const [j, cj] of terms) matrix[i * n + j] += (ci * cj) / sd ** 2
    }
  }
  add([[0, 1]], 1, startSd)
  add([[own, 1]], 0, r.hangingSd)
  for (const m of moments) {
    const x = Math.min(intervals - 1e-9, (intervals * m.atS) / durationS)
    const i = Math.floor(x)
    add(
      [
        [i, 1 - (x - i)],
        [i + 1, x - i],
        [own, 1],
      ],
      m.absolutePsi / expectedPsi,
      r.momentSd,
    )
  }
  for (let i = 1; i < intervals; i++)
    add(
      [
        [i - 1, 1],
        [i, -2],
        [i + 1, 1],
      ],
      0,
      r.bendSd,
    )
  const knots = choleskySolve(cholesky(matrix, n), n, right)
  return {
    offset: knots[own],
    line: (atS) => {
      const x = Math.max(0, Math.min(intervals - 1e-9, (intervals * atS) / durationS))
      const i = Math.floor(x)
      return knots[i] + (knots[i + 1] - knots[i]) * (x - i)
    },
  }
}
