import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Proposal } from '#contract/proposal'
import type { FeelWord } from '#contract/run'
import { cannotSay } from '../causes/questions.ts'
import { isComplaint, wordRules } from '../causes/words.ts'
import {
  DayBuilder,
  fork,
  frontLsc,
  frontRebound,
  rearRebound,
  shock,
  startPositions,
} from '../test/dayBuilder.ts'
import { advise } from './advise.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { answersOf } from './remedies.ts'
import { coil, faultsOf, withSag, without, type Case } from './test/fieldCase.ts'

// What follows a turn that was made for a word: told for every word, at either end, on bikes with many parts and few.

const right = { front: 20, rear: 30 }

const cases: Case[] = [
  {
    day: '“Bounces on” rear, 5; two clicks slower, 8.5, better, not a word',
    story: () =>
      withSag(
        new DayBuilder()
          .run(5, [{ word: 'pogo', end: 'rear' }])
          .change({ rr: 5 })
          .run(8.5, [], { against: [1, 2] })
          .run(8.5)
          .history(),
        right,
      ),
    card: ['leave-it', 'repeat', 'settled'],
    moves: [],
    why: 'The complaint is gone and the ride is liked: nothing is turned to find out',
  },
  {
    day: '“Bounces on” rear, 5; two clicks slower, 3.5, and it still bounces on',
    story: () =>
      withSag(
        new DayBuilder()
          .run(5, [{ word: 'pogo', end: 'rear' }])
          .change({ rr: 5 })
          .run(3.5, [{ word: 'pogo', end: 'rear' }])
          .history(),
        right,
      ),
    card: ['go-back', 'repeat', 'check-first', 'change', 'ask'],
    never: /Rear rebound.*slower/,
    why: 'Rated a point and a half lower, it is not turned on the same way as if nobody had rated it',
  },
  {
    day: 'A coil shock; “dead” in the rear, rebound faster twice, and it is the same',
    bike: {
      front: fork,
      rear: { ...shock, spring: 'coil', adjusters: [coil, rearRebound] },
    },
    story: () =>
      withSag(
        new DayBuilder({ fp: 80, fc: 8, fr: 6, coil: 75, rr: 7 })
          .run(5, [{ word: 'dead', end: 'rear' }])
          .change({ rr: 9 })
          .run(5, [{ word: 'dead', end: 'rear' }], { against: [1, 0] })
          .change({ rr: 11 })
          .run(5, [{ word: 'dead', end: 'rear' }], { against: [2, 0] })
          .history(),
        right,
      ),
    card: ['check-first', 'change', 'ask', 'go-back', 'read', 'repeat'],
    never: /^Front/,
    why: 'The rear was complained of three times: the front is not turned to find something out',
  },
]

describe('cases of what follows a turn', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
})

const few = (u: typeof fork, ...ids: string[]) => ({ ...u, adjusters: without(u.adjusters, ...ids) })
const bikes: Record<string, SetupSpace> = {
  usual: { front: fork, rear: shock },
  few: { front: few(fork, 'fc'), rear: few(shock, 'rs') },
  coil: { front: fork, rear: { ...shock, spring: 'coil', adjusters: [coil, rearRebound] } },
}
/** The dials that the tables of words do not draw from. */
const turned: readonly Adjuster[] = [frontLsc, frontRebound, rearRebound]
const words = (Object.keys(wordRules) as FeelWord[]).filter(isComplaint)
const told = words.flatMap((word) => (['front', 'rear'] as const).map((end) => [word, end] as const))

/** A day that does what its cards say: asked, nobody can say; sag that is to be read is right. */
class Day {
  readonly day: DayBuilder
  private now: Record<string, number>
  runs = 0

  constructor(private readonly bike: SetupSpace) {
    const ids = [bike.front, bike.rear].flatMap((u) => u?.adjusters.map((a) => a.id) ?? [])
    this.now = Object.fromEntries(ids.map((id) => [id, id === 'coil' ? 75 : startPositions[id]]))
    this.day = new DayBuilder(this.now)
  }

