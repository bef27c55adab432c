import type { End } from '#contract/common'
import type { ProposedMove } from '#contract/proposal'
import type { FeelWord } from '#contract/run'
import { familyOf } from '../../adjusters/words.ts'
import { wordRules } from '../../causes/words.ts'
import { plain, reason } from '../cards.ts'
import { cautionFor } from '../change.ts'
import { setupOf } from '../history.ts'
import { oneStep } from '../remedies.ts'
import { heard, type Climb, type Rung } from './climb.ts'

/** What a bike sounds like that is too soft for the pace. */
const softWords: readonly FeelWord[] = ['bottoms', 'blows-through', 'dives', 'wallows', 'harsh-and-bottoms']
/** Quicker by this share than when the settings were new: the rider has got faster, not lucky. */
const fasterFrom = 0.04
/** Timed runs on each side of that comparison. */
const timedRuns = 2

/**
 * The rider has got faster since the day began, or since the earlier days, and the bike sounds too soft for it: both ends
 * firmer together, as one change, before any single dial is blamed. Once a day.
 */
export const upToSpeed: Rung = (c) => {
  if (c.changes >= c.h.changeLimit || c.h.purpose === 'race') return null
  const said = heard(c, 'front', softWords) ?? heard(c, 'rear', softWords)
  const gained = said && paceGained(c)
  if (!said || !gained || isFirmer(c)) return null
  const moves = firmerTogether(c)
  if (moves.length < 2) return null
  return {
    ...plain(
      'change',
      `Up to speed: ${moves.map((m) => `${m.end} ${m.what} firmer`).join(', ')}`,
      'One change for both ends: the same hits come faster now. Ride it at the new pace.',
      'If it is harsh now where it was fine before, it was one end only: take this back and name that end.',
    ),
    moves: moves.map(({ what: _, ...m }) => m),
    speaksFor: [
      reason(`${Math.round(100 * gained.share)} % quicker than ${gained.than}`),
      reason(`“${wordRules[said.mark.word].label}” on run ${said.run.number}`, said.run.run.id),
    ],
    caution: cautionFor(dialOf(c, moves[0])),
    causes: c.causes(),
  }
}

/**
 * By the clock: the last timed runs here against the first of the day on which nothing sounded too soft, or against earlier
 * days on this trail. One single run to hold them against has to be the slower by more: it may have been for looking.
 */
function paceGained(c: Climb): { share: number; than: string } | null {
  const timed = c.counted.filter((r) => r.run.durationS !== null && r.run.effort !== 'held-back')
  const here = timed.filter((r) => c.onNow.includes(r)).slice(-timedRuns)
  if (here.length < timedRuns) return null
  const first = timed.filter((r) => !here.includes(r)).slice(0, timedRuns)
  const seconds = (runs: Climb['counted']) => mean(runs.map((r) => r.run.durationS!))
  const isOfToday = first.length === timedRuns || (first.length > 0 && !c.h.memory?.lapS)
  if (isOfToday && first.some((r) => r.feel?.marks.some((m) => softWords.includes(m.word)))) return null
  const old = isOfToday ? seconds(first) : (c.h.memory?.lapS ?? null)
  const than = isOfToday ? 'when the day began' : 'on the earlier days on this trail'
  const from = isOfToday && first.length < timedRuns ? 2 * fasterFrom : fasterFrom
  const share = old === null ? 0 : 1 - seconds(here) / old
  return share >= from ? { share, than } : null
}

const mean = (x: number[]) => x.reduce((t, v) => t + v, 0) / x.length

/** Fork pressure, and compression of both ends, a step each. */
function firmerTogether(c: Climb): (ProposedMove & { what: string })[] {
  const parts: [End, string[], 1 | -1, string][] = [
    ['front', ['main-pressure'], 1, 'pressure'],
    ['front', ['low-speed-compression', 'compression'], -1, 'compression'],
    ['rear', ['low-speed-compression', 'compression'], -1, 'compression'],
  ]
  return parts.flatMap(([end, roles, direction, what]) => {
    const dial = c.space[end]?.adjusters.find((a) => roles.includes(a.role))
    const from = dial && c.positions.get(dial.id)
    const to = dial && from !== undefined ? oneStep(dial, from, direction) : null
    return dial && from !== undefined && to !== null ? [{ end, adjusterId: dial.id, from, to, what }] : []
  })
}

const dialOf = (c: Climb, m: ProposedMove) => c.space[m.end]!.adjusters.find((a) => a.id === m.adjusterId)!

/** Whether compression stands firmer already than where the day began. */
function isFirmer(c: Climb): boolean {
  const start = setupOf(c.h, c.h.startSetupId)
  return (['front', 'rear'] as const).some((end) =>
    c.space[end]?.adjusters.some((a) => {
      const was = start?.positions.find((p) => p.adjusterId === a.id)?.value
      const is = c.positions.get(a.id)
      return (
        a.kind === 'click' &&
        familyOf(a) === 'compression' &&
        was !== undefined &&
        is !== undefined &&
        is < was
      )
    }),
  )
}
