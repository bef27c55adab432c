/** Signs that stand on or beside a dial, and what they mostly mean. None of them is kept by everybody. */
export const signs = {
  tortoise: { name: 'Tortoise', means: 'slower rebound' },
  hare: { name: 'Hare', means: 'faster rebound' },
  plus: {
    name: 'Plus',
    means: 'mostly slower or firmer; some mean faster or softer: feel which way is closed',
  },
  minus: { name: 'Minus', means: 'mostly faster or softer; the other way round on some' },
  clockwise: { name: 'Arrow with the clock', means: 'mostly closes, seen at the knob: slower or firmer' },
  shut: {
    name: 'Shut lock',
    means: 'the lever is firm, for climbs; open it before a descent and before any reading',
  },
  open: { name: 'Open lock', means: 'the lever is open' },
  red: { name: 'Red', means: 'a habit of the trade: rebound' },
  blue: { name: 'Blue', means: 'a habit of the trade: compression' },
} as const
export type Sign = keyof typeof signs
