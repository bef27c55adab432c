import { describe, expect, it } from 'vitest'
import { canonicalUnits } from '../units/choice.ts'
import { typedSprings } from './typedSprings.ts'

const american = { ...canonicalUnits, springRate: 'lb/in' as const }
describe('the springs that somebody owns', () => {
  it.each<[string, number[]]>([
    ['450 500 550', [450, 500, 550]],
    ['450, 500, 550', [450, 500, 550]],
    // Without a space between them all three were lost once.
    ['450,500,550', [450, 500, 550]],
    ['450/500', [450, 500]],
    ['450; 500 ; 550', [450, 500, 550]],
    ['450 lb, 500 lb and 550 lb', [450, 500, 550]],
    ['450 lbs/in', [450]],
    ['450x2.5, 500x2.5', [450, 500]],
    ['500 450 500', [450, 500]],
    ['', []],
  ])('"%s" in lb/in', (text, are) => {
    expect(typedSprings(text, american).map((r) => Math.round(r / 0.175127))).toEqual(are)
  })
  it.each<[string, number[]]>([
    ['79 88', [79, 88]],
    ['78,8 87,6', [78.8, 87.6]],
    ['78,8; 87,6', [78.8, 87.6]],
    ['79, 88', [79, 88]],
    ['79 N/mm', [79]],
  ])('"%s" in N/mm', (text, are) => {
    expect(typedSprings(text, canonicalUnits)).toEqual(are)
  })
  it.each(['soft hard', '450 heavy', '-450', '0', '450 ?'])('"%s" is refused, not left out', (text) => {
    expect(() => typedSprings(text, american)).toThrow(/Say the springs as numbers/)
  })
})
