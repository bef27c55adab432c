import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import { canonicalUnits, chosenNumber, say, sayDifference, type UnitChoice } from '../units/choice.ts'
import { toCount } from './count.ts'
import { adjusterRange } from './range.ts'

/** The trade's word for what an adjuster acts on. */
export const roleWords: Record<AdjusterRole, string> = {
  compression: 'Compression',
  'low-speed-compression': 'Low-speed compression',
  'high-speed-compression': 'High-speed compression',
  rebound: 'Rebound',
  'low-speed-rebound': 'Low-speed rebound',
  'high-speed-rebound': 'High-speed rebound',
  preload: 'Preload',
  'start-of-stroke': 'Start of stroke',
  'main-pressure': 'Pressure',
  'negative-pressure': 'Negative pressure',
  'reservoir-pressure': 'Reservoir pressure',
  spacers: 'Spacers',
  'spring-rate': 'Spring',
  lever: 'Lever',
  custom: 'Custom',
}

export type AdjusterFamily = 'spring' | 'compression' | 'rebound' | 'lever' | 'other'

/** What an adjuster belongs to: decides colour dot, words of effect and order of work. */
export function familyOf(a: Adjuster): AdjusterFamily {
  if (a.kind === 'custom') return a.acts.on === 'geometry' ? 'other' : a.acts.on
  if (a.role.includes('rebound')) return 'rebound'
  if (a.role.includes('compression')) return 'compression'
  return a.kind === 'lever' ? 'lever' : 'spring'
}

const shortRoles: Partial<Record<AdjusterRole, string>> = {
  'low-speed-compression': 'LSC',
  'high-speed-compression': 'HSC',
  'low-speed-rebound': 'LSR',
  'high-speed-rebound': 'HSR',
}

/** The trade's abbreviation where there is one, for narrow places. */
export function shortName(a: Adjuster): string {
  return shortRoles[a.role] ?? adjusterName(a)
}

export function adjusterName(a: Adjuster): string {
  return a.kind === 'custom' ? a.name : roleWords[a.role]
}

function plain(x: number): string {
  return String(Math.round(x * 100) / 100)
}

/** A position as a person would say it, with its unit: "8 clicks", "78 psi", "Open". */
export function positionWords(a: Adjuster, value: number, units: UnitChoice = canonicalUnits): string {
  const n = toCount(a, value)
  switch (a.kind) {
    case 'click':
      return `${plain(n)} ${n === 1 ? 'click' : 'clicks'}`
    case 'turn':
      return `${plain(n)} ${n === 1 ? 'turn' : 'turns'}`
    case 'pressure':
      return say('pressure', value, units)
    case 'spacer':
      return `${value} ${value === 1 ? 'spacer' : 'spacers'}`
    case 'spring-rate':
      return say('springRate', value, units)
    case 'lever':
      return a.positions[value] ?? '?'
    case 'custom':
      return `${plain(value)} ${a.unitLabel}`.trim()
  }
}

/** The bare number for a narrow place; its unit stands in `unitWord`. */
export function positionNumber(a: Adjuster, value: number, units: UnitChoice = canonicalUnits): string {
  if (a.kind === 'lever') return a.positions[value] ?? '?'
  if (a.kind === 'pressure') return chosenNumber('pressure', value, units)
  if (a.kind === 'spring-rate') return chosenNumber('springRate', value, units)
  return plain(toCount(a, value))
}

export function unitWord(a: Adjuster, units: UnitChoice = canonicalUnits): string {
  const r = adjusterRange(a)
  switch (a.kind) {
    case 'click':
      return `of ${a.countBase === 'closed-1' ? r.max + 1 : r.max}`
    case 'turn':
      return 'turns'
    case 'pressure':
      return units.pressure
    case 'spacer':
      return `of ${r.max}`
    case 'spring-rate':
      return units.springRate
    case 'lever':
      return ''
    case 'custom':
      return a.unitLabel
  }
}

/**
 * What moving an adjuster does, in the rider's words: slower/faster for rebound, firmer/softer for the rest.
 * Never a bare "more". Toward open (canonical up) means less damping for dials; for springs up means firmer.
 */
export function effectWord(a: Adjuster, from: number, to: number): string {
  const up = to > from
  if (a.kind === 'lever') return up ? 'firmer' : 'more open'
  if (a.kind === 'spacer') return up ? 'more, end of stroke firmer' : 'less, end of stroke softer'
  if (a.kind === 'turn' && a.role === 'preload') return up ? 'less preload' : 'more preload'
  if (a.kind === 'pressure' && a.role === 'negative-pressure')
    return up ? 'softer off the top' : 'firmer off the top'
  if (a.kind === 'turn' && a.role === 'start-of-stroke')
    return up ? 'softer at the start' : 'firmer at the start'
  if (a.kind === 'custom' && a.acts.on === 'geometry') return up ? 'higher number' : 'lower number'
  const family = familyOf(a)
  if (family === 'rebound') return up ? 'faster' : 'slower'
  if (family === 'compression') return up ? 'softer' : 'firmer'
  return up ? 'firmer' : 'softer'
}

/** Which way the hand turns: ↺ counter-clockwise = toward open. null for what is not a dial. */
export function turnSign(a: Adjuster, from: number, to: number): '↺' | '↻' | null {
  if (a.kind !== 'click' && a.kind !== 'turn') return null
  return to > from ? '↺' : '↻'
}

const toolWords: Record<Adjuster['tool'], string> = {
  hand: 'by hand',
  'hex-2': 'with a 2 mm hex key',
  'hex-2.5': 'with a 2.5 mm hex key',
  'hex-3': 'with a 3 mm hex key',
  'hex-4': 'with a 4 mm hex key',
  'shock-pump': 'with a shock pump',
  workshop: 'in the workshop',
}

export const toolWord = (a: Adjuster) => toolWords[a.tool]

/** How far, in the part's own steps: "1 click", "4 psi", "1 spacer". */
export function distanceWords(
  a: Adjuster,
  from: number,
  to: number,
  units: UnitChoice = canonicalUnits,
): string {
  const d = Math.abs(to - from)
  switch (a.kind) {
    case 'click':
      return `${plain(d)} ${d === 1 ? 'click' : 'clicks'}`
    case 'turn':
      return `${plain(d)} ${d === 1 ? 'turn' : 'turns'}`
    case 'pressure':
      return sayDifference('pressure', d, units)
    case 'spacer':
      return `${d} ${d === 1 ? 'spacer' : 'spacers'}`
    case 'spring-rate':
      return sayDifference('springRate', d, units)
    case 'lever':
      return `${d} ${d === 1 ? 'position' : 'positions'}`
    case 'custom':
      return `${plain(d)} ${a.unitLabel}`.trim()
  }
}
