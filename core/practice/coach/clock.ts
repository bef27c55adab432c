import { practiceDay, type PracticeAct, type PracticeDay } from '../day.ts'
import type { HiddenRider } from '../hiddenRider.ts'

/** Something done in the tent: with one of the riders, or nothing until the next one is back. */
export type CoachAct = { rider: number; act: PracticeAct } | { wait: true }

/** The track is open so long, minutes. */
export const openMin = 75
/** A rider who goes out is back after so many minutes. */
export const awayMin = 11
/** What an act takes of the coach, minutes. To send somebody out is a word. */
export const takesMin: Record<PracticeAct['do'], number> = {
  ride: 1,
  turn: 3,
  ask: 1,
  read: 4,
  look: 2,
  note: 0,
  settle: 1,
}

/** One rider of the tent, by the clock. */
export interface InTent {
  day: PracticeDay
  acts: PracticeAct[]
  /** Minute from which on the rider is here again; null: here. */
  backAtMin: number | null
  /** Here since this minute. */
  hereSinceMin: number
  /** Minutes stood here while the track was open, not yet happy. */
  stoodMin: number
}

/** A practice of several riders as it stands. */
export interface CoachDay {
  /** Minutes since the track was opened. */
  minute: number
  leftMin: number
  /** Nobody goes out any more, and everybody is back. */
  over: boolean
  riders: InTent[]
}

/**
 * Plays what was done in a tent, one act after the other, by one clock: what is done with one takes time from the others.
 * An act with a rider who is out, or a ride after the track was closed, is left out: it cannot have been done.
 */
export function coachDay(riders: readonly HiddenRider[], acts: readonly CoachAct[]): CoachDay {
  let minute = 0
  const each = riders.map(() => ({
    acts: [] as PracticeAct[],
    startsMin: [] as number[],
    backAtMin: 0,
    rodeFromMin: [] as number[],
    settledAtMin: null as number | null,
  }))
  for (const a of acts) {
    if ('wait' in a) {
      const away = each.map((r) => r.backAtMin).filter((m) => m > minute)
      if (away.length > 0) minute = Math.min(...away)
      continue
    }
    const r = each[a.rider]
    if (r.backAtMin > minute || (a.act.do === 'ride' && minute >= openMin)) continue
    if (r.settledAtMin !== null) continue
    minute += takesMin[a.act.do]
    r.acts.push(a.act)
    if (a.act.do === 'ride') {
      r.startsMin.push(minute)
      r.backAtMin = minute + awayMin
    }
    if (a.act.do === 'settle') r.settledAtMin = minute
  }
  const isOver = minute >= openMin && each.every((r) => r.backAtMin <= minute)
  return {
    minute,
    leftMin: Math.max(0, openMin - minute),
    over: isOver || each.every((r) => r.settledAtMin !== null),
    riders: each.map((r, i) => ({
      day: practiceDay(riders[i], r.acts, r.startsMin),
      acts: r.acts,
      backAtMin: r.backAtMin > minute ? r.backAtMin : null,
      hereSinceMin: r.backAtMin,
      stoodMin: stood(r.startsMin, Math.min(openMin, r.settledAtMin ?? minute)),
    })),
  }
}

/** Minutes up to `untilMin` that were not ridden. */
function stood(startsMin: readonly number[], untilMin: number): number {
  const ridden = startsMin.map((s) => Math.max(0, Math.min(untilMin, s + awayMin) - s))
  return Math.max(0, untilMin - ridden.reduce((sum, m) => sum + m, 0))
}
