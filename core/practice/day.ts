import type { DayBundle } from '#contract/endpoints'
import type { End } from '#contract/common'
import type { QuestionId } from '#contract/question'
import type { Recording } from '#contract/recording'
import type { Feel, Run } from '#contract/run'
import type { ChangeReason, FoundIn, Setup } from '#contract/setup'
import { withAnswered } from '../causes/answered.ts'
import { emptyFeel, nothingNoted } from '../setup/nothingNoted.ts'
import { strokePct } from '../spring/sag.ts'
import { assumed, readBy, withTurns } from '../setup/known.ts'
import type { HiddenRider } from './hiddenRider.ts'
import { practiceBike, practiceRider, practiceTrail } from './kit.ts'
import type { Positions } from './landscape.ts'
import { gaps, leaked, looked, turnedTo, type OnTheBike } from './onTheBike.ts'

/** What can be done on a day of practice. The day is made from these, and from nothing else. */
export type PracticeAct =
  /** `byHand`: what the rider says of it is noted by whoever practises, as on a trail day. */
  | { do: 'ride'; ringMm: Record<End, number>; byHand?: true }
  | { do: 'note'; run: number; feel: NotedFeel }
  | { do: 'turn'; to: Positions; linked: boolean; text: string; source: 'own-idea' | 'proposal' | 'revert' }
  | { do: 'ask'; question: QuestionId; end: End | null }
  | { do: 'read'; end: End }
  /** A dial is counted to its stop, a pressure read off a gauge. */
  | { do: 'look'; adjusterId: string }
  | { do: 'settle' }

/** What a hand notes of a run. */
export type NotedFeel = Pick<Feel, 'rating' | 'marks' | 'verdicts' | 'note'>

/** A ride of the day with what it was ridden on. */
export interface PracticeRun {
  number: number
  /** Where everything stood. */
  positions: Positions
  /** The same as hands left it: without what leaked. */
  byHand: Positions
  /** Dials that did not stand where they were written to. */
  gaps: Positions
  ringMm: Record<End, number>
  /** What the rider said of it, whoever noted it. */
  said: Pick<Feel, 'rating' | 'marks'>
  /** To be noted by hand. */
  byHandNoted: boolean
  /** Acts since the run before. */
  since: Exclude<PracticeAct, { do: 'ride' | 'note' }>[]
}

/** A day of practice, as far as it went. */
export interface PracticeDay {
  bundle: DayBundle
  /** Where everything stands now. */
  positions: Positions
  /** Where it is written to stand. */
  written: Positions
  /** What was counted or gauged since it was turned last: where it was written to stand, and where it stood, canonical. */
  looked: ReadonlyMap<string, { written: number; stood: number }>
  /** What came to its stop when it was turned last. */
  stopped: readonly string[]
  runs: PracticeRun[]
  /** Acts since the last run. */
  since: PracticeRun['since']
  settled: boolean
}

/** Runs are this far apart, minutes, from nine in the morning by the clock of whoever looks, on no particular day. */
const minutesApart = 12
const date = '2000-01-01'
const clock = (minutes: number) => new Date(2000, 0, 1, 9, minutes).toISOString()
/** The most that a day may hold; nobody is stopped in practice. */
const changeLimit = 30
const altitudeM = 600

/**
 * The day that these acts make, as any day is kept: the same tools look at it.
 * @param startsMin when each run began, minutes from nine; usual: one after the other
 */
