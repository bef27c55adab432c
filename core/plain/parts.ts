import type { Adjuster } from '#contract/adjuster'
import type { Position } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import { countBaseWords, toCount } from '../adjusters/count.ts'
import { adjusterName } from '../adjusters/words.ts'

/** A cell of a plain file: what a spreadsheet reads; '' where nothing is known. */
export type Cell = string | number

/** What the number of a part counts, in words: "clicks from closed", "psi", "N/mm". */
export function unitOf(a: Adjuster): string {
  switch (a.kind) {
    case 'click':
      return `clicks ${countBaseWords(a)}`
    case 'turn':
      return `turns ${countBaseWords(a)}`
    case 'pressure':
      return 'psi'
    case 'spacer':
      return 'spacers'
    case 'spring-rate':
      return 'N/mm'
    case 'lever':
      return 'position'
    case 'custom':
      return a.unitLabel
  }
}

/** Where a part stands, as its own count reads; a lever by its name. */
export function cellOf(a: Adjuster, value: number): Cell {
  if (a.kind === 'lever') return a.positions[value] ?? ''
  return Math.round(toCount(a, value) * 1000) / 1000
}

/** All that is known of a setup in one cell: "front Pressure 78 psi; rear Rebound 7 clicks from closed (assumed)". */
export function settingsCell(positions: readonly Position[], units: readonly SuspensionUnit[]): string {
  return units
    .flatMap((u) =>
      u.adjusters.map((a) => {
        const p = positions.find((x) => x.adjusterId === a.id)
        const name = `${u.end} ${adjusterName(a)}`
        if (!p) return `${name} not read`
        const unit = a.kind === 'lever' || a.kind === 'spacer' ? '' : ` ${unitOf(a)}`
        return `${name} ${cellOf(a, p.value)}${unit}${p.known.how === 'assumed' ? ' (assumed)' : ''}`
      }),
    )
    .join('; ')
}
