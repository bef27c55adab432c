// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { canonicalUnits } from '#core/units/choice'
import { fork } from '#core/test/dayBuilder'
import { useUnits } from '../../composables/useUnits.ts'
import { factWords, reminderWords } from '../../support/benchWords.ts'
import { cautions, cautionsAt } from '../../support/cautions.ts'
import { copyOfUnit, unitTemplates } from '../../support/unitTemplates.ts'
import NumberField from '../shell/NumberField.vue'
import BenchSteps from './BenchSteps.vue'
import HandsFree from './HandsFree.vue'
import SagRuler from './SagRuler.vue'

const stubs = { BButton: { template: '<button v-bind="$attrs"><slot /></button>' } }
const imperial = { pressure: 'bar', length: 'in', mass: 'lb', temperature: '°F' } as const
afterEach(() => useUnits().choose(canonicalUnits))

describe('the sag ruler', () => {
  const ruler = (sagPct: number | null, over = {}) =>
    mount(SagRuler, { props: { end: 'rear', strokeMm: 50, targetPct: 30, sagPct, ...over } })
  const at = (w: ReturnType<typeof ruler>, selector: string) => Number(w.get(selector).attributes('x'))
  it('is to scale: the ring stands where it was read', () => {
    const half = at(ruler(50), '.ring')
    const none = at(ruler(0), '.ring')
    const all = at(ruler(100), '.ring')
    expect(half - none).toBeCloseTo((all - none) / 2, 6)
    const shaft = ruler(50).get('.shaft')
    expect(all - none).toBeCloseTo(Number(shaft.attributes('width')), 6)
  })
  it('has a mark each millimetre, or each eighth of an inch', async () => {
    const w = ruler(null)
    expect(w.findAll('.mark')).toHaveLength(51)
    useUnits().choose(imperial)
    await nextTick()
    expect(w.findAll('.mark')).toHaveLength(Math.floor(50 / (25.4 / 8)) + 1)
    expect(w.text()).toContain('in')
  })
  it('says in words what it shows', () => {
    expect(ruler(32.4).get('svg').attributes('aria-label')).toBe(
      'Sag ruler, target 30 %, 15 mm of 50 mm; the ring stands at 16.2 mm, 32.4 %',
    )
    expect(ruler(null).get('svg').attributes('aria-label')).toBe('Sag ruler, target 30 %, 15 mm of 50 mm')
  })
  it('shows where the next pressure should bring it, with its spread', () => {
    expect(ruler(40).find('.ghost').exists()).toBe(false)
    const w = ruler(40, { expectedPct: 30, expectedSpreadPct: 2 })
    expect(at(w, '.ghost')).toBeLessThan(at(w, '.ring:not(.ghost)'))
    expect(Number(w.get('.spread').attributes('width'))).toBeGreaterThan(0)
  })
})

describe('the hands-free timer', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => vi.useRealTimers())
  const steps = [
    { words: 'Pump', seconds: 3 },
    { words: 'Cycle', seconds: 4, count: 2 },
  ]
  it('goes from step to step by itself, counts cycles, and says when it is done', async () => {
    const w = mount(HandsFree, { props: { title: 'Begin', steps }, global: { stubs } })
    await w.get('button').trigger('click')
    expect(w.get('.words').text()).toBe('Pump')
    expect(w.get('.big').text()).toBe('3')
    await vi.advanceTimersByTimeAsync(3000)
    expect(w.get('.words').text()).toBe('Cycle')
    expect(w.get('.big').text()).toBe('1 of 2')
    await vi.advanceTimersByTimeAsync(2000)
    expect(w.get('.big').text()).toBe('2 of 2')
    await vi.advanceTimersByTimeAsync(2000)
    expect(w.emitted('finished')).toHaveLength(1)
    expect(w.find('.running').exists()).toBe(false)
  })
  it('waits when told, and can be stopped', async () => {
    const w = mount(HandsFree, { props: { title: 'Begin', steps }, global: { stubs } })
    await w.get('button').trigger('click')
    await w.findAll('button')[0].trigger('click')
    await vi.advanceTimersByTimeAsync(10_000)
    expect(w.get('.big').text()).toBe('3')
    await w.findAll('button')[2].trigger('click')
    expect(w.find('.running').exists()).toBe(false)
    expect(w.emitted('finished')).toBeUndefined()
  })
})

