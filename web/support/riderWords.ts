import type { Rider } from '#contract/rider'
import { levelWords, tasteWords } from './words.ts'

/** How somebody rides: reckoned with as usual, and told of nobody, until it was said. */
export const mannerKeys = ['level', 'taste'] as const
export const isManner = (key: string): boolean => mannerKeys.some((k) => k === key)

/** The level somebody gave; null: nobody has. */
export const saidLevel = (r: Pick<Rider, 'level' | 'assumed'>): string | null =>
  r.assumed.includes('level') ? null : levelWords[r.level]

/** "advanced, prefers a quick feel", as far as it was said; empty for nothing. */
export function riderWords(r: Pick<Rider, 'level' | 'taste' | 'assumed'>): string {
  const feel = r.assumed.includes('taste') ? null : `prefers a ${tasteWords[r.taste]} feel`
  return [saidLevel(r), feel].filter((w) => w !== null).join(', ')
}
