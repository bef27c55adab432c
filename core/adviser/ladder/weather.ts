import type { End } from '#contract/common'
import type { Adjuster } from '#contract/adjuster'
import type { Evidence, Proposal, ProposedMove } from '#contract/proposal'
import type { FeelWord } from '#contract/run'
import { adjusterName, familyOf } from '../../adjusters/words.ts'
import { facts as rules } from '../../causes/factRules.ts'
import { isComplaint, wordRules } from '../../causes/words.ts'
import { canonicalUnits, say } from '../../units/choice.ts'
import { answerTo } from '../answers.ts'
import { plain, reason } from '../cards.ts'
import { conditionsAt, conditionsNow } from '../../conditions/at.ts'
import { setupOf } from '../history.ts'
import { oneStep } from '../remedies.ts'
import { airInWeather } from './airInWeather.ts'
import { heard, type Climb, type Rung } from './climb.ts'
import { fallHere } from './fallHere.ts'

/** What thin oil sounds like, and what thick oil does. */
const words: Record<'heat' | 'cold', readonly FeelWord[]> = {
  heat: ['soft-when-hot', 'pogo', 'dives', 'wallows', 'kicks', 'nervous', 'blows-through'],
  cold: [
    'slow-when-cold',
    'dead',
    'stays-down',
    'harsh-everywhere',
    'harsh-gets-worse',
    'harsh-square-edge',
    'washes-out',
  ],
}

/**
 * Much warmer or colder than where the settings were found, and it sounds like it: both ends together, as one change,
 * before any dial is blamed. About a click a dial for 10 to 15 °C; once a day.
 */
export const weather: Rung = (c) => {
  const back = backFrom(c)
  if (back) return back
  const turned = turnOfWeather(c)
  if (!turned || (c.changes >= c.h.changeLimit && c.h.purpose !== 'race')) return null
  const { kind, why } = turned
  const said = heardOf(c, kind) ?? silentFall(c)
  if (!said || isShifted(c)) return null
  const moves = shift(c, kind === 'heat' ? -1 : 1)
  if (moves.length < 2) return null
  const [slower, firmer] = kind === 'heat' ? ['slower', 'firmer'] : ['faster', 'softer']
  return {
    ...plain(
      'change',
      `For the ${kind}: ${moves.map((m) => `${m.end} ${nameOf(c, m)} one ${isRebound(c, m) ? slower : firmer}`).join(', ')}`,
      `One change for both ends: the oil has got ${kind === 'heat' ? 'thinner' : 'thicker'}. Turn it back as the units come back to their old temperature.`,
      'If one end feels wrong now and the other right, it was not the weather.',
    ),
    moves,
    speaksFor: [reason(why), said, ...airInWeather(c)],
    caution: reboundCaution,
    causes: c.causes(),
  }
}

/** A word of the weather, as it stands on the card. */
function heardOf(c: Climb, kind: 'heat' | 'cold'): Evidence | null {
  const said = heard(c, 'front', words[kind]) ?? heard(c, 'rear', words[kind])
  return said && reason(`“${wordRules[said.mark.word].label}” on run ${said.run.number}`, said.run.run.id)
}

/** Nobody says of what, but the same settings are clearly worse than they were: nothing else has changed. */
function silentFall(c: Climb): Evidence | null {
  const last = c.onNow.at(-1)
  return !last || last.feel?.marks.some((m) => isComplaint(m.word)) ? null : fallHere(c, { air: true })
}

/** So near to where the settings were found the weather has gone, °C. */
const goneWithinC = 5

/** What was turned for heat or cold goes back as one when that has gone, and it sounds like it. */
function backFrom(c: Climb): Proposal | null {
  const start = setupOf(c.h, c.h.startSetupId)
  const found = start?.foundIn?.airTempC ?? null
  const now = conditionsNow(c.h).airTempC
  if (!start || found === null || now === null || Math.abs(now - found) > goneWithinC) return null
  const moves = weatherDials(c).flatMap(({ end, dial }): ProposedMove[] => {
    const from = c.positions.get(dial.id)
    const to = start.positions.find((p) => p.adjusterId === dial.id)?.value
    return from === undefined || to === undefined || from === to
      ? []
      : [{ end, adjusterId: dial.id, from, to }]
  })
  const ways = new Set(moves.map((m) => Math.sign(m.to - m.from)))
  const rebounds = new Set(moves.filter((m) => isRebound(c, m)).map((m) => m.end))
  // Both ends the same way is what the weather asked for; anything else was turned for a reason of its own.
  if (ways.size !== 1 || rebounds.size < 2) return null
  const gone = ways.has(-1) ? 'cold' : 'heat'
  const other = gone === 'cold' ? 'heat' : 'cold'
  const said = heardOf(c, other)
  if (!said || !wasThere(c, gone, found)) return null
  const [slower, firmer] = gone === 'cold' ? ['slower', 'firmer'] : ['faster', 'softer']
  const units = c.space.units ?? canonicalUnits
  return {
    ...plain(
      'change',
      `Back from the ${gone}: ${moves.map((m) => `${m.end} ${nameOf(c, m)} ${isRebound(c, m) ? slower : firmer}`).join(', ')}`,
      `What was turned for the ${gone} is taken back as one change, to where the day began.`,
      'If it is no better, it was not the weather.',
    ),
    moves,
    speaksFor: [
      reason(
        `${say('temperature', now, units)} now, ${say('temperature', found, units)} where these settings were found`,
      ),
      said,
    ],
    caution: reboundCaution,
    causes: c.causes(),
  }
}

