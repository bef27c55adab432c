// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { rearRebound, frontPressure } from '#core/test/dayBuilder'
import ClickRail from './ClickRail.vue'

const rail = (extra: object = {}) =>
  mount(ClickRail, { props: { end: 'rear', adjuster: rearRebound, value: 7, ...extra } })
const chosen = (w: ReturnType<typeof rail>) => w.emitted('choose')?.map((x) => (x as number[])[0])

describe('a click rail', () => {
  it('says in one sentence what stands where, in the part’s own count', () => {
    expect(rail().get('[role=slider]').attributes('aria-label')).toBe('rear Rebound, 7 clicks from open')
  })
  it('moves one click with an arrow key and stops at the end', async () => {
    const w = rail({ value: 13 })
    await w.get('[role=slider]').trigger('keydown', { key: 'ArrowRight' })
    await w.setProps({ target: 14 })
    await w.get('[role=slider]').trigger('keydown', { key: 'ArrowRight' })
    expect(chosen(w)).toEqual([14])
  })
  it('takes digits as the count a person reads: 3 from open is 11 from closed', async () => {
    const w = rail()
    await w.get('[role=slider]').trigger('keydown', { key: '3' })
    expect(chosen(w)).toEqual([11])
  })
  it('begins a new number after the last was taken, however quickly it follows', async () => {
    const w = rail()
    const press = (key: string) => w.get('[role=slider]').trigger('keydown', { key })
    await press('1')
    await press('0')
    expect(chosen(w)).toEqual([13, 4])
    await press('Enter')
    await press('3')
    expect(chosen(w)).toEqual([13, 4, 11])
  })
  it('lets other keys through', async () => {
    const w = rail()
    await w.get('[role=slider]').trigger('keydown', { key: 'x' })
    expect(w.emitted('choose')).toBeUndefined()
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

describe('a finger on a rail', () => {
  /** A rail 280 px long from x = 0: one click of 14 is 20 px. */
  function touched(extra: object = {}) {
    const w = rail(extra)
    const track = w.get('[role=slider]').element as HTMLElement
    track.getBoundingClientRect = () => ({ left: 0, width: 280, top: 0, height: 44 }) as DOMRect
    const at = (type: string, x: number, y: number) =>
      track.dispatchEvent(
        new PointerEvent(type, { clientX: x, clientY: y, pointerId: 1, button: 0, bubbles: true }),
      )
    return { w, at }
  }
  it('that taps without moving sets the place under it', () => {
    const { w, at } = touched()
    at('pointerdown', 100, 20)
    at('pointermove', 102, 23)
    at('pointerup', 102, 23)
    expect(chosen(w)).toEqual([5])
  })
  it('that drags sideways sets where it lets go, once', () => {
    const { w, at } = touched()
    at('pointerdown', 140, 20)
    for (const x of [150, 170, 190, 200]) at('pointermove', x, 22)
    expect(w.emitted('choose')).toBeUndefined()
    at('pointerup', 200, 22)
    expect(chosen(w)).toEqual([10])
  })
  it('that swipes up or down to scroll sets nothing, even when it ends sideways', () => {
    const { w, at } = touched()
    at('pointerdown', 140, 20)
    for (const y of [40, 90, 160]) at('pointermove', 145, y)
    at('pointermove', 220, 170)
    at('pointerup', 220, 170)
    expect(w.emitted('choose')).toBeUndefined()
  })
  it('that the browser takes for scrolling sets nothing', () => {
    const { w, at } = touched()
    at('pointerdown', 100, 20)
    at('pointercancel', 100, 60)
    at('pointerup', 100, 60)
    expect(w.emitted('choose')).toBeUndefined()
  })
  it('that jumped far between down and up is no tap', () => {
    const { w, at } = touched()
    at('pointerdown', 100, 20)
    at('pointerup', 104, 300)
    expect(w.emitted('choose')).toBeUndefined()
  })
  it('on − or + moves one click, and no further than the stop; the sign is that of the number', async () => {
    const { w } = touched({ value: 1 })
    const [less, more] = w.findAll('button.step')
    // Counted from open: towards closed the number rises.
    expect([less.text(), more.text()]).toEqual(['+', '−'])
    expect(less.attributes('aria-label')).toBe('rear Rebound one step slower')
    await less.trigger('click')
    await w.setProps({ value: 0 })
    expect(w.findAll('button.step')[0].attributes('disabled')).toBeDefined()
    expect(chosen(w)).toEqual([0])
  })
  it('keeps the signs at a stop and where nothing was read, and says why nothing can be stepped', async () => {
    const { w } = touched({ value: 0 })
    const shown = () => w.findAll('button.step').map((b) => [b.text(), b.attributes('aria-label')])
    expect(shown()).toEqual([
      ['+', 'rear Rebound: no further'],
      ['−', 'rear Rebound one step faster'],
    ])
    await w.setProps({ value: null })
    const unread = 'rear Rebound: not read, so not stepped'
    expect(shown()).toEqual([
      ['+', unread],
      ['−', unread],
    ])
    const fromClosed = rail({ adjuster: { ...rearRebound, countBase: 'closed-0' }, value: 14 })
    expect(fromClosed.findAll('button.step').map((b) => b.text())).toEqual(['−', '+'])
  })
  it('finds nothing to turn on a past day', async () => {
    const { w, at } = touched({ locked: true })
    at('pointerdown', 100, 20)
    at('pointerup', 100, 20)
    await w.get('[role=slider]').trigger('keydown', { key: 'ArrowRight' })
    expect(w.emitted('choose')).toBeUndefined()
    expect(w.findAll('button')).toHaveLength(0)
  })
})

describe('how a place is known', () => {
  const known = (how: 'assumed' | 'set' | 'read') => ({
    how,
    at: '2031-05-02T08:00:00Z',
    by: 'Tarek',
    source: 'counted',
    gaugeId: null,
    airTempC: null,
    altitudeM: null,
    place: '',
  })
  it('stands beside it in a word, with when and by whom', () => {
    for (const how of ['assumed', 'set', 'read'] as const) {
      const w = rail({ known: known(how) })
      expect(w.get('.known').text()).toBe(how)
      expect(w.get('.known').attributes('title')).toMatch(new RegExp(`^${how} .* by Tarek: counted$`))
      expect(w.classes()).toContain(how)
    }
  })
  it('unread: no number anywhere, a hollow peg with a question mark, and nothing to step from', () => {
    const w = rail({ value: null, known: null })
    expect(w.get('.known').text()).toBe('not read')
    expect(w.get('.peg').text()).toBe('?')
    expect(w.get('.value b').text()).toBe('?')
    expect(w.get('.head').text()).toMatch(/^Rebound not read\?/)
    expect(w.get('[role=slider]').attributes('aria-valuetext')).toBe('not read')
    expect(w.get('[role=slider]').attributes('aria-valuenow')).toBeUndefined()
    expect(w.findAll('button.step').every((b) => b.attributes('disabled') !== undefined)).toBe(true)
  })
})
