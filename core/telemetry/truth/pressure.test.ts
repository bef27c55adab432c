import { describe, expect, it } from 'vitest'
import { normalFrom, seededRandom } from '../../numeric/random.ts'
import { codeOf } from '../../test/codeOf.ts'
import { fitHeldDepths } from '../heldDepths.ts'
import { ingestDelimited } from '../ingest.ts'
import { travelFromPressure } from '../pressure.ts'
import { pressureIssues } from '../pressureIssues.ts'
import { pressureOf, rate, rideShares, type Gas } from '../../test/chambers.ts'

const jumps = ['smooth', 'roots', 'drop', 'jump', 'berms', 'rollers', 'jump', 'flat-out', 'drop'] as const
const ground = ['smooth', 'roots', 'berms', 'rollers', 'square-edges', 'flat-out', 'berms'] as const
const rides = {
  front: { jumps: rideShares('front', jumps, 21), ground: rideShares('front', ground, 22) },
  rear: { jumps: rideShares('rear', jumps, 23), ground: rideShares('rear', ground, 24) },
}
const baselinePsi = { front: 84, rear: 190 }
const warming = (kelvin: number) => (tS: number) => 1 + (kelvin / 288) * (1 - Math.exp(-tS / 60))
const leak = (perMinute: number) => (tS: number) => 1 - (perMinute * tS) / 60

const gases: Record<string, Omit<Gas, 'baselinePsi'>> = {
  'as calibrated': { compressionRatio: 2.2, noisePsi: 0.08, wallWarmth: warming(0) },
  'CR 1.6': { compressionRatio: 1.6, noisePsi: 0.08, wallWarmth: warming(10) },
  'CR 5': { compressionRatio: 5, noisePsi: 0.08, wallWarmth: warming(10) },
  '30 °C': { compressionRatio: 2.4, noisePsi: 0.08, wallWarmth: warming(30) },
  'noise of 0.8 psi': { compressionRatio: 2.4, noisePsi: 0.8, wallWarmth: warming(5) },
  'noise, 30 °C, CR 1.6': { compressionRatio: 1.6, noisePsi: 0.8, wallWarmth: warming(30) },
  'noise, 30 °C, CR 5': { compressionRatio: 5, noisePsi: 0.8, wallWarmth: warming(30) },
  'quick heat': { compressionRatio: 2.2, noisePsi: 0.2, wallWarmth: warming(15), heatS: 2 },
  'slow heat': { compressionRatio: 2.2, noisePsi: 0.2, wallWarmth: warming(15), heatS: 30 },
  'a leak of 6 % a minute': {
    compressionRatio: 2.2,
    noisePsi: 0.4,
    wallWarmth: warming(0),
    left: leak(0.06),
  },
}
const cases = (['front', 'rear'] as const).flatMap((end) =>
  (['jumps', 'ground'] as const).flatMap((kind) =>
    Object.entries(gases).map(([name, gas], i) => ({ end, kind, name, gas, seed: 100 + i })),
  ),
)

function readBack({ end, kind, gas, seed }: (typeof cases)[number]) {
  const truth = rides[end][kind]
  const psi = pressureOf(truth, { ...gas, baselinePsi: baselinePsi[end] }, seed)
  const calibration = { compressionRatio: gas.compressionRatio, baselinePsi: baselinePsi[end] }
  const found = travelFromPressure(psi, rate, calibration)
  const squares = found.share.reduce((s, u, i) => s + (u - truth[i]) ** 2, 0)
  const words = pressureIssues(found, calibration, 150, `${end} pressure`)
  const told = words.map((w) => Number(/± (\d+) %/.exec(w.message)?.[1] ?? NaN)).find((n) => n === n) ?? null
  return { found, words, told, offPct: 100 * Math.sqrt(squares / truth.length) }
}

describe('travel from a chamber that exchanges heat with its walls', () => {
  it.each(cases)('$end, $kind, $name: within 1.5 % of travel, or what it says of itself is true', (c) => {
    const { offPct, told } = readBack(c)
    if (told === null) expect(offPct).toBeLessThan(1.5)
    else expect(offPct).toBeLessThanOrEqual(told)
  })
  it.each(cases.filter((c) => c.kind === 'jumps' && c.end === 'front'))(
    '$end, $name: with moments at full extension it is good, and does not hide behind its remark',
    (c) => {
      const { offPct, told } = readBack(c)
      expect(offPct).toBeLessThan(2)
      expect(told ?? 0).toBeLessThanOrEqual(8)
    },
  )
  it('a ride that never extends says so, at either end', () => {
    for (const c of cases.filter((c) => c.kind === 'ground' && c.end === 'rear')) {
      const { found, words } = readBack(c)
      expect(found.extendedMoments, c.name).toBe(0)
      expect(words.map((w) => w.code)).toContain('no-extended-moment')
    }
  })
  it('a leak is named where it can be seen, and nothing else is called one', () => {
    for (const c of cases.filter((c) => c.kind === 'jumps')) {
      const { found } = readBack(c)
      if (found.extendedMoments > 0) expect(found.leaking, `${c.end}, ${c.name}`).toBe('left' in c.gas)
    }
  })
  it('another fill than the calibrated one is told, with the baseline that fits', () => {
    const truth = Float64Array.from({ length: 60 * rate }, (_, i) =>
      // Lifted for three seconds at the start, then ridden about 25 %, in the air for half a second every eight.
      i < 3 * rate || i % (8 * rate) < rate / 2 ? 0.01 : 0.25 + 0.1 * Math.sin(i / 17) * Math.sin(i / 61),
    )
    const gas = { compressionRatio: 2.2, noisePsi: 0.1, wallWarmth: warming(2) }
    const read = (psi: number) =>
      travelFromPressure(pressureOf(truth, { ...gas, baselinePsi: psi }, 3), rate, {
        compressionRatio: 2.2,
        baselinePsi: 84,
      }).otherBaselinePsi
    expect(read(84)).toBeNull()
    expect(read(86)).toBeNull()
    // The pressure has risen or fallen by six psi at the pump; the gas itself moves it by one or two.
    expect(Math.abs(read(90)! - 90)).toBeLessThan(2.5)
    expect(Math.abs(read(78)! - 78)).toBeLessThan(2.5)
  })
})

