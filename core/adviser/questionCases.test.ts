import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { questionAnswers, type Answer, type QuestionId } from '#contract/question'
import type { FeelWord } from '#contract/run'
import { cannotSay, questionRules, type QuestionRule } from '../causes/questions.ts'
import { DayBuilder, fork, frontRebound, shock, space } from '../test/dayBuilder.ts'
import type { SetupSpace } from './dayHistory.ts'
import { advise } from './advise.ts'
import { withAnswer } from './answers.ts'
import { fittedOf, outlookOf } from './decide.ts'
import { diagnose } from './diagnose.ts'
import { lastAnswerWeights } from './lastAnswers.ts'
import { faultsOf, rear, rearLever, start, withSag, type Case } from './test/fieldCase.ts'

const say = (word: FeelWord, end: End, rating = 5) => new DayBuilder().run(rating, [{ word, end }])
const answer = (question: QuestionId, end: End | null, a: string): Answer => ({ question, end, answer: a })
const told = (word: FeelWord, end: End, question: QuestionId, a: string, rating = 5) =>
  say(word, end, rating)
    .answer(answer(question, questionRules[question].of === 'bike' ? null : end, a))
    .history()
const chart = (psi: number) => [{ unitId: 'fork', psi, source: 'leaflet' }]

const dead = [{ word: 'dead', end: 'rear' } as const]
/** Three dials turned one after the other; always “dead”, never a difference. */
const threeInVain = () =>
  new DayBuilder()
    .run(5, dead)
    .change({ rr: 8 })
    .run(5, dead, { against: [1, 0] })
    .change({ fc: 9 })
    .run(5, dead, { against: [2, 0] })
    .change({ fr: 7 })
    .run(5, dead, { against: [3, 0] })
/** Air and tyres looked at after the third, and two more. */
const inVain = (last = 5, airAndTyres: string = 'checked') =>
  threeInVain()
    .answer(answer('nothing-helps', null, airAndTyres))
    .change({ fp: 82 })
    .run(5, dead, { against: [4, 0] })
    .change({ rr: 9 })
    .run(last, dead, { against: [5, last > 5 ? 2 : 0] })