describe('the path of steps', () => {
  it('tells open, done, stale and skipped apart in words, too', async () => {
    const evidence = { state: 'enough' as const, words: [] }
    const base = { changed: [], reason: '', evidence }
    const w = mount(BenchSteps, {
      props: {
        at: 'sag-rear',
        states: [
          { step: 'who', state: 'done', ...base },
          { step: 'sag-rear', state: 'stale', ...base },
          { step: 'rebound', state: 'skipped', ...base },
          { step: 'save', state: 'open', ...base },
        ],
      },
    })
    expect(w.findAll('li').map((l) => l.find('small').exists() && l.get('small').text())).toEqual([
      'done',
      'check again',
      'skipped',
      false,
    ])
    expect(w.get('[aria-current=step]').text()).toContain('Sag, rear')
    await w.findAll('button')[3].trigger('click')
    expect(w.emitted('go')![0]).toEqual(['save'])
  })
})

describe('words', () => {
  const units = { ...canonicalUnits, ...imperial }
  it('of a stale step name the part, what it was and what it is', () => {
    const change = { fact: 'rear-main-pressure', was: 180, is: 192 }
    expect(factWords(change, canonicalUnits)).toBe('rear pressure: was 180 psi, now 192 psi')
    expect(factWords(change, units)).toBe('rear pressure: was 12.41 bar, now 13.24 bar')
    expect(factWords({ fact: 'front-posture', was: 'seated', is: 'ready' }, units)).toBe(
      'front posture: was seated, now standing ready',
    )
    expect(factWords({ fact: 'front-spacers', was: 1, is: null }, units)).toBe(
      'front spacers: was 1, now not known',
    )
  })
  it('of a weight never say the weight: it may stand on a wall', () => {
    expect(factWords({ fact: 'riding-mass', was: 71, is: 76 }, canonicalUnits)).not.toMatch(/\d/)
  })
  it('of reminders are in the person’s units', () => {
    const r = (kind: Parameters<typeof reminderWords>[0]['kind'], amount: number) =>
      reminderWords({ kind, amount, unitName: null, pressures: [] }, units)
    expect(r('temperature', -12)).toBe('21.6 °F colder than last time')
    expect(r('weeks', 15)).toBe('last set or checked 15 days ago')
    expect(
      reminderWords({ kind: 'height', amount: 600, unitName: null, pressures: [] }, canonicalUnits),
    ).toBe('600 m higher than last time')
    const pressures = [{ end: 'front' as const, readsPsi: 61.3, setPsi: 64.4 }]
    expect(
      reminderWords({ kind: 'temperature', amount: -18, unitName: null, pressures }, canonicalUnits),
    ).toBe('18 °C colder than last time: front reads about 61 psi; for the same sag set 64 psi')
  })
  it('every step names cautions that exist, and every caution of a hazard has a step', () => {
    const placed = new Set(Object.values(cautionsAt).flat())
    for (const key of placed) expect(cautions[key].length).toBeGreaterThan(20)
    for (const key of ['pump', 'maximum', 'lockedSolid', 'trapped', 'unsound', 'rebound', 'tie'] as const)
      expect(placed.has(key), key).toBe(true)
  })
})

describe('a number in the person’s own unit', () => {
  const field = (modelValue: number | null) =>
    mount(NumberField, { props: { modelValue, label: 'Air', quantity: 'pressure' } })
  it('is stored canonically and comes back as typed', async () => {
    useUnits().choose(imperial)
    const w = field(null)
    w.get('input').element.value = '5,6'
    await w.get('input').trigger('change')
    const psi = w.emitted('update:modelValue')![0][0] as number
    expect(psi).toBeCloseTo(81.2211, 3)
    expect(field(psi).get('input').element.value).toBe('5.6')
    expect(field(psi).text()).toContain('bar')
  })
})

describe('starting points', () => {
  it('a copy has ids of its own, and its charts follow their dials', () => {
    const chart = {
      id: 'c',
      adjusterId: 'fr',
      input: 'pressure-psi' as const,
      source: 'leaflet',
      rows: [
        { at: 60, value: 8 },
        { at: 80, value: 6 },
      ],
    }
    const copy = copyOfUnit({ ...fork, charts: [chart], idNote: 'x' })
    expect(copy.id).not.toBe(fork.id)
    expect(copy.version).toBe(0)
    expect(copy.idNote).toBe('')
    const ids = copy.adjusters.map((a) => a.id)
    for (const a of fork.adjusters) expect(ids).not.toContain(a.id)
    expect(copy.adjusters.find((a) => a.id === copy.charts[0].adjusterId)!.role).toBe('rebound')
  })
  it('every template is a sound unit of its end', () => {
    for (const end of ['front', 'rear'] as const)
      for (const template of unitTemplates(end)) expect(template.make().end).toBe(end)
  })
})
