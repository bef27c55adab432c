import { v7 as uuid } from 'uuid'
import type { DayBundle } from '#contract/endpoints'
import type { PadReport } from '#contract/pad'
import type { FeelWord, Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import type { TentRider } from '#contract/tent'
import { withTurns } from '#core/setup/known'
import { nothingNoted } from '#core/setup/nothingNoted'

/** One thing that happens in a practice that lives. */
export type Deed =
  | { does: 'goes out'; rider: TentRider }
  | { does: 'comes in'; rider: TentRider; run: Run; report: PadReport | null }
  | { does: 'turns'; setup: Setup }

/** How long a rider is out and stands here at least, s: a practice in a few minutes. */
export const pace = { outS: 25, hereS: 12, restS: 40 }

const said: readonly FeelWord[] = ['kicks', 'dives', 'harsh-gets-worse', 'washes-out', 'bottoms', 'nervous']

/**
 * What a simulated rider does next, or the mechanic for them; null: nothing yet. Nobody who is settled is touched.
 *
 * @param random in [0, 1), as often as it is asked
 * @param at     now, ISO
 */
export function nextDeed(rider: TentRider, day: DayBundle, random: () => number, at: string): Deed | null {
  const sinceS = (Date.parse(at) - Date.parse(rider.since)) / 1000
  const goes = (whereabouts: TentRider['whereabouts']): TentRider => ({ ...rider, whereabouts, since: at })
  switch (rider.whereabouts) {
    case 'settled':
      return null
    case 'resting':
      return sinceS > pace.restS ? { does: 'goes out', rider: goes('out') } : null
    case 'here': {
      if (sinceS < pace.hereS) return null
      const turned = day.runs.at(-1)?.setupId !== day.bike.currentSetupId
      const setup = !turned && day.runs.length > 1 && random() < 0.5 ? oneClick(day, random, at) : null
      return setup ? { does: 'turns', setup } : { does: 'goes out', rider: goes('out') }
    }
    case 'out': {
      if (sinceS < pace.outS) return null
      const setupId = day.bike.currentSetupId ?? day.day.startSetupId
      const run: Run = {
        ...nothingNoted,
        id: uuid(),
        version: 0,
        dayId: day.day.id,
        setupId,
        startedAt: rider.since,
        kind: day.runs.length === 0 ? 'warm-up' : 'counted',
      }
      return { does: 'comes in', rider: goes('here'), run, report: reportOf(run, day, random, at) }
    }
  }
}

/** A click on one of the dials that turn by hand, within what it can do; null: none can. */
function oneClick(day: DayBundle, random: () => number, at: string): Setup | null {
  const now = day.setups.find((s) => s.id === day.bike.currentSetupId)
  if (!now) return null
  const parts = new Map(
    day.units.flatMap((u) => u.adjusters.map((part) => [part.id, { part, end: u.end }] as const)),
  )
  const dials = now.positions.flatMap((p) => {
    const part = parts.get(p.adjusterId)?.part
    return part?.kind === 'click' ? [{ p, part }] : []
  })
  if (dials.length === 0) return null
  const { p, part } = dials[Math.floor(random() * dials.length)]
  const to = p.value + (random() < 0.5 ? 1 : -1)
  if (to < 0 || to > part.clicks) return null
  return {
    ...now,
    id: uuid(),
    parentId: now.id,
    dayId: day.day.id,
    madeAt: at,
    name: null,
    positions: withTurns(now.positions, new Map([[p.adjusterId, to]]), parts, {
      at,
      airTempC: null,
      altitudeM: null,
      place: '',
    }),
    reason: {
      text: '',
      source: 'own-idea',
      linked: false,
      proposalId: null,
      undoes: null,
      fromSetupId: null,
    },
    foundIn: null,
  }
}

/** What the rider says on the phone, two times out of three; some speak of a run that nobody has named to them. */
function reportOf(run: Run, day: DayBundle, random: () => number, at: string): PadReport | null {
  if (random() > 0.67) return null
  const compared = day.runs.some((r) => r.kind === 'counted')
  const bad = random() < 0.6
  const against = compared ? (bad ? -1 : random() < 0.5 ? 1 : 0) : null
  const word = bad ? said[Math.floor(random() * said.length)] : 'good'
  return {
    id: uuid(),
    at,
    runId: random() < 0.75 ? run.id : null,
    against,
    sectionIds: day.trail.sections.length
      ? [day.trail.sections[Math.floor(random() * day.trail.sections.length)].id]
      : [],
    words: [{ word, end: random() < 0.5 ? 'front' : 'rear', strength: 2 }],
    stopped: random() < 0.05 ? 'stopped' : null,
    text: '',
    voiceId: null,
  }
}
