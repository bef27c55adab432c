import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { Answer, CannotSay, questionAnswers, QuestionId } from '#contract/question'
import type { FeelWord } from '#contract/run'
import type { CauseSeat } from './words.ts'

/** Who cannot say has answered too: the question is not put again on these settings. */
export const cannotSay: CannotSay = 'cannot-say'

type AnswerOf<Q extends QuestionId> = (typeof questionAnswers)[Q][number]

/** How often each answer is given where the cause is so; the shares of one cause sum to 1. */
interface Given<A extends string> {
  kind: CauseKind
  at: CauseSeat
  shares: Record<A, number>
}

export interface QuestionRule<A extends string = string> {
  /** question: to the rider · look: something to see or feel by hand. */
  kind: 'question' | 'look'
  /** Words after which it may be put; none: it belongs to a card of its own. */
  words: FeelWord[]
  /** Of the end that was named, or of the whole bike. */
  of: 'end' | 'bike'
  ask: string
  answers: Record<A, string>
  /** What a word was meant as where it is answered so: the causes are that word's then, not those of the one that was said. */
  means?: Partial<Record<A, FeelWord>>
  given: Given<A>[]
}

/** What one end does is felt at that end, more often than not. */
const feltAtItsEnd: readonly CauseKind[] = [
  'spring-soft',
  'spring-firm',
  'rebound-slow',
  'rebound-fast',
  'lsc-open',
  'lsc-closed',
  'hsc-open',
  'hsc-closed',
]

/**
 * Questions that tell look-alikes apart for the price of a breath. A cause that is not in `given` makes all answers
 * equally likely. The shares are documented starting points; the handbook prints this very table.
 */
