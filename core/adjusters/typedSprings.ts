import { InputError } from '../errors.ts'
import { typedNumber } from '../units/typed.ts'
import type { UnitChoice } from '../units/choice.ts'

/** The stroke that a spring is made for stands beside its rate: "450x2.5". */
const forStroke = /[x×*]\d+(?:[.,]\d+)?/gi
/** Between springs; a comma between whole numbers of three digits parts two, any other between digits is a decimal one. */
const between = /[;/]|,(?=\s)|(?<=\d{3}),(?=\d{3}(?!\d))|\s+/

/**
 * Rates of the springs that somebody owns, as they are typed: "450 500 550", "450,500", "78,8; 87,6", "450 lb and 500 lb".
 *
 * @returns N/mm, rising, each once
 * @throws InputError 'springs.not-numbers' where one of them is none
 */
export function typedSprings(text: string, units: UnitChoice): number[] {
  const words = text
    .replace(/\b(?:lbs?|n)\s*\/\s*(?:in|mm)\b|\blbs?\b|#|\band\b/gi, ' ')
    .replace(forStroke, '')
    .split(between)
    .filter(Boolean)
  const rates = words.map((w) => {
    const rate = typedNumber(w, 'springRate', units)
    if (rate === null || !(rate > 0)) throw new InputError('springs.not-numbers', { got: w })
    return rate
  })
  return [...new Set(rates)].sort((a, b) => a - b)
}
