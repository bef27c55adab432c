import type { Adjuster } from '#contract/adjuster'
import type { ReboundTest } from '#contract/bench'
import type { RiderLevel } from '#contract/rider'
import { adjusterRange, clampToRange } from '../adjusters/range.ts'

type Dial = Extract<Adjuster, { kind: 'click' | 'turn' }>

export interface ReboundAdvice {
  kind: 'test-first' | 'move' | 'good' | 'out-of-range'
  /** Where to stand next, canonical. */
  to: number
  /** Slowest and fastest places that are still possible, canonical. */
  low: number
  high: number
  words: string
}

/**
 * Next place of a rebound dial from bench tests on this spring: creeping back is too slow (open it), cycling again is
 * too fast (close it). Two steps until both sides are known, then halving; of two neighbours the faster one that does
 * not cycle: as fast as it goes without kicking, one click slower for a novice.
 *
 * @param tests  all tests of this dial since the spring was last changed, oldest first
 * @param now    canonical position
 */
export function reboundAdvice(
  tests: readonly Pick<ReboundTest, 'value' | 'outcome'>[],
  dial: Dial,
  now: number,
  level: RiderLevel,
): ReboundAdvice {
  const { min, max, step } = adjusterRange(dial)
  const slow = tests.filter((t) => t.outcome === 'creeps').map((t) => t.value)
  const fast = tests.filter((t) => t.outcome === 'cycles').map((t) => t.value)
  const low = slow.length ? Math.max(...slow) : min - step
  const high = fast.length ? Math.min(...fast) : max + step
  const bounds = { low: Math.max(min, low + step), high: Math.min(max, high - step) }
  if (tests.length === 0)
    return { kind: 'test-first', to: now, ...bounds, words: 'Push it down hard once and watch it come back.' }
  const last = tests[tests.length - 1]
  if (last.outcome === 'settles' && last.value === now) {
    const safer = level === 'novice' && now - step > low && now - step >= min
    return {
      kind: 'good',
      to: safer ? now - step : now,
      ...bounds,
      words: safer
        ? 'It settles. For a new rider one step slower is safer; begin there.'
        : 'It returns once and settles. Note it and go on.',
    }
  }
  if (low >= high)
    return {
      kind: 'test-first',
      to: now,
      low: min,
      high: max,
      words:
        'The tests contradict each other: the same place crept and cycled. Test again, the same push each time.',
    }
  const open = last.outcome === 'creeps'
  if ((open && low >= max) || (!open && high <= min))
    return {
      kind: 'out-of-range',
      to: now,
      ...bounds,
      words: open
        ? 'It creeps even fully open: check pressure and friction first, then it needs lighter oil or another valve in a workshop.'
        : 'It cycles even fully closed: check that the spring is not too firm, then it needs a workshop.',
    }
  if (bounds.low > bounds.high && high - low <= step + 1e-9)
    return {
      kind: 'move',
      to: low >= min ? low : high,
      ...bounds,
      words: 'One step creeps and the next cycles: stay on the slower of the two.',
    }
  const bothKnown = slow.length > 0 && fast.length > 0
  const wish = bothKnown ? (low + high) / 2 : open ? last.value + 2 * step : last.value - 2 * step
  const to = Math.min(bounds.high, Math.max(bounds.low, clampToRange(dial, wish)))
  return {
    kind: 'move',
    to,
    ...bounds,
    words: open ? 'It creeps back: too slow. Go faster.' : 'It cycles again: too fast. Go slower.',
  }
}
