import type { End } from '#contract/common'
import type { Mark } from '#contract/run'
import type { Proposal } from '#contract/proposal'
import { wordRules } from '../../causes/words.ts'
import { plain, reason } from '../cards.ts'
import { showsDepth } from '../deepest.ts'
import { hasAskedEnough, type Climb, type Rung } from './climb.ts'
import { bottomWords } from './bottomSigns.ts'

/**
 * Said of one end, of one run and the same ground: it bottoms, and it never uses all its travel. Both cannot be, and they
 * ask for opposite turns; the ring tells which, and costs nothing but a look.
 */
export const endOrNot: Rung = (c) => atEnd(c, 'rear') ?? atEnd(c, 'front')

function atEnd(c: Climb, end: End): Proposal | null {
  const last = c.onNow[c.onNow.length - 1]
  if (!last || last !== c.counted[c.counted.length - 1] || hasAskedEnough(c)) return null
  if (!c.space[end] || showsDepth(last, end, c.space)) return null
  const said = (last.feel?.marks ?? []).filter((m) => m.end === end || m.end === 'both')
  const pair = said
    .filter((m) => bottomWords.includes(m.word))
    .flatMap((m) =>
      said.filter((x) => x.word === 'unused-travel' && isSameGround(m, x)).map((x) => [m, x]),
    )[0]
  if (!pair) return null
  const [one, other] = pair.map((m) => `“${wordRules[m.word].label}”`)
  return {
    ...plain(
      'check-first',
      `Look at the ${end} ring: does it reach the end, or not?`,
      `${one} and ${other} cannot both be so, and ask for opposite turns. Note where the ring stands under Run details; where nobody has looked, push it down and ride the same again. With travel left, something else knocks.`,
      'The ring.',
    ),
    speaksFor: [reason(`${one} and ${other}, ${end}, on run ${last.number}`, last.run.id)],
    causes: c.causes(),
  }
}

/** A drop may use it all where the roots before it do not. */
const isSameGround = (a: Mark, b: Mark) =>
  a.sectionId === null || b.sectionId === null || a.sectionId === b.sectionId
