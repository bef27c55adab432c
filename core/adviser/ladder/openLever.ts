import type { End } from '#contract/common'
import type { FeelWord } from '#contract/run'
import { wordRules } from '../../causes/words.ts'
import { plain, reason } from '../cards.ts'
import { hasAskedEnough, heard, type Climb, type Rung } from './climb.ts'

/** What a lever that is not open explains before any dial does. */
const leverWords: readonly FeelWord[] = [
  'harsh-everywhere',
  'harsh-square-edge',
  'harsh-gets-worse',
  'unused-travel',
  'dead',
  'kicks',
  'washes-out',
  'nervous',
]

/** A lever that stands firm is opened and ridden before a cause is named. */
export const openLever: Rung = (c) => atEnd(c, 'rear') ?? atEnd(c, 'front')

function atEnd(c: Climb, end: End): ReturnType<Rung> {
  const lever = c.space[end]?.adjusters.find((a) => a.kind === 'lever')
  const at = lever && c.positions.get(lever.id)
  const said = heard(c, end, leverWords)
  if (lever?.kind !== 'lever' || at === undefined || at === 0 || !said || hasAskedEnough(c)) return null
  return {
    ...plain(
      'change',
      `Open the ${end} lever and ride again`,
      `It stands at “${lever.positions[at]}”. A lever that is not open makes harsh, dead and unused what no dial can mend.`,
      'If it feels the same with the lever open, the dials are next.',
    ),
    moves: [{ end, adjusterId: lever.id, from: at, to: 0 }],
    speaksFor: [
      reason(`The ${end} lever stands at “${lever.positions[at]}”`),
      reason(`“${wordRules[said.mark.word].label}” on run ${said.run.number}`, said.run.run.id),
    ],
    caution: 'An open lever lets the bike move more: try it at low speed first.',
    causes: c.causes(),
  }
}