export const questionRules: { [Q in QuestionId]: QuestionRule<AnswerOf<Q>> } = {
  'kicks-when': {
    kind: 'question',
    words: ['kicks'],
    of: 'end',
    ask: 'When does it kick?',
    answers: {
      'along-a-row': 'Worse along a row of hits',
      'single-hits': 'On single hits',
      'deep-before-a-lip': 'Off a lip, deep in its travel before',
    },
    given: [
      {
        kind: 'rebound-slow',
        at: 'same',
        shares: { 'along-a-row': 0.8, 'single-hits': 0.1, 'deep-before-a-lip': 0.1 },
      },
      {
        kind: 'rebound-fast',
        at: 'same',
        shares: { 'along-a-row': 0.1, 'single-hits': 0.75, 'deep-before-a-lip': 0.15 },
      },
      {
        kind: 'spring-soft',
        at: 'same',
        shares: { 'along-a-row': 0.15, 'single-hits': 0.1, 'deep-before-a-lip': 0.75 },
      },
      {
        kind: 'lsc-closed',
        at: 'same',
        shares: { 'along-a-row': 0.25, 'single-hits': 0.65, 'deep-before-a-lip': 0.1 },
      },
    ],
  },
  'harsh-when': {
    kind: 'question',
    words: ['harsh-everywhere'],
    of: 'end',
    ask: 'Harsh from the first bump, or does it build up?',
    answers: { 'from-the-first': 'From the first bump', 'builds-up': 'It builds up along a row' },
    given: [
      { kind: 'rebound-slow', at: 'same', shares: { 'from-the-first': 0.15, 'builds-up': 0.85 } },
      { kind: 'spring-firm', at: 'same', shares: { 'from-the-first': 0.85, 'builds-up': 0.15 } },
      { kind: 'lsc-closed', at: 'same', shares: { 'from-the-first': 0.85, 'builds-up': 0.15 } },
      { kind: 'hsc-closed', at: 'same', shares: { 'from-the-first': 0.8, 'builds-up': 0.2 } },
      { kind: 'stiction', at: 'same', shares: { 'from-the-first': 0.85, 'builds-up': 0.15 } },
      { kind: 'tyres', at: 'bike', shares: { 'from-the-first': 0.8, 'builds-up': 0.2 } },
    ],
  },
  'harsh-on': {
    kind: 'question',
    words: ['harsh-everywhere'],
    of: 'end',
    ask: 'Harsh on small chatter, or on square edges at speed?',
    answers: { 'small-chatter': 'Small chatter', 'square-edges': 'Square edges at speed' },
    means: { 'square-edges': 'harsh-square-edge' },
    given: [
      { kind: 'spring-firm', at: 'same', shares: { 'small-chatter': 0.7, 'square-edges': 0.3 } },
      { kind: 'lsc-closed', at: 'same', shares: { 'small-chatter': 0.75, 'square-edges': 0.25 } },
      { kind: 'stiction', at: 'same', shares: { 'small-chatter': 0.85, 'square-edges': 0.15 } },
      { kind: 'tyres', at: 'bike', shares: { 'small-chatter': 0.75, 'square-edges': 0.25 } },
      { kind: 'hsc-closed', at: 'same', shares: { 'small-chatter': 0.15, 'square-edges': 0.85 } },
      { kind: 'ramp-high', at: 'same', shares: { 'small-chatter': 0.25, 'square-edges': 0.75 } },
    ],
  },
  'lever-open': {
    kind: 'look',
    words: [
      'harsh-everywhere',
      'harsh-square-edge',
      'harsh-gets-worse',
      'unused-travel',
      'dead',
      'kicks',
      'washes-out',
      'nervous',
    ],
    of: 'end',
    ask: 'Is the lever fully open?',
    answers: { open: 'Fully open', 'not-open': 'Not fully open' },
    given: [{ kind: 'lsc-closed', at: 'same', shares: { open: 0.35, 'not-open': 0.65 } }],
  },
  'bottoms-on': {
    kind: 'question',
    words: ['bottoms', 'harsh-and-bottoms'],
    of: 'end',
    ask: 'Where does it bottom?',
    answers: {
      'hardest-now-and-then': 'On the biggest hit of the hardest ground, now and then',
      'ordinary-ground': 'On ordinary ground too',
    },
    given: [
      { kind: 'none', at: 'bike', shares: { 'hardest-now-and-then': 0.9, 'ordinary-ground': 0.1 } },
      { kind: 'ramp-low', at: 'same', shares: { 'hardest-now-and-then': 0.3, 'ordinary-ground': 0.7 } },
      { kind: 'spring-soft', at: 'same', shares: { 'hardest-now-and-then': 0.1, 'ordinary-ground': 0.9 } },
      { kind: 'hsc-open', at: 'same', shares: { 'hardest-now-and-then': 0.35, 'ordinary-ground': 0.65 } },
    ],
  },
  'travel-due': {
    kind: 'question',
    words: ['unused-travel'],
    of: 'end',
    ask: 'Was there a hit that should have used it all?',
    answers: { 'big-hit': 'Yes, a big one', 'no-big-hit': 'No, nothing that big' },
    given: [
      { kind: 'none', at: 'bike', shares: { 'big-hit': 0.15, 'no-big-hit': 0.85 } },
      { kind: 'ramp-high', at: 'same', shares: { 'big-hit': 0.75, 'no-big-hit': 0.25 } },
      { kind: 'spring-firm', at: 'same', shares: { 'big-hit': 0.7, 'no-big-hit': 0.3 } },
      { kind: 'hsc-closed', at: 'same', shares: { 'big-hit': 0.75, 'no-big-hit': 0.25 } },
    ],
  },
  'sinks-when': {
    kind: 'question',
    words: ['dives', 'wallows', 'blows-through'],
    of: 'end',
    ask: 'Only on the brakes and while you push, or standing still and in berms too?',
    answers: { 'on-the-brakes': 'On the brakes, while I push', everywhere: 'Everywhere, standing still too' },
    given: [
      { kind: 'lsc-open', at: 'same', shares: { 'on-the-brakes': 0.8, everywhere: 0.2 } },
      { kind: 'spring-soft', at: 'same', shares: { 'on-the-brakes': 0.2, everywhere: 0.8 } },
      { kind: 'nose-low', at: 'bike', shares: { 'on-the-brakes': 0.3, everywhere: 0.7 } },
      { kind: 'ramp-low', at: 'same', shares: { 'on-the-brakes': 0.4, everywhere: 0.6 } },
    ],
  },
  'washes-when': {
    kind: 'question',
    words: ['washes-out'],
    of: 'end',
    ask: 'Does it wash on flat turns with your weight back, or everywhere?',
    answers: { 'weight-back': 'On flat turns, with my weight back', everywhere: 'Everywhere' },
    given: [
      { kind: 'nose-high', at: 'bike', shares: { 'weight-back': 0.8, everywhere: 0.2 } },
      { kind: 'line-or-rider', at: 'bike', shares: { 'weight-back': 0.6, everywhere: 0.4 } },
      { kind: 'spring-firm', at: 'same', shares: { 'weight-back': 0.25, everywhere: 0.75 } },
      { kind: 'lsc-closed', at: 'same', shares: { 'weight-back': 0.3, everywhere: 0.7 } },
      { kind: 'tyres', at: 'bike', shares: { 'weight-back': 0.2, everywhere: 0.8 } },
    ],
  },
  'long-where': {
    kind: 'question',
    words: ['stretched'],
    of: 'bike',
    ask: 'Does the rear feel low, the front high, or the rear tall?',
    answers: {
      'rear-low': 'The rear is low',
      'front-high': 'The front is high',
      'rear-tall': 'The rear stands tall, the bike stays long in turns',
    },
    given: [
      {
        kind: 'spring-soft',
        at: 'rear',
        shares: { 'rear-low': 0.8, 'front-high': 0.12, 'rear-tall': 0.08 },
      },
      {
        kind: 'spring-firm',
        at: 'front',
        shares: { 'rear-low': 0.12, 'front-high': 0.78, 'rear-tall': 0.1 },
      },
      {
        kind: 'spring-firm',
        at: 'rear',
        shares: { 'rear-low': 0.05, 'front-high': 0.15, 'rear-tall': 0.8 },
      },
      { kind: 'nose-high', at: 'bike', shares: { 'rear-low': 0.48, 'front-high': 0.48, 'rear-tall': 0.04 } },
    ],
  },
  'since-hot': {
    kind: 'question',
    words: ['soft-when-hot', 'pogo', 'wallows', 'dives', 'blows-through'],
    of: 'bike',
    ask: 'Only since it got hot, and with other bikes too?',
    answers: { 'since-hot': 'Only since it got hot', 'all-along': 'It was so all along' },
    given: [{ kind: 'heat', at: 'bike', shares: { 'since-hot': 0.9, 'all-along': 0.1 } }],
  },
  'nervous-where': {
    kind: 'question',
    words: ['nervous'],
    of: 'end',
    ask: 'In the air between bumps, or skating on the ground?',
    answers: { 'in-the-air': 'In the air between bumps', 'on-the-ground': 'Skating on the ground' },
    given: [
      { kind: 'rebound-fast', at: 'same', shares: { 'in-the-air': 0.85, 'on-the-ground': 0.15 } },
      { kind: 'spring-firm', at: 'same', shares: { 'in-the-air': 0.6, 'on-the-ground': 0.4 } },
      { kind: 'lsc-closed', at: 'same', shares: { 'in-the-air': 0.5, 'on-the-ground': 0.5 } },
      { kind: 'tyres', at: 'bike', shares: { 'in-the-air': 0.1, 'on-the-ground': 0.9 } },
    ],
  },
  'stays-down-when': {
    kind: 'question',
    words: ['stays-down', 'dead'],
    of: 'end',
    ask: 'Coming out of fast turns, or always?',
    answers: { 'out-of-fast-turns': 'Coming out of fast turns', always: 'Always' },
    given: [
      { kind: 'rebound-slow', at: 'same', shares: { 'out-of-fast-turns': 0.75, always: 0.25 } },
      { kind: 'spring-soft', at: 'same', shares: { 'out-of-fast-turns': 0.15, always: 0.85 } },
      { kind: 'lsc-closed', at: 'same', shares: { 'out-of-fast-turns': 0.4, always: 0.6 } },
    ],
  },
  'nothing-helps': {
    kind: 'look',
    words: [],
    of: 'bike',
    ask: 'Nothing that was turned made itself felt. Were air and tyres checked today?',
    answers: { checked: 'Both were checked', 'not-checked': 'Not today' },
    given: [{ kind: 'tyres', at: 'bike', shares: { checked: 0.15, 'not-checked': 0.85 } }],
  },
  'tyres-now': {
    kind: 'look',
    words: [],
    of: 'bike',
    ask: 'Measure both tyres: are they as they were?',
    answers: { 'as-before': 'Both as before', 'were-off': 'Off; I’ve put them right' },
    given: [{ kind: 'tyres', at: 'bike', shares: { 'as-before': 0.05, 'were-off': 0.95 } }],
  },
  sticks: {
    kind: 'look',
    words: [],
    of: 'end',
    ask: 'Push it down slowly: does it stick and jump?',
    answers: { 'moves-freely': 'It moves freely', sticks: 'It sticks and jumps' },
    given: [{ kind: 'stiction', at: 'same', shares: { 'moves-freely': 0.1, sticks: 0.9 } }],
  },
  'which-end': {
    kind: 'question',
    words: [],
    of: 'bike',
    ask: 'Which end was worse?',
    answers: { front: 'The front', rear: 'The rear', both: 'Both alike' },
    given: feltAtItsEnd.flatMap((kind) => [
      { kind, at: 'front', shares: { front: 0.65, rear: 0.1, both: 0.25 } },
      { kind, at: 'rear', shares: { front: 0.1, rear: 0.65, both: 0.25 } },
    ]),
  },
  // Of no cause by itself: it is held against the run before as what is said there by hand (causes/answered.ts).
  'than-before': {
    kind: 'question',
    words: [],
    of: 'bike',
    ask: 'Better or worse than the run before?',
    answers: {
      'much-better': 'Much better',
      better: 'Better',
      same: 'The same',
      worse: 'Worse',
      'much-worse': 'Much worse',
    },
    given: [],
  },
}

