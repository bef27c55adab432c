import type { Adjuster } from '#contract/adjuster'
import { judgeDay } from '#core/adviser/judge'
import { seededRandom } from '#core/numeric/random'
import { DayBuilder, fork, frontLsc, shock, startPositions } from '#core/test/dayBuilder'
import { medianMs, type Row } from './measure.ts'

const hsc = (id: string): Adjuster => ({ ...frontLsc, id, role: 'high-speed-compression' }) as Adjuster

/** One proposal, with everything known, after a long day of 60 runs on eight adjusters. */
export function adviceRows(): Row[] {
  const random = seededRandom(9)
  const space = {
    front: { ...fork, adjusters: [...fork.adjusters, hsc('fh')] },
    rear: { ...shock, adjusters: [...shock.adjusters, hsc('rh')] },
  }
  const d = new DayBuilder({ ...startPositions, fh: 8, rh: 8 }).allow(1000)
  for (let i = 0; i < 60; i++) {
    if (i % 3 === 2)
      d.change(i % 2 ? { rr: Math.floor(random() * 14) } : { fc: Math.floor(random() * 16) }, {
        source: 'proposal',
      })
    // A word that stands alone is weighed against all dials: dearer than two.
    const said = [{ word: 'harsh-gets-worse' }, { word: 'dives', end: 'front' }] as const
    d.run(4 + Math.round(random() * 8) / 2, i % 2 ? said.slice(0, 1) : [...said])
  }
  const h = d.history()
  return [
    {
      work: 'next change after 60 runs, 8 adjusters, in its worker',
      figure: medianMs(() => judgeDay(h, space)),
      unit: 'ms',
      against: 'bar ≤ 100 ms',
    },
  ]
}
