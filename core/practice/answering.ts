import type { End } from '#contract/common'
import type { AskedQuestion, QuestionId } from '#contract/question'
import { cannotSay, questionRules } from '../causes/questions.ts'
import { normalFrom } from '../numeric/random.ts'

/** How a dial stands for a rider: clicks above its best place (canonical up), and what that costs, rating points. */
export interface Outlook {
  role: string
  end: End
  off: number
  loss: number
}

/** Rating points lost on the run before and on this one. */
export interface Against {
  before: number
  now: number
}
/** A step of what is said, and its scatter, rating points. */
const [saidStep, saidScatter] = [0.9, 0.6]

/** Shares of riders who cannot say, and who are wrong when they can. */
export interface Candour {
  cannotSay: number
  wrong: number
}

/**
 * What a virtual rider answers. Written from what a rider would notice when something stands wrong, not from the
 * product's table: who is asked about something that is not so answers by chance.
 */
export function answerOf(
  q: Pick<AskedQuestion, 'id' | 'end'>,
  dials: readonly Outlook[],
  candour: Candour,
  random: () => number,
  against: Against | null = null,
): string {
  const all = Object.keys(questionRules[q.id].answers)
  const byChance = () => all[Math.floor(random() * all.length)]
  const luck = random()
  if (luck < candour.cannotSay) return cannotSay
  if (luck < candour.cannotSay + candour.wrong) return byChance()
  if (q.id === 'than-before') return against ? saidOf(against, normalFrom(random)) : cannotSay
  return truth(q.id, q.end, dials) ?? byChance()
}

/** As a verdict by hand: felt with a scatter, said in steps. */
function saidOf({ before, now }: Against, luck: number): string {
  const steps = Math.round((before - now + saidScatter * luck) / saidStep)
  return ['much-worse', 'worse', 'same', 'better', 'much-better'][Math.min(2, Math.max(-2, steps)) + 2]
}

const noticed = 0.25
/** Ends that lose nearly as much are hard to tell apart. */
const alikeShare = 0.7
/** Who has nothing to complain of uses the travel as it is meant to be used. */
const whereNothingIsOff: Partial<Record<QuestionId, string>> = {
  'bottoms-on': 'hardest-now-and-then',
  'travel-due': 'no-big-hit',
}

function truth(
  id: Exclude<QuestionId, 'than-before'>,
  end: End | null,
  dials: readonly Outlook[],
): string | null {
  const here = dials
    .filter((d) => (end === null || d.end === end) && d.loss > noticed)
    .sort((a, b) => b.loss - a.loss)
  const is = (role: string, up: boolean, at: End | null = null) =>
    here.some((d) => d.role === role && d.off > 0 === up && (at === null || d.end === at))
  const [worst] = here
  if (!worst) return whereNothingIsOff[id] ?? null
  switch (id) {
    case 'kicks-when':
      if (worst.role === 'main-pressure' && worst.off < 0) return 'deep-before-a-lip'
      if (is('rebound', false)) return 'along-a-row'
      return is('rebound', true) ? 'single-hits' : null
    case 'harsh-when':
      return is('rebound', false) && worst.role === 'rebound' ? 'builds-up' : 'from-the-first'
    case 'harsh-on':
      return worst.role === 'high-speed-compression' || worst.role === 'spacers'
        ? 'square-edges'
        : worst.role === 'rebound'
          ? null
          : 'small-chatter'
    case 'bottoms-on':
      return worst.loss > 1 ? 'ordinary-ground' : 'hardest-now-and-then'
    case 'travel-due':
      return is('main-pressure', true) || is('spacers', true) || is('high-speed-compression', false)
        ? 'big-hit'
        : 'no-big-hit'
    case 'sinks-when':
      if (worst.role === 'low-speed-compression' && worst.off > 0) return 'on-the-brakes'
      return worst.role === 'main-pressure' && worst.off < 0 ? 'everywhere' : null
    case 'washes-when':
      return is('main-pressure', true, 'front') || is('low-speed-compression', false, 'front')
        ? 'everywhere'
        : null
    case 'long-where':
      if (is('main-pressure', false, 'rear')) return 'rear-low'
      if (is('main-pressure', true, 'front')) return 'front-high'
      return is('main-pressure', true, 'rear') ? 'rear-tall' : null
    case 'nervous-where':
      return is('rebound', true) ? 'in-the-air' : null
    case 'stays-down-when':
      if (is('main-pressure', false)) return 'always'
      return is('rebound', false) ? 'out-of-fast-turns' : null
    case 'since-hot':
      return 'all-along'
    case 'tyres-now':
      return 'as-before'
    case 'sticks':
      return 'moves-freely'
    case 'nothing-helps':
      return 'checked'
    case 'lever-open':
      return 'open'
    case 'which-end': {
      const lost = (at: End) => here.reduce((sum, d) => sum + (d.end === at ? d.loss : 0), 0)
      const [front, rear] = [lost('front'), lost('rear')]
      if (Math.min(front, rear) > alikeShare * Math.max(front, rear)) return 'both'
      return front > rear ? 'front' : 'rear'
    }
  }
}
