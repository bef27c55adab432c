import type { Bench } from '#contract/bench'
import type { SuspensionUnit } from '#contract/unit'
import { adjusterName, positionWords } from '../adjusters/words.ts'
import { adjusterRange } from '../adjusters/range.ts'
import { benchPosition } from './steps.ts'

export interface Check {
  key: string
  words: string
  /** Why, or how. */
  more: string
}

/** What to look at before the first reading. */
export function preparationChecks(units: readonly SuspensionUnit[]): Check[] {
  const fork = units.some((u) => u.end === 'front')
  const air = units.some((u) => u.spring === 'air')
  return [
    {
      key: 'sound',
      words: 'Sound: no leak, no oil on the shaft, no play, nothing clanks',
      more: 'Never ride with a unit that leaks, clanks or won’t return.',
    },
    ...(fork
      ? [
          {
            key: 'full-travel',
            words: 'The fork is at full travel',
            more: 'Where its travel can be set, set it long for this.',
          },
        ]
      : []),
    { key: 'levers-open', words: 'Levers open', more: 'A lever left firm makes sag look smaller.' },
    {
      key: 'compression-open',
      words: 'Compression fully open, both speeds',
      more: 'It comes back in its own step.',
    },
    {
      key: 'rebound-noted',
      words: 'Rebound open, or its clicks noted',
      more: 'Slow rebound holds the unit down and makes sag look larger.',
    },
    ...(air
      ? [
          {
            key: 'ring',
            words: 'Ring on the stanchion, or a zip tie for now',
            more: 'A tie is for measuring only: grit under it scratches. Cut it off at the end.',
          },
          {
            key: 'shock-pump',
            words: 'A shock pump, threaded on by hand, straight, finger-tight',
            more: 'No tyre pump, no compressor, never poke the valve.',
          },
        ]
      : []),
    {
      key: 'kit-on',
      words: 'All kit on: full water, pack, armour, shoes, helmet',
      more: 'It adds 3 to 8 kg.',
    },
  ]
}

/** What to do alike at every reading; said at the step, and by the hands-free timer. */
export const readingRules = [
  'No brakes: let the wheels roll.',
  'Bounce to free the seals, then settle in the posture and hold still.',
  'Push the ring to the wiper, then get off without pressing the bike down again.',
] as const

/** Dials that falsify a sag reading where they stand now, in words. */
export function inTheWay(bench: Pick<Bench, 'positions'>, unit: SuspensionUnit): string[] {
  return unit.adjusters.flatMap((a) => {
    const at = benchPosition(bench, a.id)
    if (at === null) return []
    const open =
      a.kind === 'lever' ? at === 0 : a.role.includes('compression') ? at === adjusterRange(a).max : true
    return open ? [] : [`${adjusterName(a)} stands at ${positionWords(a, at)}`]
  })
}
