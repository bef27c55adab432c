import type { Adjuster, CountBase } from '#contract/adjuster'
import type { ReboundTest } from '#contract/bench'
import { countBaseWords, toCount } from '../../adjusters/count.ts'
import { reboundAdvice } from '../../bench/reboundBench.ts'
import { recoveryTimeS } from '../../damper/recovery.ts'
import { reboundRatioFor } from '../../damper/startClicks.ts'
import { seededRandom } from '../../numeric/random.ts'
import { judgeRepeats } from '../../spring/reading.ts'
import { strokePct } from '../../spring/sag.ts'

interface Task {
  key: string
  title: string
  asks: string
  /** Why the answer is what it is, told afterwards either way. */
  because: string
}
/** A number to reckon, right within `within`. */
export interface NumberTask extends Task {
  kind: 'number'
  unit: string
  answer: number
  within: number
}
/** One of several to choose. */
export interface ChoiceTask extends Task {
  kind: 'choice'
  choices: readonly string[]
  answer: string
}
export type BenchTask = NumberTask | ChoiceTask

type Dial = Extract<Adjuster, { kind: 'click' }>
const dialOf = (clicks: number, countBase: CountBase): Dial => ({
  id: 'rr',
  alias: null,
  tool: 'hand',
  kind: 'click',
  role: 'rebound',
  clicks,
  step: 1,
  countBase,
})
const strokes = [
  { what: 'a fork with 150 mm of travel', mm: 150, target: 20 },
  { what: 'a fork with 130 mm of travel', mm: 130, target: 18 },
  { what: 'a shock with 55 mm of stroke', mm: 55, target: 30 },
  { what: 'a shock with 62.5 mm of stroke', mm: 62.5, target: 28 },
] as const

const oneMore = 'No number yet: one more reading'
const half = (x: number) => Math.round(2 * x) / 2
const one = (x: number) => Math.round(10 * x) / 10

/**
 * What is worked out with ring, count and stopwatch before anybody rides: one task of each kind, its numbers drawn from
 * the seed. The answers come from the rules that the bench itself uses.
 */
export function benchTasks(seed: number): BenchTask[] {
  const random = seededRandom(seed ^ 0x5e11)
  const among = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]
  const whole = (from: number, to: number) => from + Math.floor((to - from + 1) * random())
  return [
    intoPercent(among(strokes), random),
    intoMillimetres(among(strokes), whole(-3, 3)),
    readings(among(strokes), random),
    otherBase(whole(10, 20), random, among),
    recount(whole(12, 18), whole(1, 3), among([-1, 1]), random),
    rebound(among(['creeps', 'settles', 'cycles'] as const), whole(5, 9)),
    slowPush(random() < 0.5),
    gap(among([0.8, 1, 1.2]), 10),
    gap(among([0.8, 1, 1.2]), 35),
    keepsUp(among([10, 35]), among([1, 1.5])),
  ]
}

type Stroke = (typeof strokes)[number]

