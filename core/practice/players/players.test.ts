import { describe, expect, it } from 'vitest'
import { advise } from '../../adviser/advise.ts'
import { historyOf, spaceOfDay } from '../../adviser/history.ts'
import { practiceDay, type PracticeAct } from '../day.ts'
import { drillOf } from '../drills.ts'
import { hiddenRider } from '../hiddenRider.ts'
import { lossesOf } from '../review/losses.ts'
import { followsAdviser } from './adviser.ts'
import { playOut, type Player } from './play.ts'
import { disciplinedTester } from './tester.ts'

const rider = (drill: string, seed: number) => hiddenRider(drillOf(drill)!, seed)
const turns = (acts: readonly PracticeAct[]) => acts.filter((a) => a.do === 'turn')

describe('players of practice', () => {
  it('the tester changes one thing at a time, and keeps only what was rated higher', () => {
    for (const seed of [11, 12]) {
      const r = rider('two-faults', seed)
      const acts = playOut(r, disciplinedTester(r), 9)
      for (const t of turns(acts)) expect(Object.keys(t.to)).toHaveLength(1)
      const { runs, bundle } = practiceDay(r, acts)
      runs.forEach((run, i) => {
        const tried = run.since.filter((a) => a.do === 'turn' && a.source === 'own-idea')
        expect(tried.length).toBeLessThanOrEqual(1)
        if (run.since.some((a) => a.do === 'turn' && a.source === 'revert'))
          expect(bundle.feels[i - 1].rating!).toBeLessThanOrEqual(
            Math.max(...bundle.feels.slice(0, i - 1).map((f) => f.rating!)),
          )
      })
    }
  })

  it('the tester asks nothing and reads nothing; the adviser leaves the bike ridable and settles or rides on', () => {
    const r = rider('kicks', 21)
    const alone = playOut(r, disciplinedTester(r), 6)
    expect(alone.filter((a) => a.do === 'ask' || a.do === 'read')).toEqual([])
    const led = playOut(r, followsAdviser(), 6)
    expect(led.filter((a) => a.do === 'ride').length).toBeLessThanOrEqual(6)
    expect(lossesOf(r, led).left).toBeLessThan(r.lossAt(r.start, 1))
  })

  it('the same player does the same with the same rider', () => {
    const once = () => playOut(rider('few-dials', 3), followsAdviser(), 4)
    expect(once()).toEqual(once())
  })

  it('a player that never rides is an error, not a page that hangs', () => {
    const turner: Player = {
      act: ({ positions }) => ({
        do: 'turn',
        to: { rr: positions.rr === 3 ? 4 : 3 },
        linked: false,
        text: '',
        source: 'own-idea',
      }),
    }
    expect(() => playOut(rider('few-dials', 1), turner, 3)).toThrow(/does not ride/)
  })

  it('tells of every run', () => {
    const seen: number[] = []
    const r = rider('first-lesson', 1)
    const acts = playOut(r, disciplinedTester(r), 12, (run) => seen.push(run))
    expect(seen).toEqual(acts.filter((a) => a.do === 'ride').map((_, i) => i + 1))
  })
})

describe('the adviser, with a rider who was asked', () => {
  it('turns nothing at the other end to find something out while the answer stands', () => {
    // Harsh everywhere in front, strong, from the first bump: it once took air out of the shock, “little is known yet”.
    const told: PracticeAct[] = [
      { do: 'ride', ringMm: { front: 125, rear: 49 } },
      { do: 'ask', question: 'harsh-when', end: 'front' },
      { do: 'ask', question: 'tyres-now', end: null },
    ]
    const { bundle } = practiceDay(rider('made-firmer', 4), told)
    expect(bundle.feels[0].marks).toMatchObject([{ word: 'harsh-everywhere', end: 'front', strength: 3 }])
    const card = advise(historyOf(bundle), spaceOfDay(bundle))
    expect(card.moves.map((m) => m.end)).not.toContain('rear')
  })
})
