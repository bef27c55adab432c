import type { PadReport } from '#contract/pad'
import type { Trail } from '#contract/trail'
import { wordRules } from '../causes/words.ts'

export const againstWords: Record<NonNullable<PadReport['against']>, string> = {
  '-2': 'much worse',
  '-1': 'worse',
  0: 'the same',
  1: 'better',
  2: 'much better',
}

/** "much worse · dives, front, strongly · at Root web · crashed · “left foot off”". */
export function reportWords(report: PadReport, trail: Pick<Trail, 'sections'>): string {
  const places = report.sectionIds.flatMap((id) => trail.sections.find((s) => s.id === id)?.name ?? [])
  return [
    report.against === null ? '' : againstWords[report.against],
    ...report.words.map((w) =>
      [wordRules[w.word].label, w.end === 'both' ? '' : w.end, w.strength === 3 ? 'strongly' : '']
        .filter(Boolean)
        .join(', '),
    ),
    places.length ? `at ${places.join(', ')}` : '',
    report.stopped ?? '',
    report.text ? `“${report.text}”` : '',
  ]
    .filter(Boolean)
    .join(' · ')
}
