import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { Evidence, Proposal } from '#contract/proposal'
import { questionRules } from '../../causes/questions.ts'
import { wordRules } from '../../causes/words.ts'
import { plain, reason } from '../cards.ts'
import { hasAskedEnough, heard, type Climb, type Rung } from './climb.ts'
import { happyRating } from './settle.ts'

/** A lever that stands firm is opened and ridden before a cause is named. */
export const openLever: Rung = (c) => atEnd(c, 'rear') ?? atEnd(c, 'front')

export function hasLever(c: Climb, end: End): Extract<Adjuster, { kind: 'lever' }> | null {
  const lever = c.space[end]?.adjusters.find((a) => a.kind === 'lever')
  return lever?.kind === 'lever' ? lever : null
}

function atEnd(c: Climb, end: End): ReturnType<Rung> {
  const lever = hasLever(c, end)
  // What a lever that is not open explains before any dial does.
  const said = heard(c, end, questionRules['lever-open'].words)
  if (!lever || hasAskedEnough(c)) return null
  const at = c.positions.get(lever.id)
  if (!said)
    return at === lever.positions.length - 1 && isMiddling(c) ? openCard(c, end, lever, at, []) : null
  const told = c.onNow[c.onNow.length - 1]?.feel?.answers.some(
    (a) => a.question === 'lever-open' && a.end === end && a.answer === 'not-open',
  )
  if (at === 0 || (at === undefined && !told)) return null
  return openCard(c, end, lever, at, [
    reason(`“${wordRules[said.mark.word].label}” on run ${said.run.number}`, said.run.run.id),
  ])
}

/** Nothing said, and not liked: behind a firm lever no dial tells anything. */
function isMiddling(c: Climb): boolean {
  const last = c.onNow[c.onNow.length - 1]
  return (
    Boolean(last?.feel) && last.feel!.marks.length === 0 && (last.feel!.rating ?? happyRating) < happyRating
  )
}

function openCard(
  c: Climb,
  end: End,
  lever: NonNullable<ReturnType<typeof hasLever>>,
  at: number | undefined,
  words: Evidence[],
): Proposal {
  const stands =
    at === undefined
      ? `The ${end} lever was not fully open`
      : `The ${end} lever stands at “${lever.positions[at]}”`
  return {
    ...plain(
      at === undefined ? 'check-first' : 'change',
      `Open the ${end} lever and ride again`,
      `${stands}. A lever that is not open makes harsh, dead and unused what no dial can mend.`,
      'If it feels the same with the lever open, the dials are next.',
    ),
    moves: at === undefined ? [] : [{ end, adjusterId: lever.id, from: at, to: 0 }],
    speaksFor: [reason(stands), ...words],
    caution: 'An open lever lets the bike move more: try it at low speed first.',
    causes: c.causes(),
  }
}
