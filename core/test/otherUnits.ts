import type { UnitChoice } from '../units/choice.ts'

/** Of each quantity the unit that is not the canonical one. */
export const otherUnits: UnitChoice = {
  pressure: 'bar',
  length: 'in',
  mass: 'lb',
  temperature: '°F',
  springRate: 'lb/in',
  altitude: 'ft',
}
