// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { rearRebound, frontPressure } from '#core/test/dayBuilder'
import ClickRail from './ClickRail.vue'

const rail = (extra: object = {}) =>
  mount(ClickRail, { props: { end: 'rear', adjuster: rearRebound, value: 7, ...extra } })
const dialled = (w: ReturnType<typeof rail>) => w.emitted('dial')?.map((x) => (x as number[])[0])

describe('a click rail', () => {
  it('says in one sentence what stands where, in the part’s own count', () => {
    expect(rail().get('[role=slider]').attributes('aria-label')).toBe('rear Rebound, 7 clicks from open')
  })
  it('moves one click with an arrow key and stops at the end', async () => {
    const w = rail({ value: 13 })
    await w.get('[role=slider]').trigger('keydown', { key: 'ArrowRight' })
    await w.setProps({ target: 14 })
    await w.get('[role=slider]').trigger('keydown', { key: 'ArrowRight' })
    expect(dialled(w)).toEqual([14])
  })
  it('takes digits as the count a person reads: 3 from open is 11 from closed', async () => {
    const w = rail()
    await w.get('[role=slider]').trigger('keydown', { key: '3' })
    expect(dialled(w)).toEqual([11])
  })
  it('lets other keys through', async () => {
    const w = rail()
    await w.get('[role=slider]').trigger('keydown', { key: 'x' })
    expect(w.emitted('dial')).toBeUndefined()
  })
  it('marks what was tried by shape, and where the best lies', () => {
    const bracket = {
      tried: [
        { value: 6, outcome: 'worse' as const, runs: 1 },
        { value: 8, outcome: 'better' as const, runs: 2 },
      ],
      low: 6,
      high: 14,
      lowOpen: false,
      highOpen: true,
    }
    const w = rail({ bracket })
    expect(w.findAll('.tried').map((t) => t.text())).toEqual(['▼', '▲'])
    expect(w.find('.best').exists()).toBe(true)
  })
  it('shows a proposal with its turn, and an arrow where nothing turns', () => {
    expect(rail({ ghost: 8 }).get('.ghost').text()).toBe('↺')
    expect(
      mount(ClickRail, { props: { end: 'front', adjuster: frontPressure, value: 80, ghost: 84 } })
        .get('.ghost')
        .text(),
    ).toBe('→')
  })
})
