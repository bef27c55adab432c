import type { End } from '#contract/common'
import type { Mark } from '#contract/run'
import { wordRules } from '../causes/words.ts'
import type { DayHistory } from './dayHistory.ts'

/**
 * A day whose words stand in one order: in which they were tapped says nothing. Of a word said twice of one place the
 * stronger counts; said of both ends alike it is one word of the whole bike.
 */
export const toldInOrder = (h: DayHistory): DayHistory => ({
  ...h,
  runs: h.runs.map((r) => (r.feel ? { ...r, feel: { ...r.feel, marks: inOrder(r.feel.marks) } } : r)),
})

const words = Object.keys(wordRules)
/** What is said more strongly comes first, then what is said of more of the bike. */
const ends: readonly Mark['end'][] = ['both', 'front', 'rear']

function inOrder(marks: readonly Mark[]): Mark[] {
  const byPlace = new Map<string, Mark[]>()
  for (const m of marks) {
    const place = `${m.word} ${m.sectionId ?? ''}`
    byPlace.set(place, [...(byPlace.get(place) ?? []), m])
  }
  return [...byPlace.values()]
    .flatMap(onceAnEnd)
    .sort(
      (a, b) =>
        b.strength - a.strength ||
        words.indexOf(a.word) - words.indexOf(b.word) ||
        (a.sectionId ?? '').localeCompare(b.sectionId ?? '') ||
        ends.indexOf(a.end) - ends.indexOf(b.end),
    )
}

/** One word of one place: the strongest of each end. */
function onceAnEnd(said: readonly Mark[]): Mark[] {
  if (said.length === 1) return [...said]
  const at = (end: End) =>
    said
      .filter((m) => m.end === end || m.end === 'both')
      .reduce<Mark | null>((most, m) => (most && most.strength >= m.strength ? most : m), null)
  const [front, rear] = [at('front'), at('rear')]
  if (front && rear && front.strength === rear.strength) return [{ ...front, end: 'both' }]
  return [front && { ...front, end: 'front' as const }, rear && { ...rear, end: 'rear' as const }].filter(
    (m) => m !== null,
  )
}
