import type { Adjuster, AdjusterRole } from '#contract/adjuster'
import type { End } from '#contract/common'
import type { SuspensionUnit } from '#contract/unit'
import { endWords, partWords } from '../command/lexicon.ts'
import { tokensOf } from '../command/tokens.ts'
import { baseOf } from './base.ts'
import { readDate } from './dates.ts'
import type { ColumnUse, PressureUnit, RateUnit } from './column.ts'

const plainUses: [ColumnUse['use'] & ('date' | 'name' | 'place' | 'note'), RegExp][] = [
  ['date', /^(date|day|when|datum|ridden)\b/i],
  ['name', /^(name|setup|set-up|setting|title|label)s?\b/i],
  ['place', /^(place|where|trail|track|venue|location|spot)\b/i],
  ['note', /^(notes?|comments?|remarks?|feel|feeling|words|impression|verdict|how it)\b/i],
]
/** Abbreviations that stand for an end and a part in one: "FR", "rr". */
const joined: Record<string, [End, string]> = {
  fr: ['front', 'rebound'],
  rr: ['rear', 'rebound'],
  fc: ['front', 'compression'],
  rc: ['rear', 'compression'],
}

/**
 * What the columns of a table of settings are likely to be, by their heading and by what stands below it. A person says
 * what is right; what cannot be told is left out.
 * @param header a heading for each column
 * @param rows   cells below it
 */
export function guessColumns(
  header: readonly string[],
  rows: readonly (readonly string[])[],
  units: readonly SuspensionUnit[],
): ColumnUse[] {
  const taken = new Set<string>()
  return header.map((heading, i): ColumnUse => {
    const cells = rows.map((r) => r[i] ?? '')
    // "Shock note": the end may only stand over it.
    const [first, ...after] = heading.trim().split(/\s+/)
    const own = after.length > 0 && first.toLowerCase() in endWords ? after.join(' ') : heading.trim()
    const plain = plainUses.find(([use, re]) => re.test(own) && !taken.has(use))
    if (plain) {
      taken.add(plain[0])
      return { use: plain[0] }
    }
    const dial = dialOf(heading, units)
    if (dial && !taken.has(dial.a.id)) {
      taken.add(dial.a.id)
      return asDial(dial.end, dial.a, heading, cells)
    }
    if (
      !taken.has('date') &&
      cells.filter((c) => c !== '').every((c) => looksLikeDate(c)) &&
      cells.some((c) => c !== '')
    ) {
      taken.add('date')
      return { use: 'date' }
    }
    return { use: 'ignore' }
  })
}

const looksLikeDate = (cell: string) => readDate(cell, 'dmy') !== null || readDate(cell, 'mdy') !== null

/** A column as that of a dial, with what its heading says of count base and unit. */
export function asDial(end: End, a: Adjuster, heading: string, cells: readonly string[]): ColumnUse {
  return {
    use: 'dial',
    end,
    adjusterId: a.id,
    base: baseOf(heading) ?? ('countBase' in a ? a.countBase : 'closed-0'),
    pressure: pressureOf(heading, cells),
    rate:
      /n\s*\/\s*mm/i.test(heading) || cells.some((c) => /n\s*\/\s*mm/i.test(c))
        ? 'N/mm'
        : rateByNumbers(a, cells),
  }
}

function pressureOf(heading: string, cells: readonly string[]): PressureUnit {
  const said = [heading, ...cells]
    .map((t) => /\b(psi|bar|kpa)\b|(?<=\d)(psi|bar|kpa)\b/i.exec(t)?.[0].toLowerCase())
    .find(Boolean)
  if (said) return said === 'kpa' ? 'kPa' : (said as 'psi' | 'bar')
  const numbers = cells.map((c) => Number(c.replace(',', '.'))).filter((n) => n > 0)
  // No fork or shock stands at 25 psi, and none at 25 bar and more.
  return numbers.length > 0 && Math.max(...numbers) < 25 ? 'bar' : 'psi'
}

function rateByNumbers(a: Adjuster, cells: readonly string[]): RateUnit {
  if (a.kind !== 'spring-rate') return 'N/mm'
  const numbers = cells.map((c) => Number(c.replace(',', '.'))).filter((n) => n > 0)
  return numbers.length > 0 && Math.min(...numbers) > 150 ? 'lb/in' : 'N/mm'
}

/** The dial that a heading means: "Fork reb (clicks out)", "rear psi", "HSC shock", "FR". */
function dialOf(heading: string, units: readonly SuspensionUnit[]): { end: End; a: Adjuster } | null {
  const words = tokensOf(heading.replace(/[()[\]_/]/g, ' ')).flatMap((t) =>
    t.kind === 'word' ? [t.text] : [],
  )
  const short = words.map((w) => joined[w]).find((j) => j !== undefined)
  const end = short?.[0] ?? words.map((w) => endWords[w]).find((e) => e !== undefined) ?? null
  const names = short ? [short[1], ...words] : words
  const ends = units.filter((u) => end === null || u.end === end)
  const own = ends.flatMap((u) => u.adjusters.map((a) => ({ end: u.end, a })))
  // What is printed on the part, or what its owner called it.
  const alias = own.filter(({ a }) => {
    const said = (a.alias ?? (a.kind === 'custom' ? a.name : '')).toLowerCase()
    return said !== '' && heading.toLowerCase().includes(said)
  })
  if (alias.length === 1) return alias[0]
  const roles = partWords.find(([known]) => names.some((n) => known.includes(n)))?.[1] ?? []
  const role = roles.find((r: AdjusterRole) => own.some((o) => o.a.role === r))
  const found = own.filter((o) => o.a.role === role)
  // Without an end it may be either: that is for a person to say.
  return found.length === 1 ? found[0] : null
}
