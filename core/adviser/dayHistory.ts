import type { ChartPressure } from '#contract/chart'
import type { Conditions } from '#contract/conditions'
import type { HourLine } from '#contract/hour'
import type { TrailDay } from '#contract/day'
import type { Analysis } from '#contract/recording'
import type { Feel, Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import type { TrailSection } from '#contract/trail'
import type { SuspensionUnit } from '#contract/unit'
import type { Leverage } from '../linkage/leverage.ts'
import type { Memory } from './memory/remembered.ts'
import type { UnitChoice } from '../units/choice.ts'

/** A run with all that is known of it, in the order of the day. */
export interface HistoryRun {
  run: Run
  /** 1-based number on the day line. */
  number: number
  feel: Feel | null
  analysis: Analysis | null
}

/** Everything the adviser may look at. A plain value: the same history always gives the same advice. */
export interface DayHistory {
  dayId: string
  sections: TrailSection[]
  conditions: Conditions
  /** What was noted of air, height and ground since the day began, in the order of the clock. */
  hours: readonly HourLine[]
  runs: HistoryRun[]
  setups: Setup[]
  currentSetupId: string
  startSetupId: string
  changeLimit: number
  settledSetupId: string | null
  purpose: TrailDay['purpose']
  /** What the units' own charts say for this rider. */
  ownCharts: ChartPressure[]
  /** The bike's own tyre pressures; null where nobody has said. */
  bikeTyresPsi: { front: number | null; rear: number | null }
  /** What earlier days of this rider on this bike taught; null: the day is judged on its own. */
  memory: Memory | null
}

/** What can be turned: the units that are fitted. */
export interface SetupSpace {
  front: SuspensionUnit | null
  rear: SuspensionUnit | null
  /** Wheel movement per shaft movement at both ends of the stroke, where it is known. */
  leverage?: Leverage | null
  /** Units that sentences are said in; canonical when left out. */
  units?: UnitChoice
}
