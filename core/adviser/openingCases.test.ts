import { describe, expect, it } from 'vitest'
import type { FeelWord } from '#contract/run'
import { seededRandom } from '../numeric/random.ts'
import { DayBuilder, fork, shock } from '../test/dayBuilder.ts'
import { advise } from './advise.ts'
import { faultsOf, frontSpacers, start, withSag, type Case } from './test/fieldCase.ts'
import type { SetupSpace } from './dayHistory.ts'

const spaced: SetupSpace = { front: { ...fork, adjusters: [...fork.adjusters, frontSpacers] }, rear: shock }
const none = { ...start, fp: 66, fs: 0 }
const linked = { linked: true }
const spacerIn = /front spacers, 1 spacer more/i

/** The morning of a rider whose fork was opened for a spacer that made it worse, and opened again to take it out. */
const inAndOut = (psi: { in: number; out: number }, rating: number) =>
  new DayBuilder(none)
    .run(6, [{ word: 'blows-through', end: 'front' }])
    .change({ fs: 1, fp: psi.in }, linked)
    .run(rating, [{ word: 'harsh-everywhere', end: 'front' }])
    .change({ fs: 0, fp: psi.out }, linked)

const cases: Case[] = [
  {
    day: 'A spacer went in, was worse and came out; then the best run of the day',
    bike: spaced,
    story: () =>
      inAndOut({ in: 62, out: 66 }, 5.5)
        .run(7, [{ word: 'grips', end: 'front' }])
        .history(),
    card: ['change', 'separating-test', 'repeat', 'leave-it', 'check-first'],
    never: spacerIn,
    why: 'Nobody opens a fork twice in a morning to find out the same',
  },
  {
    day: 'The same, and the air went back to one psi beside the old number',
    bike: spaced,
    story: () =>
      inAndOut({ in: 61, out: 67 }, 5.5)
        .run(7, [{ word: 'grips', end: 'front' }])
        .history(),
    card: ['change', 'separating-test', 'repeat', 'leave-it', 'check-first'],
    never: spacerIn,
    why: 'Another pressure is no other spacer',
  },
  {
    day: 'A spacer came out and it was much better',
    bike: spaced,
    story: () =>
      new DayBuilder({ ...none, fs: 1, fp: 62 })
        .run(4, [{ word: 'harsh-everywhere', end: 'front' }])
        .change({ fs: 0, fp: 66 }, linked)
        .run(6.5, [{ word: 'blows-through', end: 'front', strength: 1 }])
        .history(),
    card: ['ask', 'change', 'separating-test', 'repeat', 'leave-it', 'check-first'],
    never: spacerIn,
    why: 'Taken out for the better is put in for the worse',
  },
  {
    day: 'It bottoms twice with right sag; no spacer was moved today',
    bike: spaced,
    story: () =>
      withSag(
        new DayBuilder({ ...none, fs: 1 })
          .run(5, [{ word: 'bottoms', end: 'front', strength: 3 }])
          .run(5, [{ word: 'bottoms', end: 'front', strength: 3 }])
          .history(),
        { front: 20, rear: 30 },
      ),
    card: 'change',
    moves: ['front spacers 1→2', 'front pressure softer'],
    why: 'Sag is right and it bottoms: this is what spacers are for, and nothing speaks against one',
  },
]

describe('units are opened for a reason', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))

  it('what was fitted and clearly worse is not fitted again that day, whatever is said after', () => {
    const words: FeelWord[] = ['bottoms', 'blows-through', 'dives', 'harsh-everywhere', 'washes-out', 'grips']
    // Of forty days drawn like this, these once put it in again, on the card or behind a question.
    for (const seed of [4, 9, 17, 19, 37]) {
      const random = seededRandom(seed)
      const pick = () => words[Math.floor(random() * words.length)]
      const said = () => [{ word: pick(), end: 'front' as const }]
      const before = new DayBuilder(none).run(6 + random(), said())
      before.change({ fs: 1, fp: 60 + Math.floor(4 * random()) }, linked).run(4.6 + random() / 2, said())
      before.change({ fs: 0, fp: 65 + Math.floor(3 * random()) }, linked)
      for (let n = 0; n < 3; n++) {
        before.run(5.5 + 2 * random(), said())
        const card = advise(before.history(), spaced)
        const fitted = card.moves.find((m) => m.adjusterId === 'fs')
        expect(fitted?.to ?? 0, `seed ${seed}: ${card.headline}`).toBe(0)
        const ways = card.question?.answers.map((a) => a.leadsTo).join(' | ') ?? ''
        expect(ways, `seed ${seed}: ${card.headline}`).not.toMatch(spacerIn)
        before.change({ fc: 7 - n })
      }
    }
  })

  it('what was said of settings before a turn is not new since the turn back', () => {
    const card = advise(
      inAndOut({ in: 62, out: 66 }, 5.5)
        .run(7, [{ word: 'grips', end: 'front' }])
        .history(),
      spaced,
    )
    expect(card.causes.flatMap((x) => x.evidence.map((e) => e.text)).join('|')).not.toMatch(/New since/)
  })
})
