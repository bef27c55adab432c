import type { CauseKind } from '#contract/proposal'
import type { FeelWord } from '#contract/run'
import type { SectionKind } from '#contract/trail'

/** Where a word's cause sits: at the end that was named, at a fixed end, or in the whole bike. */
export type CauseSeat = 'same' | 'front' | 'rear' | 'bike'

export interface WordRule {
  label: string
  /** What people type instead; the feel strip and the handbook find the word by any of these. */
  aliases: string[]
  /** What the word is about; groups the words on the feel strip. */
  about: 'return' | 'bumps' | 'depth' | 'support' | 'grip' | 'pedalling' | 'good'
  /** The end it usually comes from; null: either. */
  usualEnd: 'front' | 'rear' | null
  /** Log-likelihood weight for a mark of middle strength, likely cause first. */
  causes: { kind: CauseKind; at: CauseSeat; weight: number }[]
  /** Extra weight when the mark sits in a section of this kind. */
  inSection?: { section: SectionKind; kind: CauseKind; weight: number }[]
  toldApartBy: string
}

/**
 * What riders say and what it may come from. Evidence, never proof: weights are documented starting points, about
 * 1.4 for the likely cause and down from there; the handbook prints this very table.
 */
export const wordRules: Record<FeelWord, WordRule> = {
  kicks: {
    label: 'kicks',
    aliases: ['buck', 'bucks', 'kicks up', 'throws me', 'ejects'],
    about: 'return',
    usualEnd: 'rear',
    causes: [
      { kind: 'rebound-fast', at: 'same', weight: 1.3 },
      { kind: 'spring-soft', at: 'same', weight: 0.9 },
      { kind: 'rebound-slow', at: 'same', weight: 0.7 },
      { kind: 'lsc-closed', at: 'same', weight: 0.4 },
    ],
    inSection: [
      { section: 'roots', kind: 'rebound-slow', weight: 0.7 },
      { section: 'braking-bumps', kind: 'rebound-slow', weight: 0.6 },
      { section: 'jump', kind: 'rebound-fast', weight: 0.5 },
    ],
    toldApartBy: 'depth before the lip, return speed, and whether the valleys sink through hit trains',
  },
  pogo: {
    label: 'bounces on',
    aliases: ['bouncy', 'boing', 'springy', 'pogo', 'bounces'],
    about: 'return',
    usualEnd: null,
    causes: [{ kind: 'rebound-fast', at: 'same', weight: 1.6 }],
    toldApartBy: 'overshoot and cycles after single hits',
  },
  'harsh-gets-worse': {
    label: 'harsh, gets worse',
    aliases: ['packing', 'packs up', 'packs down', 'jackhammer', 'chattery later'],
    about: 'bumps',
    usualEnd: null,
    causes: [
      { kind: 'rebound-slow', at: 'same', weight: 1.6 },
      { kind: 'spring-soft', at: 'same', weight: 0.5 },
    ],
    toldApartBy: 'valley depth that climbs hit by hit',
  },
  'harsh-square-edge': {
    label: 'harsh on edges',
    aliases: ['spiky', 'spikes', 'sharp edges', 'thud', 'square edge'],
    about: 'bumps',
    usualEnd: null,
    causes: [
      { kind: 'hsc-closed', at: 'same', weight: 1.3 },
      { kind: 'spring-firm', at: 'same', weight: 0.8 },
      { kind: 'lsc-closed', at: 'same', weight: 0.6 },
    ],
    toldApartBy: 'a low peak speed and little travel used',
  },
  'harsh-everywhere': {
    label: 'harsh everywhere',
    aliases: ['rough', 'hard', 'stiff', 'sticky', 'chatter', 'buzzy', 'hands hurt', 'arm pump'],
    about: 'bumps',
    usualEnd: 'front',
    causes: [
      { kind: 'spring-firm', at: 'same', weight: 1.1 },
      { kind: 'lsc-closed', at: 'same', weight: 0.9 },
      { kind: 'stiction', at: 'same', weight: 0.7 },
      { kind: 'rebound-slow', at: 'same', weight: 0.6 },
      { kind: 'tyres', at: 'bike', weight: 0.5 },
    ],
    toldApartBy: 'small-bump activity and sag',
  },
  'harsh-and-bottoms': {
    label: 'harsh and bottoms',
    aliases: ['hard and bottoms', 'harsh then clank'],
    about: 'depth',
    usualEnd: null,
    causes: [
      { kind: 'ramp-low', at: 'same', weight: 1.6 },
      { kind: 'spring-soft', at: 'same', weight: 0.4 },
    ],
    toldApartBy: 'time at depth that is thick at both ends',
  },
  bottoms: {
    label: 'bottoms',
    aliases: ['clank', 'bottom out', 'bang', 'hits the end', 'full travel'],
    about: 'depth',
    usualEnd: null,
    causes: [
      { kind: 'spring-soft', at: 'same', weight: 1 },
      { kind: 'ramp-low', at: 'same', weight: 1 },
      { kind: 'hsc-open', at: 'same', weight: 0.5 },
    ],
    inSection: [{ section: 'drop', kind: 'ramp-low', weight: 0.4 }],
    toldApartBy: 'sag: if it is right, ramp; if it is deep, spring',
  },
  'unused-travel': {
    label: 'never uses it all',
    aliases: ['not full travel', 'travel left', 'too firm at the end'],
    about: 'depth',
    usualEnd: null,
    causes: [
      { kind: 'spring-firm', at: 'same', weight: 1 },
      { kind: 'ramp-high', at: 'same', weight: 1 },
      { kind: 'hsc-closed', at: 'same', weight: 0.5 },
    ],
    toldApartBy: 'sag: if it is right, ramp; if it is shallow, spring',
  },
  dives: {
    label: 'dives',
    aliases: ['dive', 'nose dives', 'tuck', 'tucks', 'drops in front'],
    about: 'support',
    usualEnd: 'front',
    causes: [
      { kind: 'lsc-open', at: 'front', weight: 1.3 },
      { kind: 'spring-soft', at: 'front', weight: 0.9 },
      { kind: 'nose-low', at: 'bike', weight: 0.4 },
    ],
    inSection: [{ section: 'braking-bumps', kind: 'lsc-open', weight: 0.2 }],
    toldApartBy: 'slow front depth in braking sections',
  },
  wallows: {
    label: 'wallows',
    aliases: ['mush', 'mushy', 'vague', 'wallowy', 'soggy'],
    about: 'support',
    usualEnd: null,
    causes: [
      { kind: 'lsc-open', at: 'same', weight: 1.3 },
      { kind: 'spring-soft', at: 'same', weight: 0.9 },
    ],
    inSection: [{ section: 'berms', kind: 'lsc-open', weight: 0.3 }],
    toldApartBy: 'slow depth in berm sections',
  },
  'blows-through': {
    label: 'falls through',
    aliases: ['blows through', 'sinks through', 'no middle', 'squat', 'squats'],
    about: 'support',
    usualEnd: null,
    causes: [
      { kind: 'lsc-open', at: 'same', weight: 1 },
      { kind: 'spring-soft', at: 'same', weight: 0.9 },
      { kind: 'ramp-low', at: 'same', weight: 0.7 },
    ],
    toldApartBy: 'mean depth against sag',
  },
  'washes-out': {
    label: 'front washes',
    aliases: ['washy', 'wash', 'pushes', 'understeer', 'slides in front', 'no front grip'],
    about: 'grip',
    usualEnd: 'front',
    causes: [
      { kind: 'spring-firm', at: 'front', weight: 0.9 },
      { kind: 'nose-high', at: 'bike', weight: 0.8 },
      { kind: 'rebound-slow', at: 'front', weight: 0.5 },
      { kind: 'tyres', at: 'bike', weight: 0.6 },
      { kind: 'line-or-rider', at: 'bike', weight: 0.4 },
    ],
    toldApartBy: 'ride heights of both ends; some ground is just slippery',
  },
  stretched: {
    label: 'long, nose-up',
    aliases: ['long', 'nose up', 'chopper', 'light front', 'front wanders'],
    about: 'support',
    usualEnd: 'rear',
    causes: [
      { kind: 'nose-high', at: 'bike', weight: 1.3 },
      { kind: 'spring-soft', at: 'rear', weight: 0.9 },
      { kind: 'spring-firm', at: 'front', weight: 0.7 },
      { kind: 'spring-firm', at: 'rear', weight: 0.4 },
    ],
    toldApartBy: 'ride heights of both ends: rear low, front high, or a rear that stands tall in turns',
  },
  'nose-heavy': {
    label: 'nose-heavy',
    aliases: ['nose low', 'over the bars', 'pitched forward'],
    about: 'support',
    usualEnd: 'front',
    causes: [
      { kind: 'nose-low', at: 'bike', weight: 1.3 },
      { kind: 'spring-soft', at: 'front', weight: 0.8 },
      { kind: 'spring-firm', at: 'rear', weight: 0.4 },
      { kind: 'rebound-fast', at: 'rear', weight: 0.4 },
    ],
    toldApartBy: 'ride heights of both ends',
  },
  nervous: {
    label: 'nervous, skips',
    aliases: ['twitchy', 'skip', 'skips', 'skittery', 'jittery', 'pings'],
    about: 'grip',
    usualEnd: null,
    causes: [
      { kind: 'spring-firm', at: 'same', weight: 0.9 },
      { kind: 'rebound-fast', at: 'same', weight: 0.8 },
      { kind: 'lsc-closed', at: 'same', weight: 0.7 },
      { kind: 'tyres', at: 'bike', weight: 0.4 },
    ],
    toldApartBy: 'share of time on the ground and small-bump activity',
  },
  dead: {
    label: 'dead, no pop',
    aliases: ['no pop', 'flat', 'lifeless', 'glued', 'sluggish'],
    about: 'return',
    usualEnd: null,
    causes: [
      { kind: 'rebound-slow', at: 'same', weight: 1.3 },
      { kind: 'lsc-closed', at: 'same', weight: 0.6 },
    ],
    toldApartBy: 'return speed and recovery time',
  },
  'stays-down': {
    label: 'stays down',
    aliases: ['hangs down', 'slow to come up', 'stuck down'],
    about: 'return',
    usualEnd: null,
    causes: [
      { kind: 'rebound-slow', at: 'same', weight: 1.3 },
      { kind: 'spring-soft', at: 'same', weight: 0.4 },
    ],
    toldApartBy: 'recovery time',
  },
  'pedal-bob': {
    label: 'bobs',
    aliases: ['bob', 'bobs', 'bobbing', 'pedal bounce'],
    about: 'pedalling',
    usualEnd: 'rear',
    causes: [{ kind: 'lsc-open', at: 'same', weight: 1.2 }],
    toldApartBy: 'lever position, and activity while pedalling',
  },
  'pedals-strike': {
    label: 'pedals strike',
    aliases: ['pedal strikes', 'hits pedals', 'cranks hit'],
    about: 'pedalling',
    usualEnd: 'rear',
    causes: [
      { kind: 'spring-soft', at: 'rear', weight: 1.2 },
      { kind: 'rebound-slow', at: 'rear', weight: 0.6 },
    ],
    toldApartBy: 'ride height, and valleys that sink through hit trains',
  },
  'soft-when-hot': {
    label: 'soft when hot',
    aliases: ['fades', 'fade', 'gets soft', 'overheats'],
    about: 'support',
    usualEnd: null,
    causes: [
      { kind: 'heat', at: 'bike', weight: 1.4 },
      { kind: 'lsc-open', at: 'same', weight: 0.4 },
    ],
    toldApartBy: 'the oil got thin; the air spring itself gains pressure with heat',
  },
  'slow-when-cold': {
    label: 'slow when cold',
    aliases: ['stiff when cold', 'sluggish when cold', 'cold and slow', 'frozen'],
    about: 'return',
    usualEnd: null,
    causes: [
      { kind: 'cold', at: 'bike', weight: 1.4 },
      { kind: 'rebound-slow', at: 'same', weight: 0.4 },
    ],
    toldApartBy: 'the oil is thick until the unit has warmed; the air spring has lost pressure too',
  },
  good: {
    label: 'good here',
    aliases: ['fine', 'nice', 'ok', 'perfect'],
    about: 'good',
    usualEnd: null,
    causes: [{ kind: 'none', at: 'bike', weight: 0.7 }],
    toldApartBy: '',
  },
  'holds-up': {
    label: 'holds up',
    aliases: ['supports', 'stays up', 'composed'],
    about: 'good',
    usualEnd: null,
    causes: [{ kind: 'none', at: 'bike', weight: 0.5 }],
    toldApartBy: '',
  },
  grips: {
    label: 'grips',
    aliases: ['grip', 'sticks', 'tracks', 'hooks up'],
    about: 'good',
    usualEnd: null,
    causes: [{ kind: 'none', at: 'bike', weight: 0.5 }],
    toldApartBy: '',
  },
}

export const isComplaint = (word: FeelWord) => wordRules[word].about !== 'good'

/** Whether a word is meant by what was typed: its label, its name or any of its aliases. */
export function isMeant(word: FeelWord, typed: string): boolean {
  const needle = typed.trim().toLowerCase()
  const { label, aliases } = wordRules[word]
  return [label, word, ...aliases].some((name) => name.includes(needle))
}
