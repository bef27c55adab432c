import type { CautionKey } from '../support/cautions.ts'
import type { Sign } from './signs.ts'

/** Chapters, in the order of the list beside every page. */
export const chapters = {
  feels: 'It feels',
  dials: 'Dials',
  works: 'How it works',
  differ: 'Where people differ',
  care: 'Care',
  words: 'Words A–Z',
  tables: 'What the judgement uses',
  cautions: 'Cautions',
} as const
export type Chapter = keyof typeof chapters

/** Figures one plays with; each is a component in `components/handbook/figures`. */
export type FigureKey =
  | 'let-go'
  | 'row-of-hits'
  | 'two-speeds'
  | 'air-spring'
  | 'negative-chamber'
  | 'sag-on-scale'
  | 'leverage-fall'
  | 'heat-and-height'
  | 'count-three'
  | 'ride-again'
  | 'past-the-best'

/** A page that is all text. Its address is /handbook/chapter/key. */
export interface TextPage {
  key: string
  title: string
  /** Other words it is found by. */
  also: string
  /** First of them: what it is, in one or two sentences. */
  text: string[]
  /** Short lines under a heading of their own. */
  lists?: { title: string; items: string[] }[]
  cautions?: CautionKey[]
  /** Signs that may stand on the dial. */
  signs?: readonly Sign[]
  /** A figure to play with. */
  figure?: FigureKey
  /** Pages that belong to it, as chapter/key. */
  see?: string[]
}

/** A word of the A–Z: what it means, and the page that says the rest. */
export interface GlossaryEntry {
  name: string
  text: string
  also?: string
  /** Signs on dials that the word speaks of. */
  signs?: readonly Sign[]
  see?: string
}

/** Where a word of the A–Z stands on its page. */
export const entryId = (key: string): string => `entry-${key}`

/** The part of an address that a name makes. */
export const keyOf = (name: string): string =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
