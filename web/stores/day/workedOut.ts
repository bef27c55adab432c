import { keep, recall } from '../../api/held.ts'
import { fingerprint } from '../../support/fingerprint.ts'

interface WorkedOut<T> {
  /** What it rests on, and the code that worked it out. */
  restsOn: string
  result: T
}

const keyOf = (dayId: string) => `worked-out,${dayId}`
const restsOnNow = (restsOn: string, code: string) => `${fingerprint(restsOn)} ${code}`

/** What is kept of a day, and whether it still holds: null where nothing is. */
export async function workedOutBefore<T>(
  dayId: string,
): Promise<{ result: T; holds: (restsOn: string, code: string) => boolean } | null> {
  const before = (await recall(keyOf(dayId)))?.answer as WorkedOut<T> | undefined
  return before
    ? { result: before.result, holds: (restsOn, code) => before.restsOn === restsOnNow(restsOn, code) }
    : null
}

/**
 * What was worked out of a day is kept on this device: Today asks it of every day each time it is opened, and a phone
 * takes seconds for it. Another word of anything that it rests on, or another version of the code, and it is worked out anew.
 *
 * @param restsOn as one text
 * @param code what changes with the code that does the work
 */
export async function workedOut<T>(
  dayId: string,
  restsOn: string,
  code: string,
  work: () => Promise<T>,
): Promise<T> {
  const before = await workedOutBefore<T>(dayId)
  if (before?.holds(restsOn, code)) return before.result
  const result = await work()
  const kept: WorkedOut<T> = { restsOn: restsOnNow(restsOn, code), result }
  keep(keyOf(dayId), kept)
  return result
}
