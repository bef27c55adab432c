import type { ReadPart } from '#core/command/reading'

/** What was read on one rider's bike before the first run. */
export interface BikeRead {
  number: number
  parts: ReadPart[]
}