describe('a calibration by held depths', () => {
  /** Held still the gas is as warm as its surroundings: isothermal. */
  const held = (cr: number, psi: number, mms: readonly number[], strokeMm: number, seed: number) => {
    const random = seededRandom(seed)
    const k = 1 - 1 / cr
    return mms.map((mm) => ({
      // Read to the millimetre, as rings are; full extension needs no ring.
      mm: mm === 0 ? 0 : Math.round(mm + 0.5 * normalFrom(random)),
      psi: (psi + 14.696) / (1 - (k * mm) / strokeMm) - 14.696 + 0.3 * normalFrom(random),
    }))
  }
  const depths = [0, 30, 55, 80]
  it.each([1.6, 2.2, 3, 5])('finds CR %d and the baseline, and its errors are what they say', (cr) => {
    let [ratioOff, baseOff, wide] = [0, 0, 0]
    const rounds = 300
    for (let seed = 0; seed < rounds; seed++) {
      const fit = fitHeldDepths(held(cr, 84, depths, 150, 1000 + seed), 150)
      if (Math.abs(fit.compressionRatio - cr) > 2 * fit.compressionRatioSe) ratioOff++
      if (Math.abs(fit.baselinePsi - 84) > 2 * fit.baselineSePsi) baseOff++
      wide += fit.shareSeAt(0.25)
    }
    // Two standard errors hold 95 %; a binomial of 300 strays by some.
    expect(ratioOff / rounds).toBeLessThan(0.09)
    expect(baseOff / rounds).toBeLessThan(0.09)
    // And they are of use: depth to a hundredth of the stroke.
    expect(wide / rounds).toBeLessThan(0.012)
  })
  it('works without full extension, and is then less sure', () => {
    const with0 = fitHeldDepths(held(2.2, 84, [0, 40, 75], 150, 5), 150)
    const without = fitHeldDepths(held(2.2, 84, [20, 50, 85], 150, 5), 150)
    expect(without.baselineSePsi).toBeGreaterThan(with0.baselineSePsi)
    expect(Math.abs(without.compressionRatio - 2.2)).toBeLessThan(3 * without.compressionRatioSe)
  })
  it('refuses what cannot be a chamber, with what to do', () => {
    const good = held(2.2, 84, [0, 40, 75], 150, 5)
    const code = (d: typeof good) => codeOf(() => fitHeldDepths(d, 150))
    expect(code(good.slice(0, 2))).toBe('calibration.depths')
    expect(code(held(2.2, 84, [0, 10, 25], 150, 5))).toBe('calibration.depths')
    expect(code(good.map((d) => ({ ...d, psi: 84 })))).toBe('calibration.depths-ratio')
    expect(code(good.map((d) => ({ ...d, psi: 200 - d.psi })))).toBe('calibration.depths-ratio')
    const misread = held(2.2, 84, [0, 30, 60, 80], 150, 5).map((d, i) => (i === 2 ? { ...d, mm: 40 } : d))
    expect(code(misread)).toBe('calibration.depth-off')
  })
})

it('a coil has no chamber to read', () => {
  const rows = Array.from({ length: 200 }, (_, i) => `${i * 5},${90 + (i % 7)}`).join('\n')
  const bytes = new TextEncoder().encode(`time_ms,front_psi\n${rows}\n`)
  const mapping = {
    delimiter: ',' as const,
    decimal: '.' as const,
    sampleRateHz: null,
    columns: [
      { column: 0, role: 'time' as const, unit: 'ms' as const, calibration: null },
      {
        column: 1,
        role: 'front-pressure' as const,
        unit: 'psi' as const,
        calibration: { compressionRatio: 2.2, baselinePsi: 84 },
      },
    ],
  }
  const geometry = { frontTravelMm: 150, rearStrokeMm: 55, leverage: null }
  expect(codeOf(() => ingestDelimited(bytes, mapping, { ...geometry, coils: ['front'] }))).toBe(
    'mapping.coil',
  )
  expect(codeOf(() => ingestDelimited(bytes, mapping, { ...geometry, coils: ['rear'] }))).toBe('no error')
})
