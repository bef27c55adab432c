import type { DayBundle } from '#contract/endpoints'
import type { Feel, FeelWord, Mark } from '#contract/run'
import type { TentNote } from '#contract/tent'
import { wordRules } from '../causes/words.ts'
import { feelOfCode } from './feelCodes.ts'
import { runBefore } from './padFeel.ts'

/** One thing that a run can turn out to be. */
export type PlanCondition =
  | { kind: 'verdict'; sign: -1 | 0 | 1 }
  | { kind: 'word'; word: FeelWord; end: Mark['end'] }
  | { kind: 'rated'; below: number }
  | { kind: 'rated'; from: number }

/** What is to be done after the next run, and on what it hangs. */
export interface Plan {
  /** One of these is enough. */
  conditions: PlanCondition[]
  /** For the command line of that rider’s day. */
  line: string
}

/**
 * waits: nothing has been ridden since · unsaid: ridden, and what it hangs on was not told; silence is no answer · holds: it
 * came so · fell: it came otherwise.
 */
export interface PlanState {
  is: 'waits' | 'unsaid' | 'holds' | 'fell'
  /** The run that decided, or was ridden and says nothing of it. */
  run: number | null
}

const verdicts: Record<string, -1 | 0 | 1> = { better: 1, b: 1, same: 0, s: 0, worse: -1, w: -1 }
const byLabel = new Map(
  Object.entries(wordRules).map(([word, r]) => [r.label.toLowerCase(), word as FeelWord]),
)

function conditionOf(text: string): PlanCondition | null {
  const said = text.trim().toLowerCase()
  if (said in verdicts) return { kind: 'verdict', sign: verdicts[said] }
  const rated = /^(below|under|from)\s+(10|[1-9](?:[.,]5)?)$/.exec(said)
  if (rated) {
    const at = Number(rated[2].replace(',', '.'))
    return rated[1] === 'from' ? { kind: 'rated', from: at } : { kind: 'rated', below: at }
  }
  const code = feelOfCode(said)
  if (code) return { kind: 'word', ...code }
  const word = byLabel.get(said)
  return word ? { kind: 'word', word, end: wordRules[word].usualEnd ?? 'both' } : null
}

/**
 * Reads "if worse or rki, shock reb faster 1" or "if below 6: back to run 2".
 * @returns null where a condition is none that a run can answer, or nothing is to be done
 */
export function parsePlan(text: string): Plan | null {
  const [, asked, line] = /^if\s+([^,:]+?)\s*(?:[,:]|\bthen\b)\s*(.+)$/i.exec(text.trim()) ?? []
  if (!asked || !line) return null
  const conditions = asked.split(/\s+or\s+/i).map(conditionOf)
  return conditions.includes(null) ? null : { conditions: conditions as PlanCondition[], line: line.trim() }
}

const ends: Record<Mark['end'], string> = { front: ', front', rear: ', rear', both: '' }

/** "worse, or kicks, rear": what a plan hangs on. */
export const conditionWords = (plan: Plan): string =>
  plan.conditions
    .map((c) =>
      c.kind === 'verdict'
        ? ['worse', 'the same', 'better'][c.sign + 1]
        : c.kind === 'word'
          ? `${wordRules[c.word].label}${ends[c.end]}`
          : 'below' in c
            ? `rated below ${c.below}`
            : `rated ${c.from} or above`,
    )
    .join(', or ')

/** Whether a run came so; null: it was not told. */
function came(c: PlanCondition, feel: Feel | undefined, before: string | null): boolean | null {
  if (!feel) return null
  switch (c.kind) {
    case 'verdict': {
      const said = feel.verdicts.find((v) => v.againstRunId === before)
      return said ? Math.sign(said.value) === c.sign : null
    }
    case 'rated':
      return feel.rating === null ? null : 'below' in c ? feel.rating < c.below : feel.rating >= c.from
    case 'word': {
      const hit = feel.marks.some(
        (m) => m.word === c.word && (m.end === c.end || m.end === 'both' || c.end === 'both'),
      )
      // A word that nobody said is no word against it.
      return hit ? true : null
    }
  }
}

/**
 * How a plan stands: the first run that counts after it and tells what it hangs on decides.
 * @param afterRunId the last run when it was planned; null: none had been ridden
 */
export function planState(
  plan: Plan,
  day: Pick<DayBundle, 'runs' | 'feels'>,
  afterRunId: string | null,
): PlanState {
  const from = day.runs.findIndex((r) => r.id === afterRunId) + 1
  let ridden: number | null = null
  for (const [i, run] of day.runs.entries()) {
    if (i < from || run.kind !== 'counted') continue
    ridden = i + 1
    const feel = day.feels.find((f) => f.runId === run.id)
    const before = runBefore(day.runs, run.id)?.id ?? null
    const answers = plan.conditions.map((c) => came(c, feel, before))
    if (answers.includes(true)) return { is: 'holds', run: ridden }
    if (answers.every((a) => a === false)) return { is: 'fell', run: ridden }
  }
  return { is: ridden === null ? 'waits' : 'unsaid', run: ridden }
}

/** A note of a plan, read, with how it stands. */
export interface TentPlan {
  note: TentNote
  plan: Plan
  state: PlanState
}

/** The plans of a rider that are neither done nor dropped, in the order they were made. */
export const openPlans = (
  notes: readonly TentNote[],
  day: Pick<DayBundle, 'day' | 'runs' | 'feels'>,
): TentPlan[] =>
  notes.flatMap((note) => {
    const plan =
      note.kind === 'plan' && note.dayId === day.day.id && note.closedAt === null
        ? parsePlan(note.text)
        : null
    return plan ? [{ note, plan, state: planState(plan, day, note.afterRunId) }] : []
  })