/** What is asked, and what each answer does to the next card. */
const cases: Case[] = [
  {
    day: 'Rear kicks, no sensors, nothing answered',
    story: () => say('kicks', 'rear').history(),
    card: 'ask',
    moves: [],
    leads: /faster.*slower.*(pressure, .*firmer|Read the rear sag)/,
    why: 'Two ways to turn one dial, and a third cause: a breath is cheaper than a run',
  },
  {
    day: 'Rear kicks, along a row',
    story: () => told('kicks', 'rear', 'kicks-when', 'along-a-row'),
    card: 'change',
    moves: ['rear rebound faster'],
    why: 'Packing',
  },
  {
    day: 'Rear kicks, on single hits',
    story: () => told('kicks', 'rear', 'kicks-when', 'single-hits'),
    card: 'change',
    moves: ['rear rebound slower'],
    why: 'Too fast',
  },
  {
    day: 'Rear kicks off a lip, deep before, sag unread',
    story: () => told('kicks', 'rear', 'kicks-when', 'deep-before-a-lip'),
    card: ['read', 'change'],
    says: /sag|pressure, \d+ psi firmer/,
    why: 'Under-sprung: read it, or bring the spring',
  },
  {
    day: 'Rear kicks, cannot say',
    story: () => told('kicks', 'rear', 'kicks-when', cannotSay),
    card: 'separating-test',
    why: 'Then the trail has to tell',
  },
  {
    day: 'Rear harsh, and it builds up',
    story: () => told('harsh-everywhere', 'rear', 'harsh-when', 'builds-up'),
    card: ['change', 'ask'],
    never: /rebound, .* slower|pressure, .* (firmer|softer)/,
    why: 'Building up is packing',
  },
  {
    day: 'Rear harsh from the first bump',
    story: () => told('harsh-everywhere', 'rear', 'harsh-when', 'from-the-first'),
    card: ['change', 'read', 'check-first', 'ask'],
    never: /^Rear rebound, .* faster/,
    why: 'What is there at the first bump has not built up',
  },
  {
    day: 'Dives, only on the brakes',
    story: () => told('dives', 'front', 'sinks-when', 'on-the-brakes'),
    card: 'change',
    moves: ['front low-speed compression firmer'],
    why: 'Low-speed compression holds it up while it moves slowly',
  },
  {
    day: 'Dives everywhere, standing still too, sag unread',
    story: () => told('dives', 'front', 'sinks-when', 'everywhere'),
    card: ['read', 'change'],
    never: /compression/,
    why: 'Air, not a dial',
  },
  {
    day: 'Dives, sag read at 28 % for 20',
    story: () => withSag(say('dives', 'front').history(), { front: 28 }),
    card: 'change',
    moves: ['front pressure firmer'],
    why: 'A reading is stronger than a question: not asked',
  },
  {
    day: 'Dives at 80 psi, its own chart gives 100, sag unread',
    story: () => ({
      ...say('dives', 'front')
        .answer(answer('sinks-when', 'front', cannotSay))
        .history(),
      ownCharts: chart(100),
    }),
    card: 'change',
    moves: ['front pressure 80→100 firmer'],
    says: /own chart/,
    why: 'Low air before low-speed compression',
  },
  {
    day: 'Dives at 80 psi, its own chart gives 84',
    story: () => ({ ...told('dives', 'front', 'sinks-when', 'on-the-brakes'), ownCharts: chart(84) }),
    card: 'change',
    moves: ['front low-speed compression firmer'],
    why: 'Within what a chart can say: no reason to pump',
  },
  {
    day: 'Harsh in front at 80 psi, its own chart gives 100',
    story: () => ({ ...say('harsh-everywhere', 'front').history(), ownCharts: chart(100) }),
    card: ['change', 'ask', 'read', 'check-first'],
    never: /^Front pressure, .* firmer/,
    why: 'The chart says firmer, the rider says harsh: not pumped up on paper alone',
  },
  {
    day: 'Front washes everywhere',
    story: () => told('washes-out', 'front', 'washes-when', 'everywhere'),
    card: 'check-first',
    says: /tyre/,
    why: 'The tyre touches the ground first; a gauge costs seconds',
  },
  {
    day: 'Nervous, skating on the ground',
    story: () => told('nervous', 'rear', 'nervous-where', 'on-the-ground'),
    card: 'check-first',
    says: /tyre/,
    why: 'Ground is tyre',
  },
  {
    day: 'Nervous, in the air between bumps',
    story: () => told('nervous', 'rear', 'nervous-where', 'in-the-air'),
    card: ['change', 'read'],
    never: /rebound, .* faster|pressure, .* firmer/,
    why: 'Air is rebound too fast, or a spring too firm',
  },
  {
    day: 'Skating on the ground; both tyres were off and are right now',
    story: () =>
      say('nervous', 'rear')
        .answer(answer('nervous-where', 'rear', 'on-the-ground'))
        .answer(answer('tyres-now', null, 'were-off'))
        .history(),
    card: 'repeat',
    moves: [],
    why: 'The run before was of the tyres',
  },
  {
    day: 'Skating on the ground; both tyres as before',
    story: () =>
      say('nervous', 'rear')
        .answer(answer('nervous-where', 'rear', 'on-the-ground'))
        .answer(answer('tyres-now', null, 'as-before'))
        .history(),
    card: ['change', 'read', 'ask'],
    never: /tyre/,
    why: 'Looked at, and not sent there again',
  },
  {
    day: 'Long and nose-up: the rear is low',
    story: () => told('stretched', 'rear', 'long-where', 'rear-low'),
    card: ['change', 'read'],
    says: /Rear pressure, .* firmer|Read the rear sag/,
    why: 'Rear soft',
  },
  {
    day: 'Long and nose-up: the front is high',
    story: () => told('stretched', 'rear', 'long-where', 'front-high'),
    card: ['change', 'read'],
    says: /Front pressure, .* softer|Read the front sag/,
    why: 'Front firm',
  },
  {
    day: 'Long and nose-up: the rear stands tall',
    story: () => told('stretched', 'rear', 'long-where', 'rear-tall'),
    card: ['change', 'read'],
    says: /Rear pressure, .* softer|Read the rear sag/,
    why: 'Rear firm: the other way',
  },
  {
    day: 'Rear bottoms, rated 8',
    story: () => say('bottoms', 'rear', 8).history(),
    card: 'ask',
    leads: /leave it alone.*Read the rear sag/,
    why: 'Who likes the ride may mean that travel is used as it should be',
  },
  {
    day: 'Rear bottoms, rated 8, on the biggest hit now and then',
    story: () => told('bottoms', 'rear', 'bottoms-on', 'hardest-now-and-then', 8),
    card: 'leave-it',
    moves: [],
    why: 'That is what travel is for',
  },
  {
    day: 'Rear bottoms, rated 8, on ordinary ground',
    story: () => told('bottoms', 'rear', 'bottoms-on', 'ordinary-ground', 8),
    card: 'read',
    says: /sag/,
    why: 'Spring or ramp: sag tells',
  },
  {
    day: '26 °C, nobody knows where the settings were found, “soft when hot”, only since it got hot',
    story: () =>
      say('soft-when-hot', 'rear')
        .at(26)
        .answer(answer('since-hot', null, 'since-hot'))
        .history(),
    card: 'change',
    moves: ['front rebound slower', 'rear rebound slower', 'front low-speed compression firmer'],
    why: 'Both ends together, before a dial is blamed',
  },
  {
    day: 'The same, but it was so all along',
    story: () =>
      say('soft-when-hot', 'rear')
        .at(26)
        .answer(answer('since-hot', null, 'all-along'))
        .history(),
    card: ['change', 'read', 'ask', 'separating-test', 'repeat'],
    never: /For the heat/,
    why: 'Then it is not the weather',
  },
  {
    day: 'Rear harsh, its lever never read',
    bike: rear(...shock.adjusters, rearLever),
    story: () => new DayBuilder(start).run(5, [{ word: 'harsh-everywhere' }]).history(),
    card: 'ask',
    never: /pressure, .* softer/,
    why: 'A lever is looked at before it is reasoned from',
  },
  {
    day: 'Rear harsh, its lever never read, and it was not fully open',
    bike: rear(...shock.adjusters, rearLever),
    story: () =>
      new DayBuilder(start)
        .run(5, [{ word: 'harsh-everywhere' }])
        .answer(answer('lever-open', 'rear', 'not-open'))
        .history(),
    card: 'check-first',
    says: /Open the rear lever and ride again/,
    why: 'It explains the run',
  },
  {
    day: 'Both ends harsh and with levers never read; of the front one it was said that it was not fully open',
    bike: {
      front: { ...fork, adjusters: [...fork.adjusters, { ...rearLever, id: 'fl' }] },
      rear: { ...shock, adjusters: [...shock.adjusters, rearLever] },
    },
    story: () =>
      new DayBuilder(start)
        .run(5, [{ word: 'harsh-everywhere', end: 'both' }])
        .answer(answer('lever-open', 'front', 'not-open'))
        .history(),
    card: 'check-first',
    says: /Open the front lever and ride again/,
    never: /rear lever/,
    why: 'An answer is of the end it was asked of',
  },
  {
    day: 'Rear kicks on a third run of the same settings, never answered',
    story: () =>
      new DayBuilder()
        .run(5, [{ word: 'kicks' }])
        .run(5, [{ word: 'kicks' }])
        .run(5, [{ word: 'kicks' }])
        .history(),
    card: ['separating-test', 'change', 'read'],
    why: 'Put twice; who does not answer is not held up',
  },
  {
    day: 'Race day, rear kicks',
    story: () => ({ ...say('kicks', 'rear').history(), purpose: 'race' }),
    card: 'leave-it',
    moves: [],
    why: 'On race day nothing new is looked for',
  },
  {
    day: 'Sag read in the middle of the day: 37 % for 30',
    story: () => say('kicks', 'rear').readSag('rear', 37).history(),
    card: 'change',
    moves: ['rear pressure firmer'],
    says: /sag was read at 37 %/,
    why: 'A reading is evidence at once',
  },
  {
    day: 'Sag read in the middle of the day: 30 % for 30, kicks along a row',
    story: () =>
      say('kicks', 'rear')
        .readSag('rear', 30)
        .answer(answer('kicks-when', 'rear', 'along-a-row'))
        .history(),
    card: 'change',
    moves: ['rear rebound faster'],
    why: 'The spring is right: the damper',
  },
  {
    day: 'Three dials turned, one after the other, rated 5 each time, “dead” each time',
    story: () => threeInVain().history(),
    card: 'check-first',
    says: /Air and tyres first/,
    why: 'Dials that do nothing: something underneath is wrong',
  },
  {
    day: 'Five dials turned so; air and tyres were checked after the third',
    story: () => inVain().history(),
    card: 'check-first',
    moves: [],
    says: /not in the dials.*run 1.*qualified technician.*Air and tyres were checked/,
    never: /nobody has said/,
    why: 'A sixth turn would be the first step of an endless circle',
  },
  {
    day: 'The same, and nobody could say whether air and tyres were checked',
    story: () => inVain(5, cannotSay).history(),
    card: 'check-first',
    says: /not in the dials.*gauge: nobody has said that they were checked/,
    never: /Air and tyres were checked/,
    why: 'Silence is no check',
  },
  {
    day: 'The same, put back as it was told, not ridden yet',
    story: () => inVain().change({ rr: 7, fc: 8, fr: 6, fp: 80 }, { source: 'revert' }).history(),
    card: 'check-first',
    moves: [],
    says: /not in the dials.*All stands as the day began/,
    why: 'There is nothing to be found out by riding that again',
  },
  {
    day: 'Five dials turned so, and the last made it better',
    story: () => inVain(8.5).history(),
    card: ['change', 'leave-it', 'repeat', 'ask', 'read'],
    never: /not in the dials/,
    why: 'One of them was felt',
  },
  {
    day: 'Five dials turned so, and who rides on does so three times',
    story: () => inVain().run(5, dead).run(5, dead).history(),
    card: ['change', 'read', 'ask', 'separating-test', 'check-first'],
    never: /not in the dials/,
    why: 'Said twice; who goes on all the same is let go',
  },
  {
    day: 'Two bikes, one note: a fork with compression and one without',
    bike: { front: { ...fork, adjusters: [fork.adjusters[0], frontRebound] }, rear: shock },
    story: () =>
      new DayBuilder({ fp: 80, fr: 6, rp: 180, rr: 7, rs: 1 })
        .run(5, [{ word: 'dives', end: 'front' }])
        .answer(answer('sinks-when', 'front', 'on-the-brakes'))
        .history(),
    card: ['change', 'read', 'ask'],
    never: /compression/,
    why: 'What is not fitted is not proposed',
  },
]