  history = (): DayHistory => withSag(this.day.history(), right)

  ride(rating: number, said: [FeelWord, End] | null, against: -1 | 0 | 1 | 2 | null): void {
    this.runs++
    this.day.run(
      rating,
      said ? [{ word: said[0], end: said[1] }] : [],
      against === null ? {} : { against: [this.runs - 1, against] },
    )
  }

  next(): Proposal {
    let p = advise(this.history(), this.bike)
    for (let i = 0; i < 4 && (p.question ?? p.readEnd ?? p.lookAt[0]); i++) {
      if (p.question) this.day.answer({ question: p.question.id, end: p.question.end, answer: cannotSay })
      else if (p.readEnd) this.day.readSag(p.readEnd, right[p.readEnd])
      else this.day.look(Object.fromEntries(p.lookAt.map((id) => [id, this.now[id]])))
      p = advise(this.history(), this.bike)
    }
    return p
  }

  /** Does what the card says. @returns false: nothing was turned */
  follow(p: Proposal): boolean {
    const to = Object.fromEntries(p.moves.map((m) => [m.adjusterId, m.to]))
    if (p.moves.length === 0) return false
    this.now = { ...this.now, ...to }
    this.day.change(to, { source: 'proposal', linked: p.moves.length > 1 })
    return true
  }
}

describe.each(Object.entries(bikes))('on the bike “%s”, whatever is said', (_name, bike) => {
  it('what is gone, and liked for it, is not followed by a turn that is expected to lose', () => {
    const faults = told.flatMap(([word, end]) => {
      const day = new Day(bike)
      day.ride(5, [word, end], null)
      if (!day.follow(day.next())) return []
      day.ride(8.5, null, 2)
      const p = day.next()
      return p.moves.length > 0 && (p.outlook?.gain ?? 0) < 0 ? [`${word} ${end}: ${p.headline}`] : []
    })
    expect(faults).toEqual([])
  })

  it('a turn that is rated clearly lower is not made further by the surface', () => {
    const faults = told.flatMap(([word, end]) => {
      const day = new Day(bike)
      day.ride(5, [word, end], null)
      const first = day.next()
      if (!day.follow(first)) return []
      day.ride(3.5, [word, end], null)
      const p = day.next()
      const further = p.moves.filter((m) =>
        first.moves.some(
          (x) =>
            x.adjusterId === m.adjusterId &&
            turned.some((a) => a.id === m.adjusterId) &&
            Math.sign(x.to - x.from) === Math.sign(m.to - m.from),
        ),
      )
      return further.length > 0 ? [`${word} ${end}: ${first.headline}, then ${p.headline}`] : []
    })
    expect(faults).toEqual([])
  })

  it('the other end is not turned to find out while one is complained of', () => {
    const faults = told.flatMap(([word, end]) => {
      const ends = wordRules[word].causes.flatMap((x) =>
        x.at === 'same' ? [end] : x.at === 'bike' ? (['front', 'rear'] as const) : [x.at],
      )
      const asked = wordRules[word].causes.flatMap((x) =>
        answersOf(x.kind, x.at === 'same' ? end : x.at === 'bike' ? null : x.at, bike),
      )
      const day = new Day(bike)
      day.ride(5, [word, end], null)
      for (let turn = 0; turn < 3; turn++) {
        const p = day.next()
        const strays = p.moves.some(
          (m) => m.end !== end && !asked.some((a) => a.adjuster.id === m.adjusterId),
        )
        if (strays && !ends.includes(end === 'front' ? 'rear' : 'front') && (p.outlook?.gain ?? 0) < 0)
          return [`${word} ${end}, turn ${turn + 1}: ${p.headline}`]
        if (!day.follow(p)) break
        day.ride(5, [word, end], 0)
      }
      return []
    })
    expect(faults).toEqual([])
  })
})
