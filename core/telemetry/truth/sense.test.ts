import { describe, expect, it } from 'vitest'
import type { SectionKind } from '#contract/trail'
import { rideShares, rate } from '../../test/chambers.ts'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { ingestDelimited } from '../ingest.ts'

const trails: Record<string, SectionKind[]> = {
  'a mixed trail': ['roots', 'berms', 'rollers', 'square-edges', 'flat-out'],
  'all jumps and drops': ['jump', 'drop', 'jump', 'jump', 'drop', 'berms'],
  'a smooth one': ['smooth', 'berms', 'smooth', 'rollers'],
}
const geometry = { frontTravelMm: 150, rearStrokeMm: 55, leverage: null }

/** A file as a potentiometer without calibration writes it. @param readings mm */
function read(readings: Float64Array, calibrated = false) {
  const rows = [...readings].map((mm, i) => `${(i / rate).toFixed(3)},${mm.toFixed(2)}`).join('\n')
  const points = { extendedReading: 0, compressedReading: 150, compressedMm: 150 }
  return ingestDelimited(
    new TextEncoder().encode(`time_s,fork_mm\n${rows}\n`),
    {
      delimiter: ',',
      decimal: '.',
      sampleRateHz: null,
      columns: [
        { column: 0, role: 'time', unit: 's', calibration: null },
        { column: 1, role: 'front-travel', unit: 'mm', calibration: calibrated ? points : null },
      ],
    },
    geometry,
  )
}
/** Where the ride stands: as it was, or softly sprung about the middle of the stroke. */
const settings = {
  'at its sag': (u: number) => u,
  'about the middle': (u: number) => 0.28 + 0.72 * u,
}
const cases = Object.keys(trails).flatMap((trail, i) =>
  Object.keys(settings).map((where) => ({ trail, where: where as keyof typeof settings, seed: 40 + i })),
)
function mmOf({ trail, where, seed }: (typeof cases)[number], noiseMm: number) {
  const random = seededRandom(seed)
  return rideShares('front', trails[trail], seed).map(
    (u) => 150 * settings[where](u) + noiseMm * normalFrom(random),
  )
}
const off = (depthPct: Float64Array, mm: Float64Array) =>
  Math.max(...mm.map((x, i) => Math.abs(depthPct[i] - x / 1.5)))

describe.each(cases)('$trail, $where', (c) => {
  const senses = (issues: { code: string }[]) => issues.map((i) => i.code).filter((x) => x.startsWith('sign'))
  it('is left as it is when deeper is more', () => {
    for (const noiseMm of [0, 0.4]) {
      const mm = mmOf(c, noiseMm)
      const r = read(mm)
      expect(senses(r.issues)).not.toContain('sign-flipped')
      expect(off(r.depthPct.front!, mm)).toBeLessThan(0.5)
    }
  })
  it('is turned round when deeper is less, or asked about; never wrong in silence', () => {
    for (const noiseMm of [0, 0.4]) {
      const mm = mmOf(c, noiseMm)
      const r = read(mm.map((x) => 150 - x))
      expect(senses(r.issues)).toHaveLength(1)
      if (senses(r.issues)[0] === 'sign-flipped') expect(off(r.depthPct.front!, mm)).toBeLessThan(0.5)
      else expect(senses(r.issues)[0]).toBe('sign-unclear')
    }
  })
  it('a calibration taken the wrong way round is told, one taken rightly is not', () => {
    const mm = mmOf(c, 0.1)
    expect(senses(read(mm, true).issues)).not.toContain('sign-suspect')
    if (c.trail !== 'a smooth one')
      expect(
        senses(
          read(
            mm.map((x) => 150 - x),
            true,
          ).issues,
        ),
      ).toContain('sign-suspect')
  })
})

it('rides with hits and jumps are decided, not asked about, at either place', () => {
  const decided = cases
    .filter((c) => c.trail !== 'a smooth one')
    .map((c) => read(mmOf(c, 0.1).map((x) => 150 - x)).issues.map((i) => i.code))
  for (const codes of decided) expect(codes).toContain('sign-flipped')
})
it('what sways evenly about the middle tells nothing, and that is said', () => {
  const sway = Float64Array.from({ length: 4000 }, (_, i) => 75 + 40 * Math.sin(i / 30))
  expect(read(sway).issues.map((i) => i.code)).toContain('sign-unclear')
})
