import { expect, it } from 'vitest'
import { normalCdf } from '../stats/normal.ts'
import { normalBeyond, seededRandom } from './random.ts'

it.each([-3, -0.5, 0, 0.4, 2, 5])(
  'a normal cut off below %d has its mean and spread in closed form',
  (from) => {
    const random = seededRandom(77)
    const drawn = Array.from({ length: 40_000 }, () => normalBeyond(from, random))
    // Source: Johnson, Kotz & Balakrishnan, § 10.1: mean φ(a) ÷ (1 − Φ(a)), variance 1 + a·mean − mean².
    const mean = Math.exp(-0.5 * from * from) / Math.sqrt(2 * Math.PI) / normalCdf(-from)
    const sd = Math.sqrt(1 + from * mean - mean * mean)
    const found = drawn.reduce((s, x) => s + x, 0) / drawn.length
    expect(Math.min(...drawn)).toBeGreaterThanOrEqual(from)
    expect(Math.abs(found - mean)).toBeLessThan((4 * sd) / Math.sqrt(drawn.length))
    expect(Math.sqrt(drawn.reduce((s, x) => s + (x - found) ** 2, 0) / drawn.length)).toBeCloseTo(sd, 1)
  },
)
