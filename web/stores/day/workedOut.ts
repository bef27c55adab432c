import { keep, recall } from '../../api/held.ts'
import { fingerprint } from '../../support/fingerprint.ts'

interface WorkedOut<T> {
  /** What it rests on, and the code that worked it out. */
  restsOn: string
  result: T
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
  const key = `worked-out,${dayId}`
  const now = `${fingerprint(restsOn)} ${code}`
  const before = (await recall(key))?.answer as WorkedOut<T> | undefined
  if (before?.restsOn === now) return before.result
  const result = await work()
  const kept: WorkedOut<T> = { restsOn: now, result }
  keep(key, kept)
  return result
}
