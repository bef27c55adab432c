import type { TrailDay } from '#contract/day'
import { ApiError } from '../../api/client.ts'
import type { useOutbox } from '../outbox.ts'

/**
 * Changes a list that is part of a day; what others put there meanwhile stays.
 * @param of the day as it is held
 * @throws ApiError
 */
export async function editList<K extends 'hours' | 'plans'>(
  outbox: Pick<ReturnType<typeof useOutbox>, 'save'>,
  of: TrailDay,
  key: K,
  change: (held: TrailDay[K]) => TrailDay[K],
): Promise<void> {
  const save = (day: TrailDay) => outbox.save('day', { ...day, [key]: change(day[key]) })
  try {
    await save(of)
  } catch (e) {
    if (!(e instanceof ApiError) || e.problem?.code !== 'record.stale') throw e
    await save(e.problem.current as TrailDay)
  }
}
