import type { FeelWord, Mark } from '#contract/run'
import { wordRules } from '../causes/words.ts'
import { feelOfCode } from '../tent/feelCodes.ts'

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

const verdicts: Record<string, -1 | 0 | 1> = { better: 1, b: 1, same: 0, s: 0, worse: -1, w: -1 }
const byLabel = new Map(
  Object.entries(wordRules).map(([word, r]) => [r.label.toLowerCase(), word as FeelWord]),
)

/** What people say in front of it; "no better" and "not worse" are none of these. */
const lead = /^(?:(?:it's|it|is|gets|feels|still|the|rating|rated|run)\s+)+/

function conditionOf(text: string): PlanCondition | null {
  const said = text.trim().toLowerCase().replace(/[’`]/g, "'").replace(lead, '')
  if (said in verdicts) return { kind: 'verdict', sign: verdicts[said] }
  const rated = /^(below|under|less than|from|at least)\s+(10|[1-9](?:[.,]5)?)$/.exec(said)
  if (rated) {
    const at = Number(rated[2].replace(',', '.'))
    return /^(from|at least)$/.test(rated[1]) ? { kind: 'rated', from: at } : { kind: 'rated', below: at }
  }
  const code = feelOfCode(said)
  if (code) return { kind: 'word', ...code }
  const word = byLabel.get(said)
  return word ? { kind: 'word', word, end: wordRules[word].usualEnd ?? 'both' } : null
}

export const planHelp =
  'A plan is “if worse, shock reb faster 1”: worse, same, better, a word, below 6 or from 8, with “or” between; then a comma and what is to be done.'

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
