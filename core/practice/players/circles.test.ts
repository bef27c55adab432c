import { expect, it } from 'vitest'
import { hiddenRider } from '../hiddenRider.ts'
import { drillOf } from '../drills.ts'
import { followsAdviser } from './adviser.ts'
import { playOut } from './play.ts'

/** What was ridden, and what was proposed and turned, of a day on which every card is followed. */
function followed(drill: string, seed: number) {
  const adviser = followsAdviser()
  const rider = hiddenRider(drillOf(drill)!, seed)
  const turns: { step: string; words: string; rated: number[]; there: number[] }[] = []
  const key = (positions: Record<string, number>) =>
    JSON.stringify(Object.entries(positions).sort(([a], [b]) => a.localeCompare(b)))
  playOut(
    rider,
    {
      act: (day) => {
        const act = adviser.act(day)
        if (act === 'ride' || act.do !== 'turn' || act.source === 'revert') return act
        const ratings = new Map<string, number[]>()
        day.runs.forEach((r, i) => {
          const of = key(r.positions)
          ratings.set(of, [...(ratings.get(of) ?? []), day.bundle.feels[i].rating ?? 0])
        })
        const moved = Object.entries(act.to).filter(([id, to]) => to !== day.written[id])
        const to = { ...day.positions, ...act.to }
        turns.push({
          step: `${key(day.positions)} → ${key(to)}`,
          words: moved.map(([id, to]) => `${id} ${day.written[id]}→${to}`).join(', '),
          rated: ratings.get(key(day.positions)) ?? [],
          there: ratings.get(key(to)) ?? [],
        })
        return act
      },
    },
    12,
  )
  return turns
}
const mean = (x: readonly number[]) => x.reduce((s, v) => s + v, 0) / x.length

// Riders whose days went round: a spacer in, out, in and out again, by the words of the run before.
it.each([
  ['bottoms', 104],
  ['bottoms', 120],
  ['bottoms', 122],
])('who does what the cards say does not go in circles: %s %d', (drill, seed) => {
  const turns = followed(drill, seed)
  expect(turns.length).toBeGreaterThan(2)
  for (const { words, rated, there } of turns)
    if (rated.length > 0 && there.length > 0)
      expect(
        mean(there),
        `${words}: rated ${there.join(', ')} there and ${rated.join(', ')} here`,
      ).toBeGreaterThan(mean(rated) - 1.5)
  // Once more from the same place may be right after a doubtful ride; a third time is a circle.
  const steps = turns.map((t) => t.step)
  expect(steps.filter((s) => steps.filter((x) => x === s).length > 2)).toEqual([])
})