export function practiceDay(
  rider: HiddenRider,
  acts: readonly PracticeAct[],
  startsMin?: readonly number[],
): PracticeDay {
  const units = [rider.space.front, rider.space.rear].filter((u) => u !== null)
  const parts = new Map(rider.dials.map((d) => [d.adjuster.id, { part: d.adjuster, end: d.end }]))
  const first = firstSetup(rider)
  const setups: Setup[] = [first]
  const runs: Run[] = []
  const feels: Feel[] = []
  const ridden: PracticeRun[] = []
  let since: PracticeRun['since'] = []
  let on: OnTheBike = { stands: { ...rider.start }, written: { ...rider.written } }
  let byHand: Positions = { ...rider.start }
  let lookedAt = new Map<string, { written: number; stood: number }>()
  let stopped: string[] = []
  let readings = 0
  let settled = false
  const now = () => setups[setups.length - 1]
  const startMin = (n: number) => startsMin?.[n] ?? n * minutesApart
  const at = () => (runs.length > 0 ? clock(startMin(runs.length - 1) + minutesApart - 0.5) : clock(-1))
  const put = (change: Pick<Setup, 'positions'> & { reason: Partial<ChangeReason>; foundIn?: FoundIn }) =>
    setups.push({
      ...now(),
      id: `practice-setup-${setups.length + 1}`,
      parentId: now().id,
      madeAt: at(),
      foundIn: null,
      ...change,
      reason: { ...first.reason, ...change.reason },
    })
  for (const act of acts) {
    if (act.do === 'ride') {
      const number = runs.length + 1
      const told = rider.tell(on.stands, number, {
        front: deepestPct(rider, 'front', act.ringMm),
        rear: deepestPct(rider, 'rear', act.ringMm),
      })
      const id = `practice-run-${number}`
      runs.push({
        ...nothingNoted,
        id,
        version: 1,
        dayId: 'practice-day',
        setupId: now().id,
        startedAt: clock(startMin(runs.length)),
        kind: 'counted',
        mind: told.mind,
        ringFrontMm: act.ringMm.front,
        ringRearMm: act.ringMm.rear,
        airTempC: rider.drill.heatC ? Math.round(rider.airTempC(number)) : null,
      })
      const marks = told.marks.map((m, i) => ({ ...m, id: `${id}-${i}` }))
      const said = { rating: told.rating, marks }
      feels.push({ ...emptyFeel(id), version: 1, ...(act.byHand ? {} : said) })
      ridden.push({
        number,
        positions: { ...on.stands },
        byHand: { ...byHand },
        gaps: gaps(on),
        ringMm: act.ringMm,
        said,
        byHandNoted: act.byHand === true,
        since,
      })
      since = []
      on = leaked(on, rider.leaks, rider.dials)
      for (const id of rider.leaks.keys()) lookedAt.delete(id)
      continue
    }
    if (act.do === 'note') {
      const k = act.run - 1
      if (ridden[k]?.byHandNoted) feels[k] = { ...feels[k], ...act.feel }
      continue
    }
    since.push(act)
    if (act.do === 'turn') {
      const before = on
      ;({ now: on, stopped } = turnedTo(before, act.to, rider.dials))
      const turned = Object.keys(act.to)
      for (const id of turned) {
        byHand = {
          ...byHand,
          [id]: rider.leaks.has(id) ? on.stands[id] : byHand[id] + on.stands[id] - before.stands[id],
        }
        lookedAt.delete(id)
      }
      const places = new Map(turned.map((id) => [id, on.written[id]]))
      put({
        positions: withTurns(now().positions, places, parts, { at: at() }),
        reason: { source: act.source, linked: act.linked, text: act.text },
      })
    } else if (act.do === 'look') {
      const id = act.adjusterId
      if (!parts.has(id)) continue
      const how = parts.get(id)!.part.kind === 'pressure' ? 'read off the gauge' : 'counted to the stop'
      const known = readBy({ at: at() }, how)
      lookedAt = new Map(lookedAt).set(id, { written: on.written[id], stood: on.stands[id] })
      on = looked(on, id)
      put({
        positions: now().positions.map((p) =>
          p.adjusterId === id ? { ...p, value: on.written[id], known } : p,
        ),
        reason: { source: 'reading', linked: true, text: how },
      })
    } else if (act.do === 'read') {
      const sag = Math.round(rider.sagPct(act.end, on.stands, runs.length + 1, readings++) * 2) / 2
      put({
        positions: now().positions,
        reason: { source: 'reading', linked: true, text: '' },
        foundIn: {
          airTempC: Math.round(rider.airTempC(runs.length + 1)),
          altitudeM,
          place: '',
          sagFrontPct: act.end === 'front' ? sag : null,
          sagRearPct: act.end === 'rear' ? sag : null,
          postureFront: act.end === 'front' ? 'ready' : null,
          postureRear: act.end === 'rear' ? 'ready' : null,
        },
      })
    } else if (act.do === 'ask') {
      const feel = feels[feels.length - 1]
      if (!feel) continue
      const answer = rider.answer(
        { id: act.question, end: act.end },
        ridden[ridden.length - 1].positions,
        runs.length,
        ridden.at(-2)?.positions ?? null,
      )
      const given = { question: act.question, end: act.end, answer }
      feels[feels.length - 1] = withAnswered(feel, given, runs.at(-2)?.id ?? null)
    } else if (act.do === 'settle') settled = true
  }
  const bundle: DayBundle = {
    day: {
      id: 'practice-day',
      version: 1,
      date,
      riderId: practiceRider.id,
      bikeId: practiceBike.id,
      trailId: practiceTrail.id,
      startSetupId: first.id,
      conditions: { airTempC: Math.round(rider.airTempC(1)), altitudeM, surface: 'dry-hard' },
      hours: [],
      plans: [],
      changeLimit,
      settledSetupId: settled ? now().id : null,
      purpose: 'testing',
      blind: false,
      judgedAlone: true,
      note: '',
    },
    rider: practiceRider,
    bike: { ...practiceBike, currentSetupId: now().id },
    units,
    ownCharts: [],
    trail: practiceTrail,
    setups,
    runs,
    feels,
    recordings: [],
    proposals: [],
    latest: true,
    tent: null,
  }
  return {
    bundle,
    positions: on.stands,
    written: on.written,
    looked: lookedAt,
    stopped,
    runs: ridden,
    since,
    settled,
  }
}

const deepestPct = ({ space }: HiddenRider, end: End, ringMm: Record<End, number>) =>
  strokePct(ringMm[end], space[end]!.strokeMm)

/** The day with what the sensors kept of its runs. */
export const withRecordings = (day: PracticeDay, recordings: readonly Recording[]): PracticeDay => ({
  ...day,
  bundle: { ...day.bundle, recordings: [...recordings] },
})

/** Everything was read before the first run: counted, gauged, nothing assumed. A count that is wrong is one that nobody took: it is off a card. */
function firstSetup(rider: HiddenRider): Setup {
  return {
    id: 'practice-setup-1',
    bikeId: practiceBike.id,
    parentId: null,
    dayId: 'practice-day',
    madeAt: clock(-10),
    name: null,
    frontUnitId: rider.space.front?.id ?? null,
    rearUnitId: rider.space.rear?.id ?? null,
    positions: rider.dials.map((d) => ({
      end: d.end,
      adjusterId: d.adjuster.id,
      value: rider.written[d.adjuster.id],
      known: rider.drill.miscounted
        ? assumed('as the card says', clock(-10))
        : readBy({ at: clock(-10) }, 'read before the first run'),
    })),
    reason: {
      text: '',
      source: 'baseline',
      linked: false,
      proposalId: null,
      undoes: null,
      fromSetupId: null,
    },
    foundIn: null,
    wanted: false,
  }
}
