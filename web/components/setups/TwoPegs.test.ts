// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import type { KnownHow } from '#contract/setup'
import { rearRebound } from '#core/test/dayBuilder'
import TwoPegs from './TwoPegs.vue'

const pegs = (from: KnownHow | null, to: KnownHow | null, { alike = false, alone = false } = {}) =>
  mount(TwoPegs, {
    props: {
      dial: {
        end: 'rear',
        first: rearRebound,
        second: rearRebound,
        from: 7,
        to: alike ? 7 : 5,
        fromHow: from,
        toHow: to,
        how: alike ? 'alike' : 'moved',
      },
      alone,
    },
  })
const drawn = (w: ReturnType<typeof pegs>) =>
  w.findAll('circle').map((c) => [c.classes().includes('first') ? 'first' : 'second', c.classes('assumed')])

describe('two pegs on a rail', () => {
  it('what was set or read is neither drawn nor said as assumed, nor is a recommendation', () => {
    for (const [from, to] of [
      ['set', 'read'],
      [null, 'set'],
    ] as const) {
      const w = pegs(from, to)
      expect(drawn(w)).toEqual([
        ['first', false],
        ['second', false],
      ])
      expect(w.html()).not.toContain('assumed')
    }
  })
  // The part is counted from open: 5 from closed is 9 there.
  it('says which of the two nobody set or read, for the eye and for the ear', () => {
    const w = pegs('assumed', 'set')
    expect(drawn(w)).toEqual([
      ['first', true],
      ['second', false],
    ])
    expect(w.findAll('.nums small').map((x) => x.text())).toEqual(['2 clicks slower', '7 assumed'])
    expect(w.get('li').attributes('aria-label')).toBe(
      'Rebound: 7 clicks, assumed, then 9 clicks; 2 clicks slower',
    )
    expect(pegs('read', 'assumed').get('.nums').text()).toContain('9 assumed')
  })
  it('alike by assumption is not simply alike', () => {
    expect(pegs('assumed', 'assumed', { alike: true }).get('.nums').text()).toContain('both assumed')
    expect(pegs('read', 'assumed', { alike: true }).get('.nums').text()).toContain('one assumed')
    expect(pegs('set', 'set', { alike: true }).get('.nums').text()).toBe('7 → 7')
  })
  it('alone it says its own only', () => {
    expect(pegs('assumed', 'assumed', { alike: true, alone: true }).get('.nums').text()).toBe('7assumed')
    expect(pegs('assumed', 'read', { alike: true, alone: true }).html()).not.toContain('assumed')
  })
})
