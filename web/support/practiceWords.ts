import type { Adjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { QuestionId } from '#contract/question'
import type { FeelWord } from '#contract/run'
import { adjusterName } from '#core/adjusters/words'
import { questionRules, type QuestionRule } from '#core/causes/questions'
import type { PracticeAct, PracticeDay } from '#core/practice/day'
import type { HiddenRider } from '#core/practice/hiddenRider'
import { lostInAll } from '#core/practice/review/losses'
import type { Standing } from '#core/practice/review/rules'

/** Where the rider that was ridden last with a drill is kept on this device. */
export const lastSeedKey = (drill: string) => `practice-rider:${drill}`

/** A ride is shown so many times as fast as it was ridden. */
export const timesAsFast = 30

export const standingWords: Record<Standing, string> = {
  'well-done': 'well done',
  found: 'found',
  open: 'told little',
  missed: 'missed',
}

const playerWords = { you: 'you', adviser: 'the adviser', tester: 'one thing at a time' } as const

/** Rating points that each lost over so many runs of the same rider; who was not played is left out. */
export function lostWords(
  rider: HiddenRider,
  acts: Partial<Record<keyof typeof playerWords, readonly PracticeAct[] | undefined>>,
  runs: number,
): string {
  return (['you', 'adviser', 'tester'] as const)
    .flatMap((who) => {
      const of = acts[who]
      return of ? [`${playerWords[who]} ${lostInAll(rider, of, runs).toFixed(1)}`] : []
    })
    .join(', ')
}

export interface Askable {
  id: QuestionId
  end: End | null
  ask: string
  /** What was answered after this run; null: not asked. */
  answer: string | null
}

/** What may be asked of the rider after the last run: what its words leave open, and how it was against the one before. */
export function askable(day: PracticeDay): Askable[] {
  const feel = day.bundle.feels.at(-1)
  if (!feel) return []
  const out = new Map<string, Askable>()
  const put = (id: QuestionId, end: End | null) => {
    const { ask, answers }: QuestionRule = questionRules[id]
    const given = feel.answers.find((a) => a.question === id && a.end === end)?.answer
    const answer = given === undefined ? null : (answers[given] ?? 'Cannot say')
    out.set(`${id} ${end}`, { id, end, ask, answer })
  }
  const said = feel.marks.flatMap((m): { word: FeelWord; end: End }[] =>
    m.end === 'both' ? [] : [{ word: m.word, end: m.end }],
  )
  for (const [id, rule] of Object.entries(questionRules))
    for (const { word, end } of said)
      if (rule.kind === 'question' && rule.words.includes(word))
        put(id as QuestionId, rule.of === 'end' ? end : null)
  if (day.bundle.runs.length > 1) put('than-before', null)
  return [...out.values()]
}

/** A dial that can be counted, a pressure that can be gauged. */
export interface Lookable {
  id: string
  label: string
  /** Where it stood, and what was written; null: not looked at since it was turned. */
  said: string | null
}

/** What can be looked at without a run. @param at a place as a person reads it */
export function lookable(day: PracticeDay, at: (a: Adjuster, value: number) => string): Lookable[] {
  return day.bundle.units.flatMap((u) =>
    u.adjusters
      .filter((a) => a.kind === 'click' || a.kind === 'pressure')
      .map((a) => {
        const found = day.looked.get(a.id)
        const said =
          found && (found.stood === found.written ? ', as written' : `, written was ${at(a, found.written)}`)
        return {
          id: a.id,
          label: `${u.end} ${adjusterName(a).toLowerCase()}`,
          said: found ? `${at(a, found.stood)}${said}` : null,
        }
      }),
  )
}

/** Sag as it was read last at an end on what is on the bike now; null: not read, or pumped since. */
function sagRead(day: PracticeDay, end: End): number | null {
  for (const s of [...day.bundle.setups].reverse()) {
    const pct = end === 'front' ? s.foundIn?.sagFrontPct : s.foundIn?.sagRearPct
    if (typeof pct === 'number') return pct
    if (s.reason.source !== 'reading') return null
  }
  return null
}

/** Sag can be read where there is air to pump: elsewhere nothing would follow from it. */
export const sagsOf = (day: PracticeDay) =>
  day.bundle.units
    .filter((u) => u.adjusters.some((a) => a.role === 'main-pressure'))
    .map((u) => ({ end: u.end, pct: sagRead(day, u.end), targetPct: u.sagTargetPct }))

/** A hand that comes to a stop before it is through knows something; null: none did. */
export function stoppedWords(day: PracticeDay): string | null {
  const names = day.bundle.units.flatMap((u) =>
    u.adjusters
      .filter((a) => day.stopped.includes(a.id))
      .map((a) => `${u.end} ${adjusterName(a).toLowerCase()}`),
  )
  return names.length === 0
    ? null
    : `${names.join(', ')}: came to its stop on the way. The count was wrong; it stands at the stop now.`
}

/** Strokes of both ends, mm; null where there is no unit. */
export const strokesOf = (day: PracticeDay): Record<End, number | null> => {
  const of = (end: End) => day.bundle.units.find((u) => u.end === end)?.strokeMm ?? null
  return { front: of('front'), rear: of('rear') }
}

/** Clock of a tent of practice: it opens at nine. */
export function minuteWords(minute: number): string {
  const two = (n: number) => String(n).padStart(2, '0')
  return `${two(9 + Math.floor(minute / 60))}:${two(Math.floor(minute % 60))}`
}
