import { seededRandom } from '#core/numeric/random'
import { recordingOf } from '#core/test/synthetic'
import { buildPyramid, viewOf } from '#core/signal/pyramid'
import { analyse } from '#core/telemetry/analyse'
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { extraBytes, medianMs, type Row } from './measure.ts'

const samples = 600_000

/** Time of the same job in the usual scientific libraries; null where they are not at hand. */
function referenceMs(): number | null {
  const { status, stdout } = spawnSync('python3', [join(import.meta.dirname, 'reference.py')], {
    encoding: 'utf8',
  })
  const ms = Number(stdout)
  return status === 0 && ms > 0 ? ms : null
}

/** Full analysis of 2 × 600,000 samples, and drawing views of it. */
export function analysisRows(): Row[] {
  const random = seededRandom(3)
  const noise = Float64Array.from({ length: samples }, () => random())
  const ride = (phase: number) => (t: number) =>
    25 +
    12 * Math.sin(7 * t + phase) +
    8 * Math.max(0, Math.sin(1.3 * t)) ** 8 +
    2 * noise[Math.round(t * 1000) % samples]
  const recording = recordingOf(ride(0), ride(0.4), { durationS: samples / 1000, sampleRateHz: 1000 })
  const channelBytes = 2 * samples * 8
  const full = medianMs(() => analyse(recording, []), 9)
  // In turns, for a machine that slows down between the two would change the ratio.
  const rounds = [1, 2, 3].flatMap(() => {
    const theirs = referenceMs()
    return theirs === null ? [] : [{ theirs, ratio: medianMs(() => analyse(recording, [])) / theirs }]
  })
  const middle = rounds.sort((a, b) => a.ratio - b.ratio)[rounds.length >> 1]
  const depth = Float32Array.from(recording.depthPct.front!)
  const pyramid = buildPyramid(depth)
  let from = 0
  const view = medianMs(() => {
    for (let i = 0; i < 100; i++)
      viewOf(depth, pyramid, (from = (from + 4111) % 300_000), from + 300_000, 1280)
  })
  return [
    {
      work: 'full analysis of 2 × 600,000 samples',
      figure: full,
      unit: 'ms',
      against: 'filters, speed, spectrum, hits, trains, figures',
    },
    ...(middle === undefined
      ? []
      : [
          {
            work: 'analysis, ours ÷ numpy and scipy on one thread',
            figure: middle.ratio,
            unit: '×',
            against: `bar ≤ 1.0 × (theirs ${Math.round(middle.theirs)} ms)`,
          },
        ]),
    {
      work: 'analysis, arrays left at the end ÷ channel data',
      figure: extraBytes(() => analyse(recording, [])) / channelBytes,
      unit: '×',
      against: 'bar for the peak ≤ 6 ×',
    },
    {
      work: 'build the drawing blocks of 600,000 samples',
      figure: medianMs(() => buildPyramid(depth)),
      unit: 'ms',
      against: 'once per channel',
    },
    {
      work: 'one view of 300,000 samples, 1280 columns',
      figure: view / 100,
      unit: 'ms',
      against: 'a frame is 16 ms',
    },
  ]
}
