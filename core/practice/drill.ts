import type { AdjusterRole, DamperRole } from '#contract/adjuster'
import type { CauseKind } from '#contract/proposal'
import type { End } from '#contract/common'
import type { MindTag } from '#contract/run'
import type { KitName } from './kit.ts'
import type { Manner, Saying } from './speech.ts'

/** Something that stands wrong on the bike when the day begins. */
export interface Fault {
  end: End
  role: AdjusterRole
  /** How far above its best place it stands, click-equivalents; dials above are open, springs firm. */
  clicks: number
}

/** How the rider of a drill rates and talks. */
export interface Temper {
  /** Scatter of a rating, points. */
  noise: number
  /** How often what is felt is named rightly, and how often something else is; the rest is silence. */
  right: number
  misled: number
  manner: Manner
  /** What this rider says of a cause instead of what is usual. */
  says?: Partial<Record<CauseKind, Saying[]>>
  /** Rating points that learning the track adds by and by (+), or getting tired takes (−), a run. */
  drift?: number
  /** State of mind run by run; after the list, normal. */
  minds?: readonly MindTag[]
}

export type DrillGroup = 'first' | 'faults' | 'look-alikes' | 'riders' | 'bikes'

/** A rider one can't see into: what is wrong, how he talks, what there is to turn. */
export interface Drill {
  key: string
  group: DrillGroup
  title: string
  /** What is known before the first run. */
  before: string
  /** What it was about, told at the end. */
  after: string
  kit: KitName
  faults: (random: () => number) => Fault[]
  temper: Temper
  /** Warms up from run to run, °C from … to; heat thins the oil and raises the pressure. */
  heatC?: readonly [number, number]
  /** Feels every click. */
  keen?: boolean
  /** Faults that are none of the book: it is right, and the dial stands elsewhere. */
  miscounted?: readonly { end: End; role: DamperRole }[]
  /** What goes out of a unit with every run, click-equivalents. */
  leaks?: { end: End; clicks: number }
  /** What a sensor shows too deep with every run more, % of travel. */
  creeps?: { end: End; pct: number }
  /** Dials that this rider cannot feel at all. */
  dead?: readonly { end: End; role: AdjusterRole }[]
}
