import type { CountBase } from '#contract/adjuster'

/** "out" and "from closed" count from the stop that is fully closed. */
export function baseOf(text: string): CountBase | null {
  if (/from (fully |full )?open|\bin from\b/i.test(text)) return 'open'
  if (/from (fully |full )?(closed|close|shut|in)\b|\bout\b/i.test(text)) return 'closed-0'
  return null
}
