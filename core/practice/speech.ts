import type { End } from '#contract/common'
import type { CauseKind } from '#contract/proposal'
import type { FeelWord } from '#contract/run'

/** How a rider talks: plainly, in look-alikes, or hardly. */
export type Manner = 'clear' | 'ambiguous'

/** A word and how often it is said; with an end where it is said of that one, whichever it comes from. */
export type Saying = readonly [word: FeelWord, often: number, at?: End]
type Vocabulary = Partial<Record<CauseKind, readonly Saying[]>>

/**
 * What riders say when something is off, and how often. Written from how riders talk, not from the product's table of
 * words: the adviser must live with the difference.
 */
const clear: Vocabulary = {
  'rebound-fast': [
    ['pogo', 5],
    ['kicks', 4],
    ['nervous', 2],
    ['washes-out', 1],
  ],
  'rebound-slow': [
    ['harsh-gets-worse', 4],
    ['stays-down', 3],
    ['dead', 3],
    ['kicks', 1],
  ],
  'lsc-open': [
    ['dives', 5],
    ['wallows', 4],
    ['pedal-bob', 1],
  ],
  'lsc-closed': [
    ['washes-out', 3],
    ['harsh-everywhere', 3],
    ['dead', 2],
    ['nervous', 2],
  ],
  'hsc-open': [
    ['blows-through', 5],
    ['bottoms', 4],
  ],
  'hsc-closed': [
    ['harsh-square-edge', 7],
    ['harsh-everywhere', 2],
    ['unused-travel', 1],
  ],
  'spring-soft': [
    ['blows-through', 3],
    ['bottoms', 3],
    ['wallows', 2],
    ['dives', 2],
    ['pedals-strike', 1],
  ],
  'spring-firm': [
    ['unused-travel', 5],
    ['harsh-everywhere', 3],
    ['washes-out', 2],
  ],
  'ramp-low': [
    ['bottoms', 8],
    ['blows-through', 2],
  ],
  'ramp-high': [
    ['unused-travel', 7],
    ['harsh-square-edge', 3],
  ],
}
const ambiguous: Vocabulary = {
  'rebound-fast': [
    ['kicks', 4],
    ['nervous', 4],
    ['washes-out', 3],
    ['harsh-everywhere', 1],
  ],
  'rebound-slow': [
    ['harsh-everywhere', 4],
    ['kicks', 3],
    ['dead', 3],
    ['washes-out', 1],
  ],
  'lsc-open': [
    ['wallows', 3],
    ['dives', 3],
    ['blows-through', 3],
  ],
  'lsc-closed': [
    ['harsh-everywhere', 4],
    ['washes-out', 3],
    ['harsh-square-edge', 2],
    ['nervous', 2],
  ],
  'hsc-open': [
    ['bottoms', 4],
    ['blows-through', 3],
    ['dives', 1],
  ],
  'hsc-closed': [
    ['harsh-everywhere', 4],
    ['dead', 2],
    ['unused-travel', 2],
  ],
  'spring-soft': [
    ['dives', 3],
    ['wallows', 3],
    ['kicks', 2],
    ['harsh-gets-worse', 1],
    ['harsh-everywhere', 1],
  ],
  'spring-firm': [
    ['harsh-everywhere', 4],
    ['nervous', 3],
    ['washes-out', 3],
  ],
  'ramp-low': [
    ['blows-through', 5],
    ['harsh-and-bottoms', 3],
  ],
  'ramp-high': [
    ['harsh-everywhere', 4],
    ['unused-travel', 3],
  ],
}
/** At the rear nobody says that it dives, or that the front washes out. */
const atRear: Partial<Record<FeelWord, FeelWord>> = { dives: 'wallows', 'washes-out': 'nervous' }

/**
 * A word for a cause at an end, and the end it is said of.
 *
 * @param own    what this rider says instead of what is usual
 * @param random seeded source, advanced once
 * @throws Error for a cause that nobody has words for
 */
export function saying(
  kind: CauseKind,
  end: End,
  manner: Manner,
  random: () => number,
  own: Vocabulary = {},
): { word: FeelWord; end: End } {
  const words = own[kind] ?? (manner === 'clear' ? clear : ambiguous)[kind]
  if (!words) throw new Error(`nobody has words for ${kind}`)
  let left = random() * words.reduce((s, [, often]) => s + often, 0)
  const [word, , at = end] = words.find(([, often]) => (left -= often) < 0) ?? words[0]
  return { word: at === 'rear' ? (atRear[word] ?? word) : word, end: at }
}