function intoPercent(s: Stroke, random: () => number): NumberTask {
  const mm = half((s.mm * (s.target + 8 * random() - 4)) / 100)
  return {
    kind: 'number',
    key: 'into-per-cent',
    title: 'Millimetres into per cent',
    asks: `The ring of ${s.what} stands ${mm} mm from the wiper. How much sag is that?`,
    unit: '%',
    answer: one(strokePct(mm, s.mm)),
    within: 0.6,
    because: `${mm} of ${s.mm} mm is ${one(strokePct(mm, s.mm))} %. Sag is a share of the unit’s own travel: of the shock’s stroke at the rear, not of the wheel’s.`,
  }
}
function intoMillimetres(s: Stroke, off: number): NumberTask {
  const pct = s.target + off
  const mm = one((pct / 100) * s.mm)
  return {
    kind: 'number',
    key: 'into-mm',
    title: 'Per cent into millimetres',
    asks: `You want ${pct} % of sag on ${s.what}. Where should the ring stand?`,
    unit: 'mm',
    answer: mm,
    within: 0.6,
    because: `${pct} % of ${s.mm} mm is ${mm} mm. A ring is good to about a millimetre: on a short stroke that is almost 2 %.`,
  }
}
/** A reading this share of the stroke away stands apart on any unit. */
const farShare = 0.06
function readings(s: Stroke, random: () => number): ChoiceTask {
  const middle = half((s.mm * s.target) / 100)
  // Two that agree, two that do not, or three with one that stands apart.
  const spread = [
    [0, 0.5],
    [0, 4],
    [0, 0.5, half(farShare * s.mm)],
  ][Math.floor(3 * random())]
  const mm = spread.map((d) => middle + d)
  const judged = judgeRepeats(
    mm.map((x) => strokePct(x, s.mm)),
    s.mm,
  )
  const say = (pct: number) => `${one(pct)} %`
  const mean = (list: readonly number[]) =>
    say(strokePct(list.reduce((a, b) => a + b, 0) / list.length, s.mm))
  const kept = mm.filter((_, i) => !judged.outlying.includes(i))
  const answer = judged.meanPct === null ? oneMore : say(judged.meanPct)
  const others =
    judged.meanPct !== null && kept.length === mm.length
      ? [say(judged.meanPct - 4), say(judged.meanPct + 4)]
      : [mean(mm), mean(mm.slice(0, 1)), mean(mm.slice(-1))]
  return {
    kind: 'choice',
    key: 'readings',
    title: 'Sag from several readings',
    asks: `On ${s.what} the ring was read at ${mm.join(', ')} mm, same pressure, same posture. What is the sag?`,
    choices: [...new Set([...others, answer])]
      .filter((x) => x !== oneMore)
      .sort()
      .concat(oneMore),
    answer,
    because:
      judged.meanPct === null
        ? 'Two readings that differ by more than the ring is good for give no number: neither is known to be the odd one.'
        : kept.length < mm.length
          ? `${mm[mm.length - 1]} mm stands apart from the two others: somebody moved, or the ring did. It does not count.`
          : 'Both agree within what a ring is good for: their mean counts.',
  }
}
function otherBase(clicks: number, random: () => number, among: <T>(l: readonly T[]) => T): NumberTask {
  const at = 1 + Math.floor((clicks - 1) * random())
  const [from, to] = among([
    ['closed-0', 'open'],
    ['open', 'closed-0'],
    ['closed-1', 'open'],
    ['closed-0', 'closed-1'],
  ] as const)
  const [said, wanted] = [dialOf(clicks, from), dialOf(clicks, to)]
  const words = (d: Dial) =>
    d.countBase === 'closed-0' ? 'from closed, the stop being 0' : countBaseWords(d)
  return {
    kind: 'number',
    key: 'count-bases',
    title: 'One dial, three counts',
    asks: `A dial has ${clicks} clicks between its stops. It stands at ${toCount(said, at)}, counted ${words(said)}. What is that counted ${words(wanted)}?`,
    unit: 'clicks',
    answer: toCount(wanted, at),
    within: 0,
    because: `It stands ${at} ${at === 1 ? 'click' : 'clicks'} from closed and ${clicks - at} from open; where the stop is counted as 1, at ${at + 1}. A number without its count is no setting.`,
  }
}
function recount(clicks: number, off: number, side: number, random: () => number): NumberTask {
  const noted = 5 + Math.floor((clicks - 9) * random())
  const found = noted + side * off
  const wanted = found - 2
  return {
    kind: 'number',
    key: 'recount',
    title: 'The count was lost',
    asks: `Noted: rebound ${noted} from closed. You close it gently and count ${found}. The rider wants what was ridden, two clicks slower. How many from closed do you open it?`,
    unit: 'clicks',
    answer: wanted,
    within: 0,
    because: `What was ridden is what was counted: ${found}, whatever was noted. Two clicks slower is nearer to closed: ${wanted}.`,
  }
}
const outcomes = {
  creeps: 'it creeps back and hardly makes it to the top',
  settles: 'it comes back once, passes its rest and settles',
  cycles: 'it comes back and goes on cycling',
} as const satisfies Record<ReboundTest['outcome'], string>
const ways = {
  slower: 'One or two clicks slower',
  faster: 'One or two clicks faster',
  leave: 'Leave it there',
} as const

