import type { FeelWord, Mark } from '#contract/run'
import { isComplaint, wordRules } from '../../causes/words.ts'
import { seededRandom } from '../../numeric/random.ts'
import {
  DayBuilder,
  fork,
  rearPressure,
  rearRebound,
  rearSpacers,
  shock,
  startPositions,
} from '../../test/dayBuilder.ts'
import type { DayHistory, SetupSpace } from '../dayHistory.ts'
import { rearHsc, withSag } from './fieldCase.ts'

export const drawnBike: SetupSpace = {
  front: fork,
  rear: { ...shock, adjusters: [rearPressure, rearRebound, rearHsc, rearSpacers] },
}

const dials = {
  fp: [40, 140, 4],
  fc: [0, 16, 1],
  fr: [0, 12, 1],
  rp: [100, 300, 8],
  rr: [0, 14, 1],
  rh: [0, 8, 1],
} as const
const ends = ['front', 'rear', 'both'] as const
const all = Object.keys(wordRules) as FeelWord[]

/** A day as it may come: one to five runs, turns between them, words of which one comes back, sag read or not. */
export function drawnDay(seed: number): DayHistory {
  const random = seededRandom(seed)
  const of = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]
  const said = all.filter(isComplaint)
  const theme = of(said)
  const at: Record<string, number> = { ...startPositions, rh: 4 }
  const day = new DayBuilder(at)
  const runs = 1 + Math.floor(random() * 5)
  for (let n = 0; n < runs; n++) {
    if (n > 0 && random() < 0.6) {
      const id = of(Object.keys(dials) as (keyof typeof dials)[])
      const [low, high, step] = dials[id]
      at[id] = Math.min(high, Math.max(low, at[id] + of([-2, -1, 1, 2]) * step))
      day.change({ [id]: at[id] })
    }
    const marks = Array.from({ length: Math.floor(random() * 4) }, (): Partial<Mark> => ({
      word: random() < 0.6 ? theme : of(all),
      end: of(ends),
      strength: of([1, 2, 3] as const),
      sectionId: of([null, null, 'roots']),
    }))
    day.run(random() < 0.1 ? null : 3 + Math.floor(random() * 13) / 2, marks)
  }
  const sag = of([null, { front: 20, rear: 30 }, { front: 18, rear: 36 }])
  return sag ? withSag(day.history(), sag) : day.history()
}
