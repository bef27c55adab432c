import type { DataCounts, SafeCopy } from '#contract/data'

/** "3.9 MB", "1.2 GB"; bytes in powers of ten, as disks are sold. */
export function sizeWords(bytes: number): string {
  const units = ['B', 'kB', 'MB', 'GB', 'TB']
  const at = Math.min(units.length - 1, Math.max(0, Math.floor(Math.log10(Math.max(1, bytes)) / 3)))
  const value = bytes / 1000 ** at
  return `${at === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${units[at]}`
}

const some = (n: number, one: string, many = `${one}s`) =>
  `${n.toLocaleString('en-GB')} ${n === 1 ? one : many}`

export const countWords = (c: DataCounts): string =>
  [
    some(c.riders, 'rider'),
    some(c.bikes, 'bike'),
    some(c.days, 'day'),
    some(c.runs, 'run'),
    some(c.recordings, 'recording'),
  ].join(' · ')

export const whyWords: Record<SafeCopy['why'], string> = {
  daily: 'of the day, by itself',
  'by-hand': 'made by hand',
  'before-update': 'before a newer version changed the tables',
  'before-restore': 'before another was put back',
}
