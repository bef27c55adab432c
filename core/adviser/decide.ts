import type { Setup } from '#contract/setup'
import { noticeable as leastNoticeable } from '../stats/verdict.ts'
import { candidatesFrom, type Candidate } from './candidates.ts'
import { clicksOf, surfaceDataOf } from './clues.ts'
import { costOfTurn } from './costs.ts'
import { dialsOf, type Dial } from './dials.ts'
import type { DayHistory, SetupSpace } from './dayHistory.ts'
import { countedRuns, setupOf, settingsKey } from './history.ts'
import { beforeLastAnswers, lastAnswerWeights, type Fitted } from './lastAnswers.ts'
import { reachableLoss } from './reachable.ts'
import { fitSurface } from './surface/fit.ts'
import { reweighted } from './surface/samples.ts'
import type { ResponseSurface, SurfaceData } from './surface/model.ts'

/** Where a day stands by its surface. */
export interface Outlook {
  dials: Dial[]
  data: SurfaceData
  surface: ResponseSurface
  fitted: Fitted
  /** Difference a rider would notice: half a point, or a share of the rider's own noise. */
  noticeable: number
  /** Chance that the best reachable settings beat the present ones by more than `noticeable`. */
  doubt: number
  /** Points the present settings are expected to lose against the best reachable ones. */
  expectedLoss: number
  /** Rated, counted runs on the present settings. */
  runsHere: number
  /** Every change that counts as one, most useful first. */
  candidates: Candidate[]
  /** Whether somebody has read every part that is turned or pumped between two runs; what is said is of those that were. */
  allRead: boolean
  settled: boolean
}

/** Constants of the choice, tuned on tuning riders only; docs/models.md, "Next change". */
export const choice = {
  /** Share of the scatter of one rating that is felt over a few runs. */
  noticedShare: 0.75,
  settleDoubt: 0.15,
  /** On a day without a word. */
  silentDoubt: 0.12,
  settleCandidate: 0.07,
  settleRuns: 2,
  /** Ridden longer here, more doubt may stay: what is left is many small things, none worth a run of its own. */
  longRuns: 3,
  longDoubt: 0.18,
  longCandidate: 0.05,
  /** Spreads of its gain that a change is worth beyond what it is expected to bring: what is not known may be good. */
  boldness: 0.8,
  /** Nothing is turned that is better with less than this chance. */
  leastBetter: 0.3,
  leastWorth: 0.05,
}

/** Weighs everything the day has shown. */
export function outlookOf(h: DayHistory, space: SetupSpace): Outlook {
  return outlookOn(h, space, fittedOf(h, space))
}

/** Samples that answers about the last run are weighed on. */
const answeredSamples = 800

export function fittedOf(h: DayHistory, space: SetupSpace): Fitted {
  const positions = positionsOf(h)
  // A dial that nobody has read stands nowhere: nothing is reasoned of it.
  const dials = dialsOf(space).filter((d) => positions.has(d.adjuster.id))
  const data = surfaceDataOf(beforeLastAnswers(h), space, dials)
  return { dials, data, surface: fitSurface(data) }
}

/** The surface with what was answered last. @param weights of the answers; null: none */
const surfaceNow = ({ surface }: Fitted, weights: ReturnType<typeof lastAnswerWeights>) =>
  weights ? reweighted(surface, weights, answeredSamples) : surface

/** All that a day says of its rider and dials, without what to do next. */
export function knownOf(h: DayHistory, space: SetupSpace): Fitted {
  const fitted = fittedOf(h, space)
  return { ...fitted, surface: surfaceNow(fitted, lastAnswerWeights(h, space, fitted)) }
}

/**
 * Where a day stands on a surface that was fitted before its last answers.
 *
 * @param weights of what was answered last, where they are at hand
 */
export function outlookOn(
  h: DayHistory,
  space: SetupSpace,
  fitted: Fitted,
  weights = lastAnswerWeights(h, space, fitted),
): Outlook {
  const { dials, data } = fitted
  const surface = surfaceNow(fitted, weights)
  const now = setupOf(h, h.currentSetupId)
  const positions = positionsOf(h)
  const noiseSd = surface.noiseSd.reduce((s, x) => s + x, 0) / surface.samples
  const noticeable = Math.max(leastNoticeable, choice.noticedShare * noiseSd)
  const loss = reachableLoss(surface, dials, clicksOf(h, h.currentSetupId, dials, null))
  const doubt = loss.reduce((n, x) => n + (x > noticeable ? 1 : 0), 0) / surface.samples
  const key = now ? settingsKey(now) : ''
  const runsHere = countedRuns(h).filter((r) => {
    const s = setupOf(h, r.run.setupId)
    return s && settingsKey(s) === key && typeof r.feel?.rating === 'number'
  }).length
  const perRun = (c: Candidate) =>
    worth(c) / Math.max(...c.steps.map((x) => costOfTurn(dials[x.dial].adjuster)))
  const candidates = candidatesFrom(surface, dials, positions, riddenPlaces(h), noticeable).sort(
    (a, b) => perRun(b) - perRun(a),
  )
  const allRead = isAllRead(space, now)
  const likeliest = Math.max(0, ...candidates.map((c) => c.clearlyBetter))
  return {
    dials,
    data,
    surface,
    fitted,
    noticeable,
    doubt,
    expectedLoss: loss.reduce((s, x) => s + x, 0) / surface.samples,
    runsHere,
    candidates,
    allRead,
    // Of a dial that nobody has read nobody knows what is left.
    settled:
      allRead &&
      ((runsHere >= choice.settleRuns && doubt < choice.settleDoubt && likeliest < choice.settleCandidate) ||
        (runsHere >= choice.longRuns && doubt < choice.longDoubt && likeliest < choice.longCandidate)),
  }
}

/** What only comes off a card or was carried over has been read by nobody. */
function isAllRead(space: SetupSpace, now: Setup | undefined): boolean {
  const read = new Set(now?.positions.filter((p) => p.known.how !== 'assumed').map((p) => p.adjusterId))
  return dialsOf(space).every((d) => d.adjuster.tool === 'workshop' || read.has(d.adjuster.id))
}

const positionsOf = (h: DayHistory) =>
  new Map(setupOf(h, h.currentSetupId)?.positions.map((p) => [p.adjusterId, p.value] as const))

/** Where every adjuster stood in the rides of the day, each place once. */
export function riddenPlaces(h: DayHistory): Map<string, number[]> {
  const places = new Map<string, number[]>()
  for (const r of countedRuns(h))
    for (const p of setupOf(h, r.run.setupId)?.positions ?? []) {
      const known = places.get(p.adjusterId) ?? []
      places.set(p.adjusterId, known.some((x) => Math.abs(x - p.value) < 1e-6) ? known : [...known, p.value])
    }
  return places
}

/** Adjusters that stood in more than one place in the rides of the day. */
export const movedToday = (h: DayHistory): Set<string> =>
  new Set([...riddenPlaces(h)].filter(([, places]) => places.length > 1).map(([id]) => id))

/**
 * What a change is worth a run for: its expected gain and a share of its spread (upper confidence bound). A run in the
 * wrong direction also tells something, and can be taken back.
 *
 * Source: Auer, Using confidence bounds for exploitation-exploration trade-offs, 2002.
 */
export function worth(c: Candidate): number {
  return c.better < choice.leastBetter ? Math.min(0, c.gain) : c.gain + choice.boldness * c.gainSd
}