describe('cases of questions', () => {
  it.each(cases)('$day: $why', (c) => expect(faultsOf(c)).toEqual([]))
})

describe('what a card promises', () => {
  const asked: [FeelWord, End][] = [
    ['kicks', 'rear'],
    ['dives', 'front'],
    ['nervous', 'rear'],
    ['stretched', 'rear'],
    ['harsh-everywhere', 'rear'],
    ['washes-out', 'front'],
  ]
  it.each(asked)('after “%s” the answer leads to the very turn that stood on it', (word, end) => {
    const h = say(word, end).history()
    const { question } = advise(h, space)
    expect(question).not.toBeNull()
    const part = (headline: string) => headline.replace(/, \d+ (clicks?|psi).*/, '')
    for (const a of question!.answers) {
      const then = advise(withAnswer(h, question!.runId, answer(question!.id, question!.end, a.id)), space)
      if (then.kind !== 'ask') expect(part(then.headline), a.label).toBe(part(a.leadsTo))
    }
  })
  it('the same question is not put again on the same settings, whatever was answered', () => {
    for (const a of [...questionAnswers['kicks-when'], cannotSay]) {
      const { question } = advise(told('kicks', 'rear', 'kicks-when', a), space)
      expect(question?.id).not.toBe('kicks-when')
    }
  })
})