/** A run of today was ridden in it. */
const wasThere = (c: Climb, kind: 'heat' | 'cold', foundC: number) =>
  c.counted.some((r) => {
    const t = conditionsAt(c.h, r.run).airTempC
    return t !== null && (kind === 'cold' ? foundC - t : t - foundC) >= rules.temperatureJumpC
  })

const reboundCaution = 'A wrong rebound setting can throw a rider: try it at low speed in a safe place first.'

/** Rated from here on without a complaint, these settings were right for the air of that run. */
const likedFrom = 8

/** By the thermometer where it is known where the settings were found or liked, else by the rider's own answer. */
function turnOfWeather(c: Climb): { kind: 'heat' | 'cold'; why: string } | null {
  const found = setupOf(c.h, c.h.startSetupId)?.foundIn?.airTempC ?? null
  const now = conditionsNow(c.h).airTempC
  const liked = likedHere(c)
  const then = found ?? liked[0]?.airTempC ?? null
  // What was ridden in air like now, and liked as well, is not the weather's.
  const isLikedNow = liked.some(
    (x) => now !== null && Math.abs(x.airTempC - now) <= asNowC && x.rating > liked[0].rating - asGood,
  )
  if (then === null || isLikedNow)
    return answerTo(c.onNow, 'since-hot', null)?.answer === 'since-hot'
      ? { kind: 'heat', why: 'It has been so only since it got hot' }
      : null
  if (now === null || Math.abs(now - then) < rules.temperatureJumpC) return null
  const units = c.space.units ?? canonicalUnits
  return {
    kind: now > then ? 'heat' : 'cold',
    why: `${say('temperature', now, units)} now, ${say('temperature', then, units)} ${found === null ? `on run ${liked[0].run}, where they were liked` : 'where these settings were found'}`,
  }
}

/** Air like now, °C, and a rating that is as good, points. */
const asNowC = 4
const asGood = 1

/**
 * Runs on which these settings were liked today, with their air, best rated first: the day itself knows where they were
 * right. It gets warmer by little and little, so the best is held against now, not the last.
 */
function likedHere(c: Climb): { airTempC: number; run: number; rating: number }[] {
  return c.onNow
    .filter((r) => (r.feel?.rating ?? 0) >= likedFrom && !r.feel!.marks.some((m) => isComplaint(m.word)))
    .flatMap((r) => {
      const airTempC = conditionsAt(c.h, r.run).airTempC
      return airTempC === null ? [] : [{ airTempC, run: r.number, rating: r.feel!.rating! }]
    })
    .sort((a, b) => b.rating - a.rating || a.run - b.run)
}

/** Rebound of both ends, and compression of the fork: what the weather moves. */
function weatherDials(c: Climb): { end: End; dial: Adjuster }[] {
  const wanted: [End, string[]][] = [
    ['front', ['low-speed-rebound', 'rebound']],
    ['rear', ['low-speed-rebound', 'rebound']],
    ['front', ['low-speed-compression', 'compression']],
  ]
  return wanted.flatMap(([end, roles]) => {
    const dial = c.space[end]?.adjusters.find((a) => roles.includes(a.role))
    return dial ? [{ end, dial }] : []
  })
}

/** One step each. */
const shift = (c: Climb, direction: 1 | -1): ProposedMove[] =>
  weatherDials(c).flatMap(({ end, dial }) => {
    const from = c.positions.get(dial.id)
    const to = from === undefined ? null : oneStep(dial, from, direction)
    return from === undefined || to === null ? [] : [{ end, adjusterId: dial.id, from, to }]
  })

const dialOf = (c: Climb, m: ProposedMove) => c.space[m.end]!.adjusters.find((a) => a.id === m.adjusterId)!
const nameOf = (c: Climb, m: ProposedMove) => adjusterName(dialOf(c, m)).toLowerCase()
const isRebound = (c: Climb, m: ProposedMove) => familyOf(dialOf(c, m)) === 'rebound'

/** Whether a rebound of each end already stands elsewhere than where the day began. */
function isShifted(c: Climb): boolean {
  const start = setupOf(c.h, c.h.startSetupId)
  return (['front', 'rear'] as const).every((end) => {
    const dial = c.space[end]?.adjusters.find((a) => familyOf(a) === 'rebound')
    const was = dial && start?.positions.find((p) => p.adjusterId === dial.id)?.value
    return !dial || was !== c.positions.get(dial.id)
  })
}
