import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Surface } from '#contract/conditions'
import { familyOf, type AdjusterFamily } from '../adjusters/words.ts'
import type { Pace, Shift, Situation, Steepness } from './situation.ts'

/** How much grip counts over support: loose and wet ground wants it softer. */
const softness: Record<Surface, number> = {
  'dry-hard': 0,
  'dry-loose': 1,
  damp: 0.5,
  wet: 1,
  mud: 1.5,
  snow: 1.5,
}
const steepness: Record<Steepness, number> = { flat: -1, usual: 0, steep: 1 }
const pace: Record<Pace, number> = { slower: -1, usual: 0, faster: 1 }

interface GroundRule {
  family: AdjusterFamily
  end: End | null
  /** Clicks toward open (or share of a pressure) per step of each. */
  softer?: number
  steeper?: number
  faster?: number
}

/** Small rules of thumb; each is worth about a click, and its spread says so. */
export const groundTable: GroundRule[] = [
  { family: 'compression', end: null, softer: 1, faster: -1 },
  { family: 'compression', end: 'front', steeper: -1 },
  { family: 'rebound', end: null, faster: 1 },
]
/** Share of pressure per step: softer for grip, firmer in front where it is steep. */
export const groundPressure = { softer: -0.02, steeperFront: 0.02, steeperRear: -0.01 }

const usualClicks = 16

/** What another surface, slope or pace ask of an adjuster, in its canonical unit. */
export function groundRules(end: End, a: Adjuster, value: number, from: Situation, to: Situation): Shift[] {
  const soft = from.surface && to.surface ? softness[to.surface] - softness[from.surface] : 0
  const steep = steepness[to.steepness] - steepness[from.steepness]
  const fast = pace[to.pace] - pace[from.pace]
  const out: Shift[] = []
  const say = (by: number, unit: number, why: string) => {
    if (by !== 0) out.push({ by: by * unit, spread: unit, why })
  }
  const surfaceWords = soft > 0 ? 'looser or wetter ground: softer for grip' : 'firmer ground: firmer'
  const steepWords = steep > 0 ? 'steeper' : 'less steep'
  if (a.kind === 'pressure' && a.role === 'main-pressure') {
    say(soft * groundPressure.softer * value, 1, surfaceWords)
    say(
      steep * (end === 'front' ? groundPressure.steeperFront : groundPressure.steeperRear) * value,
      1,
      `${steepWords}: the ${end} carries ${steep > 0 === (end === 'front') ? 'more' : 'less'}`,
    )
    return out
  }
  if (a.kind !== 'click' && a.kind !== 'turn') return out
  const click =
    a.kind === 'click' ? Math.max(1, Math.round(a.clicks / usualClicks)) * a.step : a.turns / usualClicks
  for (const rule of groundTable) {
    if (rule.family !== familyOf(a) || (rule.end && rule.end !== end)) continue
    say(soft * (rule.softer ?? 0), click, surfaceWords)
    say(
      steep * (rule.steeper ?? 0),
      click,
      `${steepWords}: ${steep > 0 ? 'holds up against braking' : 'needs less hold'}`,
    )
    say(
      fast * (rule.faster ?? 0),
      click,
      `${fast > 0 ? 'faster' : 'slower'} riding: ${rule.family === 'rebound' ? 'hits follow each other ' + (fast > 0 ? 'sooner' : 'later') : fast > 0 ? 'harder hits' : 'milder hits'}`,
    )
  }
  return out
}
