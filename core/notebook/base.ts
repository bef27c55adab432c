import type { CountBase } from '#contract/adjuster'

/**
 * "out" and "from closed" count from the stop that is fully closed, "clicks in" from the one that is fully open; "out of 14" and
 * "rebound in clicks" say neither.
 */
export function baseOf(text: string): CountBase | null {
  if (/from (fully |full )?open|\bin from\b|\b(clicks?|turns?) in\b|^\s*in\b(?! clicks| turns)/i.test(text))
    return 'open'
  if (/from (fully |full )?(closed|close|shut|in)\b|\bout\b(?! of)/i.test(text)) return 'closed-0'
  return null
}
