import type { Known } from '#contract/setup'
import { knownWords } from '#core/setup/known'
import { localDate, shortDayWords } from './dates.ts'

/** How a number is known, in one line: "read 14 Nov by Tarek, counted on the bench". */
export function knownTitle(known: Known | null): string {
  if (!known) return 'Nobody has read it yet.'
  const when = known.at ? ` ${shortDayWords(localDate(known.at))}` : ''
  const by = known.by ? ` by ${known.by}` : ''
  return `${knownWords[known.how]}${when}${by}${known.source ? `: ${known.source}` : ''}`
}
