import type { End } from '#contract/common'
import type { ChannelRole, ColumnMapping, ImportMapping } from '#contract/recording'
import { InputError } from '../errors.ts'
import type { FileLayout } from '../formats/layout.ts'
import { isPressure } from './calibrate.ts'

/** The mapping a file suggests by itself; the person corrects it. */
export function suggestMapping(layout: FileLayout): ImportMapping {
  return {
    delimiter: layout.delimiter,
    decimal: layout.decimal,
    columns: layout.columns.map((c, column) => ({ column, role: c.role, unit: c.unit, calibration: null })),
    sampleRateHz: null,
  }
}

export function columnFor(mapping: ImportMapping, role: ChannelRole): ColumnMapping | undefined {
  return mapping.columns.find((c) => c.role === role)
}

/** What can tell the travel of an end: its unit, its wheel, its chamber. */
export const travelColumns = (mapping: ImportMapping, end: End): ColumnMapping[] =>
  mapping.columns.filter(
    (c) =>
      c.role === `${end}-travel` ||
      c.role === `${end}-pressure` ||
      (end === 'rear' && c.role === 'rear-wheel-travel'),
  )

const minRateHz = 20
const maxRateHz = 20_000

/**
 * Refuses a mapping that cannot give travel over time.
 * @throws InputError 'mapping.…', 'rate.out-of-range'
 */
export function checkMapping(mapping: ImportMapping, columns: number): void {
  for (const { role } of mapping.columns) {
    if (role !== 'ignore' && mapping.columns.filter((c) => c.role === role).length > 1)
      throw new InputError('mapping.role-twice', { role: role.replaceAll('-', ' ') })
  }
  for (const end of ['front', 'rear'] as const)
    if (travelColumns(mapping, end).length > 1) throw new InputError('mapping.travel-and-pressure', { end })
  const used = mapping.columns.filter((c) => c.role !== 'ignore')
  for (const c of used) {
    if (c.column >= columns) throw new InputError('mapping.column', { column: c.column + 1, columns })
    if (c.role.endsWith('travel') && !c.calibration && (c.unit === 'raw' || c.unit === 'none'))
      throw new InputError(c.unit === 'raw' ? 'mapping.raw' : 'mapping.unit', {
        role: c.role.replaceAll('-', ' '),
      })
    if (c.role.endsWith('pressure') && !isPressure(c.calibration))
      throw new InputError('calibration.pressure-missing')
  }
  if (!used.some((c) => /-(travel|pressure)$/.test(c.role))) throw new InputError('mapping.no-travel')
  if (columnFor(mapping, 'time')) return
  const rate = mapping.sampleRateHz
  if (rate === null) throw new InputError('mapping.no-time')
  if (!(rate >= minRateHz && rate <= maxRateHz))
    throw new InputError('rate.out-of-range', { min: minRateHz, max: maxRateHz, got: rate })
}
