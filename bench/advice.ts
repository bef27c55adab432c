import { advise } from '#core/adviser/advise'
import { summarise } from '#core/adviser/summary'
import { seededRandom } from '#core/sim/random'
import { DayBuilder, space } from '#core/test/dayBuilder'
import { medianMs, type Row } from './measure.ts'

/** One proposal after a long day of 60 runs. */
export function adviceRows(): Row[] {
  const random = seededRandom(9)
  const d = new DayBuilder().allow(30)
  for (let i = 0; i < 60; i++) {
    if (i % 3 === 2)
      d.change({ rr: Math.floor(random() * 14), fc: Math.floor(random() * 16) }, { linked: true })
    d.run(4 + Math.round(random() * 8) / 2, [{ word: 'harsh-gets-worse' }, { word: 'dives', end: 'front' }])
  }
  const h = d.history()
  return [
    {
      work: 'next change after 60 runs, 6 adjusters',
      figure: medianMs(() => (advise(h, space), summarise(h, space))),
      unit: 'ms',
      against: 'bar ≤ 100 ms at 8 adjusters',
    },
  ]
}
