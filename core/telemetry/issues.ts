import type { ImportIssue } from '#contract/recording'

/** Something a person should know of a file that was taken all the same. */
export function issue(code: string, message: string, count = 1, line: number | null = null): ImportIssue {
  return { code, message, count, line }
}
