import { buildPyramid, viewOf } from '#core/signal/pyramid'
import { analyse } from '#core/telemetry/analyse'
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { longRide } from './longRide.ts'
import { medianMs, type Row } from './measure.ts'

/** Most memory held while analysing, in channels; null where the system does not tell. */
function peakInChannels(): number | null {
  const { status, stdout } = spawnSync(
    process.execPath,
    [...process.execArgv, join(import.meta.dirname, 'analysisPeak.ts')],
    { encoding: 'utf8' },
  )
  return status === 0 ? Number(stdout) : null
}

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
  const { recording } = longRide()
  const full = medianMs(() => analyse(recording, []), 9)
  // In turns, for a machine that slows down between the two would change the ratio.
  const rounds = Array.from({ length: 10 }, () => {
    const theirs = referenceMs()
    return theirs === null ? [] : [{ theirs, ratio: medianMs(() => analyse(recording, [])) / theirs }]
  }).flat()
  const middle = rounds.sort((a, b) => a.ratio - b.ratio).at(rounds.length >> 1)
  const peak = peakInChannels()
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
            against: `median of ten in turns; bar ≤ 0.9 × (theirs ${Math.round(middle.theirs)} ms)`,
          },
        ]),
    ...(peak === null
      ? []
      : [
          {
            work: 'analysis, most memory held ÷ channel data',
            figure: peak,
            unit: '×',
            against: 'resident in a process of its own; bar ≤ 4 ×',
          },
        ]),
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
