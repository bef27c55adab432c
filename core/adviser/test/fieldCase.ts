import type { Adjuster } from '#contract/adjuster'
import type { ProposalKind } from '#contract/proposal'
import type { Setup } from '#contract/setup'
import { fork, shock, space } from '../../test/dayBuilder.ts'
import { advise } from '../advise.ts'
import type { DayHistory, SetupSpace } from '../dayHistory.ts'
import { moveWordsOf } from './moveWords.ts'

// What the tables of cases share: bikes, ways to tell a day, and how a case is held to its card.

export const base = { alias: null, tool: 'hand' } as const
export const rearLever: Adjuster = {
  ...base,
  id: 'rl',
  kind: 'lever',
  role: 'lever',
  positions: ['Open', 'Firm'],
}
export const frontSpacers: Adjuster = {
  ...base,
  id: 'fs',
  tool: 'workshop',
  kind: 'spacer',
  role: 'spacers',
  maxCount: 5,
}
export const rearSpacers: Adjuster = { ...frontSpacers, id: 'rs', maxCount: 6 }
export const rearHsc: Adjuster = {
  ...base,
  id: 'rh',
  kind: 'click',
  role: 'high-speed-compression',
  clicks: 8,
  step: 1,
  countBase: 'closed-0',
}
export const coil: Adjuster = {
  ...base,
  id: 'coil',
  tool: 'workshop',
  kind: 'spring-rate',
  role: 'spring-rate',
  ratesNPerMm: [70, 75, 80],
}
export const without = (adjusters: Adjuster[], ...ids: string[]) =>
  adjusters.filter((a) => !ids.includes(a.id))
export const rear = (...adjusters: Adjuster[]): SetupSpace => ({ front: fork, rear: { ...shock, adjusters } })
export const front = (...adjusters: Adjuster[]): SetupSpace => ({
  front: { ...fork, adjusters },
  rear: shock,
})
export const start = { fp: 80, fc: 8, fr: 6, rp: 180, rr: 7, rs: 1 }

/** The day as it stands, with sag read on the bench on its first setup. */
export function withSag(h: DayHistory, sag: { front?: number; rear?: number }): DayHistory {
  const [first, ...rest] = h.setups
  const foundIn: Setup['foundIn'] = {
    ...(first.foundIn ?? {}),
    sagFrontPct: sag.front ?? null,
    sagRearPct: sag.rear ?? null,
  } as Setup['foundIn']
  return { ...h, setups: [{ ...first, foundIn }, ...rest] }
}

/** The day at another temperature than where its settings were found. */
export function foundAt(
  h: DayHistory,
  foundC: number,
  nowC: number,
  purpose: DayHistory['purpose'] = 'testing',
): DayHistory {
  const [first, ...rest] = h.setups
  const foundIn = {
    ...(first.foundIn ?? {}),
    airTempC: foundC,
    sagFrontPct: null,
    sagRearPct: null,
  } as Setup['foundIn']
  return {
    ...h,
    purpose,
    conditions: { ...h.conditions, airTempC: nowC },
    setups: [{ ...first, foundIn }, ...rest],
  }
}

export interface Case {
  day: string
  story: () => DayHistory
  bike?: SetupSpace
  card: ProposalKind | ProposalKind[]
  /** Moves as words, "rear pressure firmer"; [] for none. */
  moves?: string[]
  never?: RegExp
  says?: RegExp
  /** What the answers of its question lead to. */
  leads?: RegExp
  why: string
}

/** Where the whole proposal of a day is not what a good mechanic would hand over; [] where it is. */
export function faultsOf({ story, bike = space, card, moves, never, says, leads }: Case): string[] {
  const p = advise(story(), bike)
  const text = [p.headline, p.watchFor, p.changeOurMind, ...p.speaksFor.map((e) => e.text)].join(' | ')
  const out: string[] = []
  const check = (is: boolean, fault: string) =>
    void (is || out.push(`${fault}; the card: ${p.kind}, ${text}`))
  check([card].flat().includes(p.kind), `wanted ${[card].flat().join(' or ')}`)
  if (moves) {
    const said = p.moves.map((m) => moveWordsOf(m, bike))
    check(said.length === moves.length, `wanted ${moves.length} moves, got ${said.join('; ') || 'none'}`)
    moves.forEach((m, i) => {
      const words = new RegExp(m.split(' ').join('.*'))
      check(words.test(said[i] ?? ''), `wanted ${m}, got ${said[i]}`)
    })
  }
  if (never) check(!never.test(`${p.headline} | ${p.watchFor}`), `never ${never.source}`)
  if (says) check(says.test(text), `wanted it to say ${says.source}`)
  const ways = p.question?.answers.map((a) => a.leadsTo).join(' | ') ?? ''
  if (leads) check(leads.test(ways), `wanted answers that lead to ${leads.source}, got ${ways}`)
  return out
}