describe('the table of questions', () => {
  it('gives every cause shares that sum to one, and every answer a cause it speaks for', () => {
    for (const id of Object.keys(questionRules) as QuestionId[]) {
      const rule: QuestionRule = questionRules[id]
      expect(Object.keys(rule.answers)).toEqual([...questionAnswers[id]])
      for (const g of rule.given) {
        expect(
          Object.values(g.shares).reduce((s, x) => s + x, 0),
          `${id} ${g.kind}`,
        ).toBeCloseTo(1, 9)
        for (const share of Object.values(g.shares)) expect(share).toBeGreaterThan(0)
      }
    }
  })
  it('no answer speaks for a turn and for its opposite most of all', () => {
    for (const id of Object.keys(questionRules) as QuestionId[]) {
      const rule: QuestionRule = questionRules[id]
      for (const a of Object.keys(rule.answers)) {
        const [first, second] = [...rule.given].sort((x, y) => y.shares[a] - x.shares[a])
        if (second && second.shares[a] === first.shares[a])
          expect([first.kind, second.kind].sort()).not.toEqual(['rebound-fast', 'rebound-slow'])
      }
    }
  })
})

describe('a complaint that is new since a turn', () => {
  it('brings “rear too tall” among the causes once the rear spring was made firmer', () => {
    const d = new DayBuilder()
      .run(7)
      .change({ rp: 188 })
      .run(6, [{ word: 'stretched', end: 'rear' }])
    const causes = diagnose(d.history(), space)
    const tall = causes.find((c) => c.kind === 'spring-firm' && c.end === 'rear')
    expect(tall?.evidence.some((e) => /^New since rear pressure 180 → 188 psi/i.test(e.text))).toBe(true)
    const without = diagnose(say('stretched', 'rear').history(), space)
    const p = (list: typeof causes) =>
      list.find((c) => c.kind === 'spring-firm' && c.end === 'rear')?.probability ?? 0
    expect(p(causes)).toBeGreaterThan(p(without))
  })
})

