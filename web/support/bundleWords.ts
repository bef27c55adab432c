import type { BundleHead, BundleLook, DifferingRecord, Import } from '#contract/bundle'
import { some } from './dataWords.ts'
import { clockWords, dateWords, localDate } from './dates.ts'
import { listOf } from './words.ts'

/** What the records of a kind are called, one and many. */
const names: Record<string, [one: string, many: string]> = {
  riders: ['rider', 'riders'],
  units: ['fork or shock', 'forks and shocks'],
  bikes: ['bike', 'bikes'],
  trails: ['trail', 'trails'],
  tents: ['event', 'events'],
  setups: ['setup', 'setups'],
  days: ['day', 'days'],
  runs: ['run', 'runs'],
  feels: ['feel of a run', 'feels of runs'],
  proposals: ['proposal', 'proposals'],
  recordings: ['recording', 'recordings'],
  gauges: ['gauge', 'gauges'],
  stock: ['thing on the shelf', 'things on the shelf'],
  services: ['service', 'services'],
  baselines: ['baseline', 'baselines'],
  benches: ['walk at the bench', 'walks at the bench'],
  kept: ['name of a setup', 'names of setups'],
  profiles: ['profile', 'profiles'],
  letterheads: ['head of the card', 'heads of the card'],
  mappings: ['way to read a file', 'ways to read files'],
  tent_riders: ['rider in an event', 'riders in events'],
  tent_hours: ['line of an event’s log', 'lines of events’ logs'],
  tent_notes: ['decision in an event', 'decisions in events'],
  pad_reports: ['report of a phone', 'reports of phones'],
  voices: ['spoken note', 'spoken notes'],
}

export const kindName = (kind: string) => names[kind]?.[0] ?? kind
export const countOf = (kind: string, n: number) => some(n, ...(names[kind] ?? [kind, kind]))

/** "Ilka, as it stood on 2 May 2031, 10:05" */
export const bundleWords = ({ scope, madeAt }: BundleHead) =>
  `${scope.kind === 'everything' ? 'Everything' : scope.name}, as it stood on ${dateWords(localDate(madeAt))}, ${clockWords(madeAt)}`

/** What a bundle leaves out, as a sentence; '' where it leaves out nothing. */
export function leftOutWords({ with: w }: BundleHead): string {
  const out = [
    ...(w.weights ? [] : ['weights']),
    ...(w.voices ? [] : ['spoken notes']),
    ...(w.inside ? [] : ['what was noted about the inside of forks and shocks']),
  ]
  if (out.length === 0) return ''
  return `Not in it: ${listOf(out)}. Where it meets a record of yours, yours keeps them.`
}

/** "609 new records, 3 replaced" */
export function takenWords({ fresh, replaced }: Import): string {
  const parts = [...(fresh ? [some(fresh, 'new record')] : []), ...(replaced ? [`${replaced} replaced`] : [])]
  return parts.join(', ') || 'nothing new'
}

export const isNothingNew = (look: BundleLook) => look.kinds.every((k) => k.fresh + k.differing === 0)

const unitOf: [end: RegExp, words: string][] = [
  [/Kg$/, ' (kg)'],
  [/Psi$/, ' (psi)'],
  [/Mm$/, ' (mm)'],
  [/Pct$/, ' (%)'],
  [/TempC$/, ' temperature (°C)'],
  [/(?<=duration)S$/, ' (s)'],
  [/(?<=altitude)M$/, ' (m)'],
]

/** "conditions.airTempC" as "conditions, air temperature (°C)". */
export function fieldWords(path: DifferingRecord['fields'][number]['path']): string {
  return path
    .split('.')
    .map((name) => {
      if (/^\d+$/.test(name)) return `no. ${Number(name) + 1}`
      const [end, unit] = unitOf.find(([e]) => e.test(name)) ?? [/$^/, '']
      return (
        name
          .replace(end, '')
          .replace(/([a-z])([A-Z])/g, '$1 $2')
          .toLowerCase() + unit
      )
    })
    .join(', ')
}
