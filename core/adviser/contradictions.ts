import { isComplaint, wordRules } from '../causes/words.ts'
import { markCauses } from '../causes/marks.ts'
import { comparable } from './comparable.ts'
import type { DayHistory, HistoryRun, SetupSpace } from './dayHistory.ts'
import { countedRuns, setupOf, settingsKey } from './history.ts'
import { answersOf } from './remedies.ts'

/** What does not fit together in a day, in plain words; nobody is blamed and nothing is thrown away. */
export function contradictions(h: DayHistory, space: SetupSpace): string[] {
  const runs = countedRuns(h)
  return [
    verdictLoop(h, runs),
    oppositeWords(runs, space),
    allEqual(h, runs),
    otherConditions(h, runs, space),
  ].filter((x) => x !== null)
}

/** A better than B, B better than C, C better than A. */
function verdictLoop(h: DayHistory, runs: readonly HistoryRun[]): string | null {
  const key = (r: HistoryRun) => {
    const s = setupOf(h, r.run.setupId)
    return s ? settingsKey(s) : r.run.id
  }
  const numberOf = new Map<string, number>()
  const worseOf = new Map<string, Set<string>>()
  for (const r of runs) {
    if (!numberOf.has(key(r))) numberOf.set(key(r), r.number)
    for (const v of r.feel?.verdicts ?? []) {
      const other = runs.find((x) => x.run.id === v.againstRunId)
      if (!other || v.value === 0 || key(other) === key(r)) continue
      const [better, worse] = v.value > 0 ? [key(r), key(other)] : [key(other), key(r)]
      worseOf.set(better, (worseOf.get(better) ?? new Set()).add(worse))
    }
  }
  const loopFrom = (start: string): string[] | null => {
    const walk = (at: string, path: string[]): string[] | null => {
      for (const next of worseOf.get(at) ?? []) {
        if (next === start) return path
        if (path.includes(next)) continue
        const found = walk(next, [...path, next])
        if (found) return found
      }
      return null
    }
    return walk(start, [start])
  }
  for (const start of worseOf.keys()) {
    const loop = loopFrom(start)
    if (loop)
      return `Runs ${loop.map((k) => numberOf.get(k)).join(', ')} were each said to be better than the next, all round: they are about equal. Ride two of them again rather than choosing between words.`
  }
  return null
}

/** In one run, two words whose likely causes ask for opposite turns of one dial. */
function oppositeWords(runs: readonly HistoryRun[], space: SetupSpace): string | null {
  const latest = runs[runs.length - 1]
  const asks = (latest?.feel?.marks ?? [])
    .filter((m) => isComplaint(m.word) && m.end !== 'both')
    .flatMap((m) => {
      const [top] = markCauses(m.word, m.end as 'front' | 'rear', null)
      const [answer] = answersOf(top.kind, top.end, space)
      return answer ? [{ word: m.word, sectionId: m.sectionId, ...answer }] : []
    })
  for (const a of asks)
    for (const b of asks)
      if (a.adjuster.id === b.adjuster.id && a.direction > b.direction)
        return `Run ${latest.number} says both “${wordRules[a.word].label}” and “${wordRules[b.word].label}” of the ${a.end}: they ask for opposite turns. Both are kept; a test that tells them apart is worth more than a guess.`
  return null
}

function allEqual(h: DayHistory, runs: readonly HistoryRun[]): string | null {
  const rated = runs.filter((r) => typeof r.feel?.rating === 'number')
  const settings = new Set(
    rated.map((r) => {
      const s = setupOf(h, r.run.setupId)
      return s ? settingsKey(s) : ''
    }),
  )
  const first = rated[0]?.feel?.rating
  return settings.size >= 3 && rated.every((r) => r.feel!.rating === first)
    ? `Every run was rated ${first}. Say it against the run before, “better” or “worse”: that is easier to feel than a number.`
    : null
}

function otherConditions(h: DayHistory, runs: readonly HistoryRun[], space: SetupSpace): string | null {
  const latest = runs[runs.length - 1]
  const other = runs
    .slice(0, -1)
    .map((r) => ({ r, c: comparable(h, r, latest, space.units) }))
    .filter((x) => !x.c.equal)
  if (other.length === 0) return null
  const differences = [...new Set(other.flatMap((x) => x.c.differences))].join(', ')
  const numbers = other.map((x) => x.r.number).join(', ')
  return `Run${other.length > 1 ? 's' : ''} ${numbers} had ${differences}: not compared as if equal, they count a quarter.`
}
