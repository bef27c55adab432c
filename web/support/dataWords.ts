import type { DamagedRecord, DataCounts, SafeCopy } from '#contract/data'
import { dateTimeWords } from './dates.ts'

/** "3.9 MB", "1.2 GB"; bytes in powers of ten, as disks are sold. */
export function sizeWords(bytes: number): string {
  const units = ['B', 'kB', 'MB', 'GB', 'TB']
  const at = Math.min(units.length - 1, Math.max(0, Math.floor(Math.log10(Math.max(1, bytes)) / 3)))
  const value = bytes / 1000 ** at
  return `${at === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${units[at]}`
}

export const some = (n: number, one: string, many = `${one}s`) =>
  `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`

export const countWords = (c: DataCounts): string =>
  [
    some(c.riders, 'rider'),
    some(c.bikes, 'bike'),
    some(c.days, 'day'),
    some(c.runs, 'run'),
    some(c.recordings, 'recording'),
  ].join(' · ')

const whyWords: Record<SafeCopy['why'], string> = {
  daily: 'of the day, by itself',
  'by-hand': 'made by hand',
  'before-update': 'before a newer version changed the tables',
  'before-restore': 'before another was put back',
}

export const reasonWords = ({ why }: SafeCopy): string => whyWords[why]

/** What a table's records are called; others go by the table's own name. */
export const kindWords: Record<string, string> = {
  riders: 'A rider',
  units: 'A fork or shock',
  bikes: 'A bike',
  trails: 'A trail',
  days: 'A day',
  runs: 'A run',
  feels: 'What was felt on a run',
  setups: 'A setup',
  recordings: 'A recording',
  proposals: 'A proposal',
  services: 'A service',
  benches: 'A walk at the bench',
  baselines: 'A baseline',
  kept: 'The name of a kept setup',
  gauges: 'A gauge',
  stock: 'Something on the shelf',
}

export function becameWords({ became, copiedAt }: DamagedRecord): string {
  switch (became) {
    case 'marked':
      return 'letters that were none are marked in it'
    case 'from-copy':
      return `is as the safe copy of ${dateTimeWords(copiedAt!)} has it`
    case 'emptied':
      return 'stands there empty: nothing of it is known'
    case 'left-out':
      return 'is left out'
  }
}
