import { ClickAdjuster } from '#contract/adjuster'
import type { End } from '#contract/common'
import { Rider } from '#contract/rider'
import { rolesOf, type Answers } from './firstBike.ts'

/** What an answer of the guided way lacks, and the field that it speaks of. */
export interface StartFault {
  words: string
  /** `name`, `mass`, `parts`, `travel.front`, `count.rear.rebound.at` … */
  field: string
}

const roleName: Record<string, string> = {
  compression: 'compression (blue)',
  'low-speed-compression': 'low-speed compression (blue)',
  'high-speed-compression': 'high-speed compression (blue)',
  rebound: 'rebound (red)',
  'low-speed-rebound': 'low-speed rebound (red)',
  'high-speed-rebound': 'high-speed rebound (red)',
}
/** A dial by its end and the colour of its knob: "Fork rebound (red)". */
export const dialWords = (end: End, role: string): string =>
  `${end === 'front' ? 'Fork' : 'Shock'} ${roleName[role] ?? role}`

/** What stops a question from being answered as it stands, or null when it may go on. */
export function startFault(key: string, a: Answers, counting: boolean): StartFault | null {
  const ends: End[] = a.hardtail ? ['front'] : ['front', 'rear']
  if (key === 'who' && !a.riderId) {
    if (!a.name.trim()) return { field: 'name', words: 'Say what the rider is called.' }
    if (a.bodyMassKg === null)
      return { field: 'mass', words: 'Give the weight without kit: every pressure follows from it.' }
    const mass = Rider.shape.bodyMassKg.safeParse(a.bodyMassKg)
    if (!mass.success) return { field: 'mass', words: mass.error.issues[0].message }
  }
  if (key === 'travel')
    for (const end of ends) {
      const mm = a[end].travelMm
      if (mm !== null && !(mm >= 60 && mm <= 260))
        return { field: `travel.${end}`, words: 'Travel is between 60 and 260 mm.' }
    }
  if ((key === 'fork' && a.front.parts.length === 0) || (key === 'shock' && a.rear.parts.length === 0))
    return { field: 'parts', words: 'Tap at least one thing you see, or “None of these”.' }
  if (key === 'count' && counting)
    for (const end of ends) {
      const found = countFault(end, a)
      if (found) return found
    }
  return null
}

function countFault(end: End, a: Answers): StartFault | null {
  for (const role of rolesOf(a[end].parts)) {
    const c = a[end].counts[role]
    const field = `count.${end}.${role}`
    if (!c) continue
    const clicks = c.clicks === null ? null : ClickAdjuster.shape.clicks.safeParse(c.clicks)
    if (clicks?.success === false) return { field: `${field}.clicks`, words: clicks.error.issues[0].message }
    if (c.at === null) continue
    if (!(c.at >= 0)) return { field: `${field}.at`, words: 'Clicks from closed are counted from 0 up.' }
    if (c.clicks !== null && c.at > c.clicks)
      return {
        field: `${field}.at`,
        words: `${dialWords(end, role)} stands at ${c.at}, but has only ${c.clicks} clicks from stop to stop.`,
      }
  }
  return null
}
