import { v7 as uuid } from 'uuid'
import type { LetterKind } from './letters.ts'

export interface SampleLetter {
  kind: LetterKind
  record: { id?: string; runId?: string }
}

const ids = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g

/**
 * The invented rider's half-way day as it was built into the page, as if it were today, with ids of its own: a second one
 * is another rider.
 *
 * @param text the built file
 * @param today YYYY-MM-DD
 */
export function sampleLetters(text: string, today: string): SampleLetter[] {
  const fresh = new Map<string, string>()
  const own = text
    .replaceAll(ids, (id) => {
      if (!fresh.has(id)) fresh.set(id, uuid())
      return fresh.get(id)!
    })
    .replaceAll('2000-01-01', today)
  return JSON.parse(own) as SampleLetter[]
}

/** @throws TypeError when it cannot be fetched */
export async function fetchSample(today: string): Promise<SampleLetter[]> {
  const response = await fetch('/sample-day.json')
  if (!response.ok) throw new TypeError('The sample day is not part of this build.')
  return sampleLetters(await response.text(), today)
}
