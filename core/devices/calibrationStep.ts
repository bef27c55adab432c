import type { End } from '#contract/common'
import type { Hold, StandInHands } from '#contract/logger'
import type { FaultName } from './faults.ts'

/** Depths of a chamber that is calibrated as it is ridden. */
export type HeldDepthKey = 'deep-1' | 'deep-2' | 'deep-3'

/** One thing to do in a calibration; `holdSeconds` > 0 when the device measures meanwhile. */
export interface CalibrationStep {
  key: 'let-out' | 'extended' | 'compressed' | 'fill' | 'baseline' | HeldDepthKey
  title: string
  how: string
  /** Why it is needed: nobody follows rules that are not explained. */
  why: string
  holdSeconds: number
  /** What the hands of a stand-in do for it. */
  hands: StandInHands
}

/** What was held, and how deep the ring said it stood, mm along the leg or shaft. */
export type HeldStep = Hold & { ringMm?: Partial<Record<End, number>> }
export type HeldSteps = Partial<Record<CalibrationStep['key'], HeldStep>>

export interface HoldVerdict {
  ok: boolean
  words: string
  fault: FaultName | null
}