/** What an answer says of a cause: log-likelihood against "nothing of the kind", where all answers are alike. */
export interface AnswerCause {
  kind: CauseKind
  end: End | null
  weight: number
}

/**
 * The causes that an answer speaks for (+) and against (−): ln(share of those who have it and answer so × answers).
 * @returns empty for "cannot say"
 */
export function answerCauses(question: QuestionId, end: End | null, answer: string): AnswerCause[] {
  const rule: QuestionRule = questionRules[question]
  const answers = Object.keys(rule.answers)
  if (!answers.includes(answer)) return []
  return rule.given.map((g) => ({
    kind: g.kind,
    end: g.at === 'same' ? end : g.at === 'bike' ? null : g.at,
    weight: Math.log(g.shares[answer] * answers.length),
  }))
}

/** The word that was meant, by what was answered about the one that was said. */
export function meantWord(word: FeelWord, told: readonly Pick<Answer, 'question' | 'answer'>[]): FeelWord {
  for (const { question, answer } of told) {
    const rule: QuestionRule = questionRules[question]
    const meant = rule.words.includes(word) ? rule.means?.[answer] : undefined
    if (meant) return meant
  }
  return word
}

/** "When does it kick? Worse along a row of hits" */
export function answerWords(question: QuestionId, answer: string): string {
  const rule: QuestionRule = questionRules[question]
  return `${rule.ask} ${rule.answers[answer] ?? 'Can’t say'}`
}
