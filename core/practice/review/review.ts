import { canonicalUnits, type UnitChoice } from '../../units/choice.ts'
import { practiceDay, type PracticeAct } from '../day.ts'
import type { HiddenRider } from '../hiddenRider.ts'
import { hiddenWords } from './hidden.ts'
import { lossesOf } from './losses.ts'
import { reviewRules, runInDay, type ReviewRule, type Standing } from './rules.ts'

export interface Remark {
  runs: number[]
  says: string
  standing: Standing
}

/** What the end of a day of practice tells. */
export interface Review {
  headline: string
  /** What stood wrong, the worst first, in words. */
  hidden: string[]
  /** Rating points lost at each run, and with what is left on the bike. */
  losses: number[]
  left: number
  /** Points below which this rider feels no difference. */
  noticeable: number
  remarks: Remark[]
  /** How the day was ended. */
  ending: Remark
}

/** Good runs after which more of them is circling. */
const enoughGood = 3

/** A whole day of practice against what was hidden. @param units to say it in */
export function reviewOf(
  rider: HiddenRider,
  acts: readonly PracticeAct[],
  units: UnitChoice = canonicalUnits,
): Review {
  const day = practiceDay(rider, acts)
  const { runs: losses, left } = lossesOf(rider, acts)
  const remarks = day.runs.flatMap((run, at): Remark[] => {
    const seen = runInDay(rider, day, at)
    for (const rule of Object.values<ReviewRule>(reviewRules)) {
      const says = rule.says(seen)
      if (says) return [{ runs: [run.number], says, standing: rule.standing }]
    }
    return []
  })
  return {
    headline: headlineOf(rider, losses, left),
    hidden: hiddenWords(rider, day.runs.length, units),
    losses,
    left,
    noticeable: rider.noticeable,
    remarks,
    ending: endingOf(rider, day.settled, losses, left),
  }
}

const countWords = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
]
const runsWords = (n: number) => `${countWords[n] ?? n} ${n === 1 ? 'run' : 'runs'}`

function headlineOf(rider: HiddenRider, losses: readonly number[], left: number): string {
  if (left > rider.noticeable)
    return `Stopped ${left.toFixed(1)} points short after ${runsWords(losses.length)}`
  if (losses.every((x) => x <= rider.noticeable))
    return rider.drill.heatC || losses.length === 0
      ? 'It was right all day'
      : 'Nothing was wrong, and it stayed so'
  return `You found it in ${runsWords(goodFrom(rider, losses))}`
}

/** The run, from 1, since which every run was good; the next one where the last change was not ridden. */
function goodFrom(rider: HiddenRider, losses: readonly number[]): number {
  return losses.findLastIndex((x) => x > rider.noticeable) + 2
}

function endingOf(rider: HiddenRider, settled: boolean, losses: readonly number[], left: number): Remark {
  const runs = losses.length > 0 ? [losses.length] : []
  const good = losses.length - goodFrom(rider, losses) + 1
  if (!settled) return { runs, says: 'The day was left open', standing: 'open' }
  if (left > rider.noticeable)
    return { runs, says: `Stopped with ${left.toFixed(1)} points still to be had`, standing: 'missed' }
  if (good === 0)
    return { runs, says: 'Right, but never ridden: the last change was taken on trust', standing: 'open' }
  if (good > enoughGood)
    return {
      runs,
      says: `It was right since run ${goodFrom(rider, losses)}: later runs told little`,
      standing: 'open',
    }
  return { runs, says: 'Stopped in time', standing: 'well-done' }
}
