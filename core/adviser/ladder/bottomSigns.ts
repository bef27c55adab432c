import type { End } from '#contract/common'
import type { Evidence, Proposal } from '#contract/proposal'
import type { FeelWord } from '#contract/run'
import { facts as rules } from '../../causes/factRules.ts'
import { wordRules } from '../../causes/words.ts'
import { strokePct } from '../../spring/sag.ts'
import { reason } from '../cards.ts'
import type { HistoryRun } from '../dayHistory.ts'
import { unbelievedEnds } from '../unbelieved.ts'
import { heard, type Climb } from './climb.ts'
import { happyRating, hasComplaint } from './settle.ts'

export const bottomWords: readonly FeelWord[] = ['bottoms', 'harsh-and-bottoms']

/** What the last run says of an end that bottoms: a word, a count by ear or sensor, or rings at the end twice; empty: nothing. */
export function signsOf(c: Climb, end: End): Evidence[] {
  const last = c.onNow[c.onNow.length - 1]
  const said = heard(c, end, bottomWords)
  if (said && said.run === last)
    return [reason(`“${wordRules[said.mark.word].label}” on run ${last.number}`, last.run.id)]
  // Another word on the last run has taken its place; who likes it so is left alone.
  if (!last || hasComplaint(last) || (last.feel?.rating ?? 0) >= happyRating) return []
  const count = countedByEar(last, end)
  if (count >= rules.heardFrom[last.run.effort ?? 'usual'])
    return [reason(`${count} bottom-outs at the ${end} counted by ear on run ${last.number}`, last.run.id)]
  const hard = hardBySensor(c, last, end)
  if (hard >= hardFrom)
    return [
      reason(`${hard} hard bottom-outs at the ${end} on run ${last.number}, by the sensor`, last.run.id),
    ]
  const full = c.onNow.slice(-ringsFull)
  return full.length === ringsFull && full.every((r) => isRingFull(c, r, end))
    ? [
        reason(
          `The ${end} ring stood at the end on runs ${full.map((r) => r.number).join(' and ')}`,
          last.run.id,
        ),
      ]
    : []
}

/** So many runs in a row with the ring at the end are no chance. */
const ringsFull = 2
/** One on the hardest hit is what travel is for. */
const hardFrom = 2
const hardBySensor = (c: Climb, r: HistoryRun, end: End) =>
  unbelievedEnds(r, c.space).includes(end) ? 0 : (r.analysis?.whole[end]?.hardBottomOuts ?? 0)
const countedByEar = ({ run }: HistoryRun, end: End) =>
  (end === 'front' ? run.heardBottomsFront : run.heardBottomsRear) ?? 0
function isRingFull(c: Climb, { run, analysis }: HistoryRun, end: End): boolean {
  const mm = end === 'front' ? run.ringFrontMm : run.ringRearMm
  // Ridden all out it may; and a sensor says more than a ring.
  if (mm === null || analysis !== null || run.effort === 'all-out') return false
  return strokePct(mm, c.space[end]!.strokeMm) >= rules.ringFullPct
}

export const bottomed = (r: HistoryRun, end: End) =>
  countedByEar(r, end) >= rules.heardFrom[r.run.effort ?? 'usual'] ||
  (r.feel?.marks.some((m) => bottomWords.includes(m.word) && (m.end === end || m.end === 'both')) ?? false)
export const timesHere = (c: Climb, end: End) =>
  c.onNow.filter((r) => bottomed(r, end) || isRingFull(c, r, end)).length

/** A bike that is left alone is left alone; what its sensors counted at the end of the stroke is said with it. */
export function withBottomsCounted(c: Climb, p: Proposal): Proposal {
  const last = c.counted.at(-1)
  if (!last || (p.kind !== 'leave-it' && p.kind !== 'settled')) return p
  const counted = (['front', 'rear'] as const).flatMap((end) => {
    const n = hardBySensor(c, last, end)
    return n >= hardFrom ? [`${n} hard bottom-outs at the ${end}`] : []
  })
  return counted.length === 0
    ? p
    : {
        ...p,
        watchFor: `${p.watchFor} The sensor counted ${counted.join(' and ')}: look at the ring before anything bigger is ridden.`,
      }
}
