import type { Adjuster } from '#contract/adjuster'

interface Record {
  assumed: string[]
  adjusters?: Adjuster[]
}

const valueOf = (r: Record, key: string): unknown =>
  key in r ? r[key as keyof Record] : r.adjusters?.find((a) => a.id === key)

/**
 * What of a record is still only assumed after somebody worked on it: a number that was changed was looked at, a part that
 * is gone is nobody's assumption any more.
 */
export function stillAssumed<R extends Record>(before: R | undefined, after: R): R {
  if (!before) return after
  return {
    ...after,
    assumed: after.assumed.filter((key) => {
      const now = valueOf(after, key)
      return now !== undefined && JSON.stringify(now) === JSON.stringify(valueOf(before, key))
    }),
  }
}

/** What of a record is assumed, in words; empty for nothing. */
export function assumedWords(r: Record, name: (a: Adjuster) => string): string[] {
  const fields: { [key: string]: string } = {
    strokeMm: 'travel',
    rearWheelTravelMm: 'rear travel',
    kitMassKg: 'kit',
  }
  return r.assumed.flatMap((key) => {
    const part = r.adjusters?.find((a) => a.id === key)
    return part ? [`range of ${name(part).toLowerCase()}`] : key in fields ? [fields[key]] : []
  })
}
