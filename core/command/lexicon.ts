import type { AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'

/** Ends by what people call them. "back" is an end only before a part; alone it takes back. */
export const endWords: Readonly<Record<string, End>> = {
  front: 'front',
  fork: 'front',
  forks: 'front',
  f: 'front',
  rear: 'rear',
  shock: 'rear',
  r: 'rear',
  back: 'rear',
}

/** Parts by what people call them, the likeliest role first; the first name is the one that is offered. */
export const partWords: readonly (readonly [readonly string[], readonly AdjusterRole[]])[] = [
  [
    ['rebound', 'reb', 'rb', 'return', 'rebounds'],
    ['rebound', 'low-speed-rebound'],
  ],
  [
    ['lsr', 'low-speed-rebound'],
    ['low-speed-rebound', 'rebound'],
  ],
  [['hsr', 'high-speed-rebound'], ['high-speed-rebound']],
  [
    ['compression', 'comp', 'damping'],
    ['compression', 'low-speed-compression'],
  ],
  [
    ['lsc', 'low-speed-compression', 'low-speed'],
    ['low-speed-compression', 'compression'],
  ],
  [['hsc', 'high-speed-compression', 'high-speed'], ['high-speed-compression']],
  [['psi', 'bar', 'pressure', 'air'], ['main-pressure']],
  [['spacer', 'spacers'], ['spacers']],
  [['spring', 'coil'], ['spring-rate']],
  [['preload'], ['preload']],
  [['lever', 'switch'], ['lever']],
]

/** A move: by how it feels, by which way the hand goes, or by more and less of a number. */
export type Effect =
  | { of: 'rebound'; /** +1 faster */ sign: 1 | -1 }
  | { of: 'firmness'; /** +1 softer */ sign: 1 | -1 }
  | { of: 'turning'; /** +1 towards open */ sign: 1 | -1 }
  | {
      of: 'number'
      /** +1 more of it */ sign: 1 | -1
      /** "2 more": only in want of a better word */ loose?: true
    }

const effect = (of: Effect['of'], sign: 1 | -1, ...words: string[]): [string, Effect][] =>
  words.map((w) => [w, { of, sign }])
const loosely = (sign: 1 | -1, ...words: string[]): [string, Effect][] =>
  words.map((w) => [w, { of: 'number', sign, loose: true }])

export const effectWords: ReadonlyMap<string, Effect> = new Map([
  ...effect('rebound', -1, 'slower', 'slow'),
  ...effect('rebound', 1, 'faster', 'fast', 'quicker', 'speed'),
  ...effect('firmness', -1, 'firmer', 'firm', 'harder', 'stiffer', 'stiffen'),
  ...effect('firmness', 1, 'softer', 'soft', 'soften', 'lighter'),
  ...effect('turning', -1, 'in', 'close', 'closed', 'clockwise'),
  ...effect('turning', 1, 'out', 'open', 'anticlockwise', 'counterclockwise'),
  ...effect('number', 1, 'up', 'plus', 'add', 'raise', 'increase'),
  ...effect('number', -1, 'down', 'minus', 'drop', 'lower', 'remove', 'take', 'reduce', 'bleed'),
  ...loosely(1, 'more'),
  ...loosely(-1, 'less', 'fewer'),
])

/** Little words that say nothing of what is turned. */
export const fillers: ReadonlySet<string> = new Set(
  'the by of on please turn turns set put make go click clicks notch notches bit another it its from a an let some too degree degrees mm'.split(
    ' ',
  ),
)
export const separators: ReadonlySet<string> = new Set(['and', ',', ';', 'then', '&', 'also'])
/** Words that turn a line round: what they stand before must not be done. */
export const notWords: ReadonlySet<string> = new Set(
  "not no don't dont never without except nor neither cannot can't".split(' '),
)
export const tyreWords: ReadonlySet<string> = new Set(['tyre', 'tyres', 'tire', 'tires', 'wheel', 'wheels'])
/** Both ends in one word, or as "fork and shock". */
export const bothWord = 'both'
export const toWords: ReadonlySet<string> = new Set(['to', 'at', '=', 'is'])

const numberList =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
    ' ',
  )
export const numberWords: ReadonlyMap<string, number> = new Map([
  ...numberList.map((w, i) => [w, i] as [string, number]),
  ['couple', 2],
  ['half', 0.5],
  ['½', 0.5],
  ['quarter', 0.25],
  ['¼', 0.25],
])

/** Words of a line that takes the last change back. */
export const undoWords: ReadonlySet<string> = new Set(['undo', 'revert', 'back', 'backwards'])
export const undoFillers: ReadonlySet<string> = new Set(
  'undo revert back go put it that the last change take all'.split(' '),
)
