import type { End } from '#contract/common'
import type { Feel } from '#contract/run'
import { questionRules, type QuestionRule } from '#core/causes/questions'
import { wordRules } from '#core/causes/words'

/** A list of a feel: what counts as the same thing said of, and what was said of it. */
interface Said<T> {
  of: (f: Feel) => T[]
  about: (x: T) => string
  words: (x: T) => string
  topic: (x: T) => string
}
const ends: Record<End | 'both', string> = { front: 'front', rear: 'rear', both: 'both ends' }
const strengths = { 1: 'a little', 2: 'clearly', 3: 'strongly' }
const marks: Said<Feel['marks'][number]> = {
  of: (f) => f.marks,
  about: (m) => `${m.word} ${m.sectionId}`,
  words: (m) => `${ends[m.end]}, ${strengths[m.strength]}`,
  topic: (m) => `“${wordRules[m.word].label}”`,
}
const verdicts: Said<Feel['verdicts'][number]> = {
  of: (f) => f.verdicts,
  about: (v) => v.againstRunId,
  words: (v) => (v.value === 0 ? 'the same' : v.value > 0 ? `better by ${v.value}` : `worse by ${-v.value}`),
  topic: () => 'against another run',
}
const answers: Said<Feel['answers'][number]> = {
  of: (f) => f.answers,
  about: (a) => `${a.question} ${a.end}`,
  words: (a) => (questionRules[a.question] as QuestionRule).answers[a.answer] ?? 'Can’t say',
  topic: (a) => questionRules[a.question].ask,
}

/**
 * How a run felt, written on two devices at once: what only one of them changed holds, so a rating here and a word there
 * go together. Marks count by word and place, answers by question, verdicts by the run they are held against.
 *
 * @param opened the feel that the writing here began from; null: nobody knows, and all that is not alike differs
 * @param mine as it was left here, and `theirs` as it is saved
 * @returns both together on the saved version, `mine` where they differ; and where that is, in words: there a person chooses
 */
export function feelTogether(
  opened: Feel | null,
  mine: Feel,
  theirs: Feel,
): { feel: Feel; differences: string[] } {
  const differences: string[] = []
  function pick<T>(was: T | null, here: T, there: T, key: (x: T) => string, differ: () => string): T {
    const [a, b] = [key(here), key(there)]
    if (a === b || (was !== null && a === key(was))) return there
    if (was === null || b !== key(was)) differences.push(differ())
    return here
  }
  const plain = <T extends string | number | null>(
    topic: string,
    of: (f: Feel) => T,
    say: (x: T) => string,
  ) =>
    pick(opened && { x: of(opened) }, { x: of(mine) }, { x: of(theirs) }, JSON.stringify, () =>
      beside(topic, say(of(mine)), say(of(theirs))),
    ).x as T
  function list<T>({ of, about, words, topic }: Said<T>): T[] {
    const under = (f: Feel, key: string) => of(f).filter((x) => about(x) === key)
    const say = (xs: T[]) => xs.map(words).sort().join(' and ')
    return [...new Set([...of(theirs), ...of(mine)].map(about))].flatMap((key) => {
      const [here, there] = [under(mine, key), under(theirs, key)]
      return pick(opened && under(opened, key), here, there, say, () =>
        beside(topic([...here, ...there][0]), say(here) || 'not said', say(there) || 'not said'),
      )
    })
  }
  const feel: Feel = {
    ...theirs,
    rating: plain(
      'rating',
      (f) => f.rating,
      (x) => String(x ?? 'none'),
    ),
    note: plain(
      'note',
      (f) => f.note,
      (x) => (x ? `“${x}”` : 'none'),
    ),
    marks: list(marks),
    verdicts: list(verdicts),
    answers: list(answers),
  }
  return { feel, differences }
}

const beside = (topic: string, here: string, there: string) => `${topic}: ${here} here, ${there} there`
