import { describe, expect, it } from 'vitest'
import type { Answer } from '#contract/question'
import { cannotSay } from '../causes/questions.ts'
import { DayBuilder, space } from '../test/dayBuilder.ts'
import { advise } from './advise.ts'
import { withAnswer } from './answers.ts'
import type { DayHistory } from './dayHistory.ts'
import { keyOfRun, sessionOf } from './history.ts'
import { outlookOf } from './decide.ts'
import { faultsOf, withSag, type Case } from './test/fieldCase.ts'

const right = { front: 20, rear: 30 }
const told = (answer: string): Answer => ({ question: 'than-before', end: null, answer })
/** Dead in the rear, its rebound two clicks faster, and the same number again. */
const alike = (second = 5) =>
  new DayBuilder()
    .run(5, [{ word: 'dead', end: 'rear' }])
    .change({ rr: 9 })
    .run(second, [{ word: 'dead', end: 'rear', strength: 1 }])

const cases: Case[] = [
  {
    day: 'Dead in the rear, rebound two clicks faster; 5 both times',
    story: () => withSag(alike().history(), right),
    card: 'ask',
    says: /Better or worse than run 1\? .* both rated 5/,
    why: 'The number is the same, and nobody said what the turn did: asking tells what another run would not',
  },
  {
    day: 'The same, rated 6.5',
    story: () => withSag(alike(6.5).history(), right),
    card: ['change', 'repeat', 'go-back', 'leave-it'],
    never: /Better or worse/,
    why: 'The numbers say it',
  },
  {
    day: 'The same, said to be better',
    story: () =>
      withSag(
        new DayBuilder()
          .run(5, [{ word: 'dead', end: 'rear' }])
          .change({ rr: 9 })
          .run(5, [{ word: 'dead', end: 'rear', strength: 1 }], { against: [1, 1] })
          .history(),
        right,
      ),
    card: ['change', 'repeat', 'leave-it'],
    never: /Better or worse/,
    why: 'Said already',
  },
  {
    day: 'The same on a race day',
    story: () => ({ ...withSag(alike().history(), right), purpose: 'race' as const }),
    card: ['leave-it', 'repeat', 'go-back', 'change'],
    never: /Better or worse/,
    why: 'Nothing new is looked for',
  },
  {
    day: 'The same, with the front tyre 4 psi lower',
    story: () =>
      withSag(
        new DayBuilder()
          .run(5, [{ word: 'dead', end: 'rear' }], { tyreFrontPsi: 24 })
          .change({ rr: 9 })
          .run(5, [{ word: 'dead', end: 'rear', strength: 1 }], { tyreFrontPsi: 20 })
          .history(),
        right,
      ),
    card: ['change', 'repeat', 'check-first', 'leave-it', 'ask', 'untangle'],
    never: /Better or worse/,
    why: 'Not one thing differs: whatever is said is not said of the dial',
  },
  {
    day: 'Ridden twice on the same settings, 5 both times',
    story: () =>
      withSag(
        new DayBuilder()
          .run(5, [{ word: 'dead', end: 'rear' }])
          .run(5, [{ word: 'dead', end: 'rear' }])
          .history(),
        right,
      ),
    card: 'change',
    never: /Better or worse/,
    why: 'Nothing was turned between them',
  },
  {
    day: 'Nobody could say',
    story: () => withSag(alike().answer(told(cannotSay)).history(), right),
    card: ['change', 'repeat', 'leave-it'],
    never: /Better or worse/,
    why: 'Asked and answered',
  },
  {
    day: 'Nobody could say, twice; another turn, and 5 again',
    story: () =>
      withSag(
        alike()
          .answer(told(cannotSay))
          .change({ rr: 10 })
          .run(5, [{ word: 'dead', end: 'rear', strength: 1 }])
          .answer(told(cannotSay))
          .change({ rr: 11 })
          .run(5, [{ word: 'dead', end: 'rear', strength: 1 }])
          .history(),
        right,
      ),
    card: ['change', 'repeat', 'leave-it', 'go-back', 'read', 'check-first'],
    never: /Better or worse/,
    why: 'Who cannot say is not asked all day',
  },
]

const after = (h: DayHistory, answer: string) => withAnswer(h, 'run2', told(answer))

describe('cases of a number that says nothing', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))

  it('each answer leads where its card says, and much better leads another way than much worse', () => {
    // No other question is asked of a rear that bounces on.
    const pogo = [{ word: 'pogo' as const, end: 'rear' as const }]
    const day = new DayBuilder().run(5, pogo).change({ rr: 5 }).run(5, pogo)
    const h = withSag(day.history(), right)
    const { question } = advise(h, space)
    const ways = question!.answers.map((a) => [a.id, a.leadsTo, advise(after(h, a.id), space).headline])
    for (const [, said, is] of ways) expect(is).toBe(said)
    const to = new Map(ways.map(([id, said]) => [id, said]))
    expect(to.get('much-better')).not.toBe(to.get('much-worse'))
  })
})

describe('the answer', () => {
  const h = withSag(alike().history(), right)
  const byHand = (value: -2 | -1 | 0 | 1 | 2): DayHistory => ({
    ...h,
    runs: h.runs.map((r) =>
      r.run.id === 'run2' ? { ...r, feel: { ...r.feel!, verdicts: [{ againstRunId: 'run1', value }] } } : r,
    ),
  })
  const chance = (d: DayHistory) =>
    sessionOf(d).chanceOfBetter(keyOfRun(d, d.runs[0])!, keyOfRun(d, d.runs[1])!)

  it.each([
    ['much-better', 2],
    ['better', 1],
    ['same', 0],
    ['worse', -1],
    ['much-worse', -2],
  ] as const)('“%s” counts as the verdict given by hand', (answer, value) => {
    expect(after(h, answer).runs[1].feel!.verdicts).toEqual([{ againstRunId: 'run1', value }])
    expect(chance(after(h, answer))).toBe(chance(byHand(value)))
  })

  it('says as much to the surface as the same verdict that is fitted with the rest', () => {
    for (const [answer, value] of [
      ['much-better', 2],
      ['much-worse', -2],
    ] as const) {
      const [tapped, fitted] = [after(h, answer), byHand(value)].map((d) => outlookOf(d, space))
      const none = outlookOf(h, space)
      // The fit differs by the chance of its drawing; what the answer moves is several times that.
      expect(Math.abs(tapped.expectedLoss - fitted.expectedLoss)).toBeLessThan(
        0.4 * Math.abs(none.expectedLoss - fitted.expectedLoss) + 0.1,
      )
    }
  })

  it('counts no more once the verdict was given otherwise by hand, wherever that was done', () => {
    const tapped = after(h, 'much-better')
    const otherwise = (d: DayHistory) => ({
      ...d,
      runs: d.runs.map((r) =>
        r.run.id === 'run2'
          ? { ...r, feel: { ...r.feel!, verdicts: [{ againstRunId: 'run1', value: -2 as const }] } }
          : r,
      ),
    })
    const [stale, plain, told] = [otherwise(tapped), byHand(-2), tapped].map(
      (d) => outlookOf(d, space).expectedLoss,
    )
    expect(Math.abs(stale - plain)).toBeLessThan(0.2 * Math.abs(told - plain))
  })

  it('that nobody could say tells nothing of the dials', () => {
    expect(after(h, cannotSay).runs[1].feel!.verdicts).toEqual([])
    expect(chance(after(h, cannotSay))).toBe(chance(h))
  })
})
