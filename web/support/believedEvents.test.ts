// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest'
import type { RecordingEvent } from '#contract/recording'
import { analysisWith } from '#core/test/dayBuilder'
import type { DrawableRecording } from '../composables/useRecording.ts'
import { believedEvents } from './believedEvents.ts'
import { mirrorMarks } from './mirrorOption.ts'

const event = (kind: RecordingEvent['kind'], end: RecordingEvent['end']): RecordingEvent => ({
  kind,
  end,
  startS: 1,
  endS: 2,
  value: 900,
})
const events = (['front', 'rear'] as const).flatMap((end) =>
  (['hit', 'train', 'landing', 'top-out', 'bottom-out', 'hard-bottom-out'] as const).map((k) =>
    event(k, end),
  ),
)

describe('a sensor whose zero has moved', () => {
  it('leaves its hits and trains, and none of what is told from a depth; the other end keeps all', () => {
    const left = believedEvents(events, ['front'])
    expect(left.filter((e) => e.end === 'front').map((e) => e.kind)).toEqual(['hit', 'train'])
    expect(left.filter((e) => e.end === 'rear')).toHaveLength(6)
    expect(believedEvents(events, [])).toEqual(events)
  })
  it('draws neither where it rides nor where it bottomed over its course', () => {
    const analysis = { ...analysisWith({ rideHeightPct: 28 }, { rideHeightPct: 31 }), events }
    const main = { recording: { analysis, durationS: 60 } } as unknown as DrawableRecording
    const over = (wrongDepths: readonly ('front' | 'rear')[]) => {
      const [m] = mirrorMarks({ main, other: null, pieces: null, sections: [], wrongDepths, perS: 10 }).series
      const labels = m.markLine.data.flatMap((d) => ('formatter' in d.label ? [d.label.formatter] : []))
      return { labels, bottoms: m.markPoint.data.map((d) => Math.sign(d.yAxis)) }
    }
    expect(over([])).toEqual({
      labels: ['front rides at 28 %', 'rear rides at 31 %'],
      bottoms: [1, 1, -1, -1],
    })
    expect(over(['front'])).toEqual({ labels: ['rear rides at 31 %'], bottoms: [-1, -1] })
  })
})
