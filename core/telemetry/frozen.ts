import type { End } from '#contract/common'
import type { CleanRecording } from './cleanRecording.ts'
import { issue } from './issues.ts'

export const frozenRules = {
  /** Nobody's suspension stands at one number to the last digit for so long while the other end moves, s. */
  leastS: 2,
  /** A wheel that is carried, as on a manual, does; at full extension it takes longer, s. */
  leastExtendedS: 5,
  /** So near its lowest reading an end hangs, % of travel. */
  extendedPct: 2,
  /** The other end has to move so far meanwhile, % of travel. */
  otherMovesPct: 15,
} as const

/** How long an end stood frozen, s, and how often. */
export interface Frozen {
  end: End
  stretches: number
  seconds: number
}

/**
 * Turns stretches into gaps, in place, in which a sensor says the same number again and again while the other end moves: a
 * lost link repeats its last reading, and no jump tells of it. A bike that stands still moves at neither end and is left
 * alone; so is a file with one end.
 */
export function gapFrozen({
  depthPct,
  sampleRateHz,
}: Pick<CleanRecording, 'depthPct' | 'sampleRateHz'>): Frozen[] {
  const { front, rear } = depthPct
  if (!front || !rear) return []
  // Both are looked for before either is changed: what froze at the same time moves at neither end.
  const found = [
    { end: 'front' as const, x: front, spans: frozenSpans(front, rear, sampleRateHz) },
    { end: 'rear' as const, x: rear, spans: frozenSpans(rear, front, sampleRateHz) },
  ]
  return found.flatMap(({ end, x, spans }) => {
    let samples = 0
    for (const [from, to] of spans) {
      x.fill(NaN, from, to)
      samples += to - from
    }
    return spans.length > 0 ? [{ end, stretches: spans.length, seconds: samples / sampleRateHz }] : []
  })
}

/** The same, told on the recording. */
export function tellFrozen(r: CleanRecording): void {
  for (const { end, stretches, seconds } of gapFrozen(r)) {
    const often = stretches > 1 ? ` in ${stretches} stretches` : ''
    r.issues.push(
      issue(
        'frozen',
        `${end === 'front' ? 'Front' : 'Rear'} travel says one number again and again for ${Math.round(10 * seconds) / 10} s${often} while the other end moves: a link that was lost repeats its last reading. It was left as a gap; look at the plug and the battery of that sensor. An end that was locked out looks the same.`,
        stretches,
      ),
    )
  }
}

function frozenSpans(x: Float64Array, other: Float64Array, sampleRateHz: number): [number, number][] {
  const r = frozenRules
  let lowest = Infinity
  for (const v of x) if (v < lowest) lowest = v
  const out: [number, number][] = []
  for (let from = 0; from < x.length;) {
    let to = from + 1
    while (to < x.length && x[to] === x[from]) to++
    const least = x[from] <= lowest + r.extendedPct ? r.leastExtendedS : r.leastS
    if (to - from >= least * sampleRateHz && spanOf(other, from, to) >= r.otherMovesPct) out.push([from, to])
    from = to
  }
  return out
}

function spanOf(x: Float64Array, from: number, to: number): number {
  let [low, high] = [Infinity, -Infinity]
  for (let i = from; i < to; i++) {
    if (x[i] < low) low = x[i]
    if (x[i] > high) high = x[i]
  }
  return high - low
}
