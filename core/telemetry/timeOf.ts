import type { ColumnMapping, ImportIssue } from '#contract/recording'
import { InputError } from '../errors.ts'
import type { DelimitedTable } from '../formats/delimited.ts'
import { repairClock, type RepairedClock } from './clock.ts'
import { issue } from './issues.ts'

/** The clock of a column, repaired. @param slot place of the column in the table @throws InputError 'time.…' */
export function timeFromColumn(table: DelimitedTable, slot: number, column: ColumnMapping): RepairedClock {
  const { unit: u } = column
  const unit = u === 'min' || u === 's' || u === 'ms' || u === 'us' || u === 'ns' ? u : 'none'
  const raw = table.columns[slot]
  if (!raw.some(Number.isFinite))
    throw new InputError('time.unreadable', { line: table.firstTextLine ?? table.lines[0] })
  return repairClock(raw, table.lines, unit)
}

/** A clock of even steps, for files that have none. @throws InputError 'time.one-sample' */
export function timeFromRate(table: DelimitedTable, rateHz: number): RepairedClock {
  const n = table.lines.length
  if (n < 2) throw new InputError('time.one-sample')
  const timeS = Float64Array.from({ length: n }, (_, i) => i / rateHz)
  const rows = Uint32Array.from({ length: n }, (_, i) => i)
  return {
    timeS,
    rows,
    sampleRateHz: rateHz,
    unit: 's',
    guessed: false,
    perBlock: null,
    duplicates: 0,
    firstDuplicateLine: null,
    resets: 0,
    firstResetLine: null,
    blanks: 0,
    gaps: 0,
    jumps: 0,
    firstJumpLine: null,
    startEpochS: null,
  }
}

const timeWords = { min: 'minutes', s: 'seconds', ms: 'milliseconds', us: 'microseconds', ns: 'nanoseconds' }

/** What was repaired on a clock, in words. */
export function clockIssues(c: RepairedClock): ImportIssue[] {
  const out: ImportIssue[] = []
  if (c.guessed)
    out.push(
      issue(
        'time-unit-guessed',
        `Nothing says what the time column is in; its steps were taken for ${timeWords[c.unit]}, which makes ${Math.round(c.sampleRateHz)} samples a second and a recording of ${Math.round(c.timeS[c.timeS.length - 1])} s. Choose the unit if that is not so.`,
      ),
    )
  if (c.perBlock !== null)
    out.push(
      issue(
        'block-stamps',
        `About ${c.perBlock} rows share each stamp of the clock; they were spread evenly up to the next one.`,
        c.perBlock,
      ),
    )
  if (c.duplicates > 0)
    out.push(
      issue(
        'time-duplicates',
        `${c.duplicates} rows repeat an instant, the first in line ${c.firstDuplicateLine}; the first reading was kept.`,
        c.duplicates,
        c.firstDuplicateLine,
      ),
    )
  if (c.resets > 0)
    out.push(
      issue(
        'clock-reset',
        `The clock jumps back ${c.resets === 1 ? 'once' : `${c.resets} times`}, first in line ${c.firstResetLine}; time was continued from there.`,
        c.resets,
        c.firstResetLine,
      ),
    )
  if (c.jumps > 0)
    out.push(
      issue(
        'clock-jump',
        `The clock jumps ahead by more than ten minutes ${c.jumps === 1 ? 'once' : `${c.jumps} times`}, first in line ${c.firstJumpLine}; time was continued from there.`,
        c.jumps,
        c.firstJumpLine,
      ),
    )
  if (c.blanks > 0)
    out.push(issue('time-blank', `${c.blanks} rows have no time; they were left out.`, c.blanks))
  if (c.gaps > 0)
    out.push(issue('gaps', `${c.gaps} gaps of more than 50 ms; they are kept as gaps, not bridged.`, c.gaps))
  return out
}
