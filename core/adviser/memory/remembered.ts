import type { FeelWord } from '#contract/run'
import type { Normal } from '../../stats/normal.ts'
import type { Habit } from '../surface/model.ts'

/** What earlier days taught of a dial, as it holds today; click-equivalents. */
export interface RememberedDial {
  adjusterId: string
  place: Normal | null
  logSteepness: Normal | null
}

/** What earlier days taught, widened by what differs today. A plain value. */
export interface Memory {
  days: { dayId: string; date: string }[]
  dials: RememberedDial[]
  habit: Habit
  /** Best of the usual times on this trail, s; null: none was taken. */
  lapS: number | null
  words: { word: FeelWord; times: number; right: number }[]
}
