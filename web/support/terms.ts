import { stemmer } from 'stemmer'

/** Words that a sentence is made of, and that tell no subject from another. */
const small = new Set(
  'a an the my me i it its is are be do does what which why how when where who with without for from of on in at to and or as by so too very much many not no off get gets go goes feel feels bike fork shock way difference between after'.split(
    ' ',
  ),
)

/** A word as it is looked for; null: it says nothing of what is looked for. */
export function plainTerm(word: string): string | null {
  const lower = word.toLowerCase()
  return small.has(lower) ? null : lower
}

/**
 * The same without its ending: "washes", "washing" and "washed" are one. Source: Porter (1980), Program 14, 130.
 */
export function stemTerm(word: string): string | null {
  const term = plainTerm(word)
  return term && stemmer(term)
}

/** What a line looks for, without endings. */
export const termsOf = (line: string): string[] =>
  line.split(/[^\p{L}\p{N}]+/u).flatMap((w) => (w === '' ? [] : (stemTerm(w) ?? [])))