function rebound(outcome: ReboundTest['outcome'], now: number): ChoiceTask {
  const advice = reboundAdvice([{ value: now, outcome }], dialOf(14, 'closed-0'), now, 'intermediate')
  return {
    kind: 'choice',
    key: 'rebound',
    title: 'Rebound by hand',
    asks: `With sag right you push the rear down hard once and let go: ${outcomes[outcome]}. What next?`,
    choices: Object.values(ways),
    answer: advice.to > now ? ways.faster : advice.to < now ? ways.slower : ways.leave,
    because: `${advice.words} Faster is toward open. Rebound is set after the spring: another pressure wants another rebound.`,
  }
}
const pushes = {
  works: 'The low-speed compression works',
  spring: 'The spring is too firm',
  rebound: 'The rebound is too slow',
  nothing: 'Low-speed compression does nothing here, or is broken',
} as const
function slowPush(differs: boolean): ChoiceTask {
  return {
    kind: 'choice',
    key: 'slow-push',
    title: 'A slow push, open against closed',
    asks: differs
      ? 'You press the fork down slowly with the compression dial fully open: it gives at once. Fully closed it resists before it moves, then comes back alike. What does that tell?'
      : 'You press the fork down slowly with the compression dial fully open, then fully closed: no difference at all. What does that tell?',
    choices: Object.values(pushes),
    answer: differs ? pushes.works : pushes.nothing,
    because: differs
      ? 'A slow push moves the shaft slowly: that is what low-speed compression acts on. The spring was the same both times, and rebound shows on the way back.'
      : 'A dial that makes no difference from stop to stop need not be tuned. Is the lever open? Is it a dial at all? Otherwise a workshop.',
  }
}
const kmhPerMs = 3.6
const gapMs = (spacingM: number, kmh: number) => (1000 * spacingM) / (kmh / kmhPerMs)
function gap(spacingM: number, kmh: number): NumberTask {
  const ms = Math.round(gapMs(spacingM, kmh))
  return {
    kind: 'number',
    key: `gap-${kmh}`,
    title: `Time between bumps at ${kmh} km/h`,
    asks: `Braking bumps lie ${spacingM} m apart. At ${kmh} km/h, how long has the suspension from one to the next?`,
    unit: 'ms',
    answer: ms,
    within: 0.05 * ms,
    because: `${kmh} km/h is ${one(kmh / kmhPerMs)} m/s; ${spacingM} m of that is ${ms} ms.`,
  }
}
/** Natural frequency at the axle with usual sag, rad/s. */
const usualOmega = 14
function keepsUp(kmh: number, spacingM: number): ChoiceTask {
  const backMs = Math.round(1000 * recoveryTimeS(usualOmega, reboundRatioFor.intermediate))
  const ms = Math.round(gapMs(spacingM, kmh))
  const choices = ['It keeps up', 'It sinks from bump to bump: faster rebound, or slower riding'] as const
  return {
    kind: 'choice',
    key: 'keeps-up',
    title: 'Does it keep up?',
    asks: `A rear needs ${backMs} ms to come back. Bumps lie ${spacingM} m apart, the rider does ${kmh} km/h. What happens along the row?`,
    choices,
    answer: choices[backMs <= ms ? 0 : 1],
    because: `There are ${ms} ms from bump to bump and it needs ${backMs}: ${backMs <= ms ? 'it is back in time' : 'it meets each bump deeper than the last. That is packing, and it feels harsh, not slow'}.`,
  }
}

/** Whether an answer is right; a number within what the task allows. */
export const isRight = (task: BenchTask, given: number | string): boolean =>
  task.kind === 'number'
    ? typeof given === 'number' && Math.abs(given - task.answer) <= task.within + 1e-9
    : given === task.answer