describe('an answer about a word that was said of both ends', () => {
  /** How unevenly the samples weigh by what was answered of the front; 0: it changed nothing. */
  const unevenness = (end: 'front' | 'both') => {
    const day = new DayBuilder()
      .run(5, [{ word: 'harsh-everywhere', end }])
      .answer(answer('harsh-when', 'front', 'builds-up'))
      .history()
    const fitted = fittedOf(day, space)
    const weights = lastAnswerWeights(day, space, fitted)!
    return Math.max(...weights) / Math.min(...weights) - 1
  }
  it('is about the end that was asked, as if the word had been said of it alone', () => {
    expect(unevenness('both')).toBeGreaterThan(0.2)
    expect(unevenness('both') / unevenness('front')).toBeGreaterThan(0.5)
  })
})

/** A fork with high-speed compression of its own. */
const hsc: Adjuster = {
  id: 'fh',
  alias: null,
  tool: 'hand',
  kind: 'click',
  role: 'high-speed-compression',
  clicks: 10,
  step: 1,
  countBase: 'closed-0',
}
const forkWithHsc: SetupSpace = {
  ...space,
  front: {
    ...fork,
    adjusters: [...fork.adjusters, hsc],
  },
}

describe('“harsh everywhere” that is answered with square edges', () => {
  const day = () =>
    new DayBuilder({ ...start, fh: 5 }).run(6, [{ word: 'harsh-everywhere', end: 'front', strength: 3 }])
  const edges = () => day().answer(answer('harsh-on', 'front', 'square-edges'))

  it('was “harsh on edges”: high-speed compression leads, and is turned softer', () => {
    expect(diagnose(day().history(), forkWithHsc).map((c) => c.kind)).not.toContain('hsc-closed')
    const [top] = diagnose(edges().history(), forkWithHsc)
    expect([top.kind, top.end]).toEqual(['hsc-closed', 'front'])
    const answered = edges()
      .answer(answer('harsh-when', 'front', 'from-the-first'))
      .answer(answer('tyres-now', null, 'as-before'))
    const p = advise(answered.history(), forkWithHsc)
    expect(p.moves.map((m) => [m.adjusterId, Math.sign(m.to - m.from)])).toEqual([['fh', 1]])
  })

  it('holds for the surface as it does for the causes, and only for the end that was asked about', () => {
    const h = edges().history()
    const likely = (x: typeof h) => {
      const s = outlookOf(x, forkWithHsc)
      const k = s.dials.findIndex((d) => d.adjuster.id === 'fh')
      const places = s.surface.best.filter((_, i) => i % s.dials.length === k)
      return places.reduce((t, v) => t + v, 0) / places.length
    }
    expect(likely(h)).toBeGreaterThan(likely(day().history()))
    const both = new DayBuilder({ ...start, fh: 5 })
      .run(6, [{ word: 'harsh-everywhere', end: 'both', strength: 3 }])
      .answer(answer('harsh-on', 'front', 'square-edges'))
    expect(diagnose(both.history(), forkWithHsc).filter((c) => c.kind === 'hsc-closed')).toMatchObject([
      { end: 'front' },
    ])
  })

  it('stays what it was where chatter was answered, or nobody could say', () => {
    for (const a of ['small-chatter', cannotSay]) {
      const h = day()
        .answer(answer('harsh-on', 'front', a))
        .history()
      expect(diagnose(h, forkWithHsc)[0].kind).not.toBe('hsc-closed')
    }
  })
})
