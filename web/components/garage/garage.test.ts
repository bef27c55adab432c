// @vitest-environment happy-dom
import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import type { Chart } from '#contract/chart'
import type { Garage } from '#contract/endpoints'
import { canonicalUnits } from '#core/units/choice'
import { startApp, type TestApp } from '../../../server/test/harness.ts'
import { makeReason, makeSetup, startStory } from '../../../server/test/story.ts'
import { useUnits } from '../../composables/useUnits.ts'
import { openPage } from '../../test/office.ts'
import { useGarage } from '../../stores/garage.ts'
import { newAdjuster, unitTemplates } from '../../support/unitTemplates.ts'
import AdjusterRow from './AdjusterRow.vue'
import AirSpringFields from './AirSpringFields.vue'
import BaselineForm from './BaselineForm.vue'
import ChartEditor from './ChartEditor.vue'
import RecountDialog from './RecountDialog.vue'

const plainInput = {
  props: ['modelValue'],
  emits: ['update:modelValue'],
  template: '<input :value="modelValue" @input="$emit(\'update:modelValue\', $event.target.value)" />',
}
const stubs = {
  BModal: { template: '<div><slot /></div>' },
  BButton: { template: '<button v-bind="$attrs"><slot /></button>' },
  BFormInput: plainInput,
  BFormTextarea: {
    props: ['modelValue'],
    emits: ['update:modelValue'],
    template:
      '<textarea :value="modelValue" @input="$emit(\'update:modelValue\', $event.target.value)"></textarea>',
  },
  BFormSelect: {
    props: ['modelValue', 'options'],
    emits: ['update:modelValue'],
    template:
      '<select :value="modelValue" @change="$emit(\'update:modelValue\', $event.target.value)"><option v-for="o in options" :key="o.value ?? o" :value="o.value ?? o">{{ o.text ?? o }}</option></select>',
  },
  RouterLink: true,
}
const global = { stubs }
afterEach(() => useUnits().choose(canonicalUnits))

describe('makers’ charts', () => {
  const fork = unitTemplates('front')[0].make()
  const editor = () => mount(ChartEditor, { props: { unit: fork, modelValue: [] as Chart[] }, global })
  const add = async (w: ReturnType<typeof editor>, text: string, source = 'leaflet') => {
    await w.get('input').setValue(source)
    await w.get('textarea').setValue(text)
    await w.findAll('button').at(-1)!.trigger('click')
  }
  it('are pasted, in the units of the person where none is written', async () => {
    useUnits().choose({ mass: 'lb', pressure: 'bar' })
    const w = editor()
    await add(w, '150 5.0\n170 5.5')
    const [chart] = w.emitted('update:modelValue')![0][0] as Chart[]
    expect(chart).toMatchObject({
      adjusterId: fork.adjusters[0].id,
      input: 'riding-mass-kg',
      source: 'leaflet',
    })
    expect(chart.rows[0].at).toBeCloseTo(68.04, 2)
    expect(chart.rows[0].value).toBeCloseTo(72.52, 2)
  })
  it.each([
    ['70 80\n60 70', 'leaflet', /sort the rows from light to heavy/],
    ['60 kg 62\n150 lb 71', 'leaflet', /use one unit for a column/],
    ['60 62\n70 71', '', /Say where the chart comes from/],
  ])('what is wrong with %j from %j is said, and nothing is kept', async (text, source, reason) => {
    const w = editor()
    await add(w, text, source)
    expect(w.get('[role=alert]').text()).toMatch(reason)
    expect(w.emitted('update:modelValue')).toBeUndefined()
    expect(w.get('textarea').element.value).toBe(text)
  })
})

describe('the air spring of a unit', () => {
  const fields = (modelValue: null | object = null) =>
    mount(AirSpringFields, {
      props: { end: 'rear', modelValue: modelValue as never, faultOf: () => null },
      global,
    })
  const type = async (w: ReturnType<typeof fields>, i: number, text: string) => {
    w.findAll('input')[i].element.value = text
    await w.findAll('input')[i].trigger('change')
  }
  it('shows the usual figures until one is set; then all are its own', async () => {
    const w = fields()
    expect(w.get('summary').text()).toContain('usual figures')
    expect(w.findAll('input')[0].element.value).toBe('2.6')
    await type(w, 2, '0,5')
    expect(w.emitted('update:modelValue')![0][0]).toMatchObject({
      cr0: 2.6,
      negativeShare: 0.5,
      areaShare: 0.85,
    })
  })
  it('takes the compression ratio from two slow readings', async () => {
    const w = fields()
    await type(w, 6, '100')
    await type(w, 7, '230')
    const button = w.findAll('button').find((b) => b.text().startsWith('Take the measured ratio'))!
    // (230 + 14.7)/(100 + 14.7)
    expect(button.text()).toContain('2.13')
    await button.trigger('click')
    expect(w.emitted('update:modelValue')![0][0]).toMatchObject({ cr0: 2.13 })
  })
})

describe('every kind of adjuster', () => {
  it.each([
    ['click', 'Clicks, stop to stop', { clicks: 7 }],
    ['turn', 'Turns, stop to stop', { turns: 7 }],
    ['turn', 'Smallest step', { stepTurns: 7 }],
    ['pressure', 'Least', { minPsi: 7 }],
    ['pressure', 'Maximum printed on the unit', { maxPsi: 7 }],
    ['spacer', 'Most allowed', { maxCount: 7 }],
    ['custom', 'From', { min: 7 }],
    ['custom', 'To', { max: 7 }],
    ['custom', 'Step', { step: 7 }],
  ] as const)('a %s takes what is typed as “%s”', async (kind, label, change) => {
    const before = newAdjuster(kind, 'front')
    const w = mount(AdjusterRow, { props: { modelValue: before }, global })
    const id = w
      .findAll('label')
      .find((l) => l.text() === label)!
      .attributes('for')
    const input = w.get(`#${id}`)
    ;(input.element as HTMLInputElement).value = '7'
    await input.trigger('change')
    expect(w.emitted('update:modelValue')!.at(-1)).toEqual([{ ...before, ...change }])
  })
  it('a custom one takes what it acts on', async () => {
    const w = mount(AdjusterRow, { props: { modelValue: newAdjuster('custom', 'front') }, global })
    const select = w.findAll('select')[1]
    await select.setValue('geometry')
    expect(w.emitted('update:modelValue')!.at(-1)).toMatchObject([
      { acts: { on: 'geometry', stroke: 'whole' } },
    ])
  })
})

describe('springs that are owned', () => {
  it('are typed and shown in the person’s unit, stored in N/mm', async () => {
    useUnits().choose({ springRate: 'lb/in' })
    const dial = {
      id: 'k',
      alias: null,
      tool: 'workshop',
      kind: 'spring-rate',
      role: 'spring-rate',
      ratesNPerMm: [78.807, 87.563],
    } as Adjuster
    const w = mount(AdjusterRow, { props: { modelValue: dial }, global })
    expect(w.text()).toContain('Springs owned, lb/in')
    expect(w.get('input').element.value).toBe('450 500')
    w.get('input').element.value = '450 550'
    await w.get('input').trigger('change')
    const [set] = w.emitted('update:modelValue')!.at(-1) as [{ ratesNPerMm: number[] }]
    expect(set.ratesNPerMm[1]).toBeCloseTo(96.32, 2)
  })
})

describe('the recount', () => {
  let t: TestApp
  beforeEach(async () => {
    t = await startApp()
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => t.app.request(path, init))
    await openPage()
  })
  afterEach(() => t.store.close())
  it('keeps the counted range on the unit and says where the dial stood', async () => {
    const story = await startStory(t)
    await useGarage().load()
    const dial = story.front.adjusters.find((a) => a.kind === 'click')!
    const w = mount(RecountDialog, {
      props: { open: true, unit: story.front, dial: dial as Extract<Adjuster, { kind: 'click' }> },
      global,
    })
    const go = async (value?: string) => {
      if (value !== undefined) {
        w.get('input').element.value = value
        await w.get('input').trigger('change')
      }
      await w.get('form').trigger('submit')
      await flushPromises()
    }
    await go()
    await go()
    expect(w.text()).toContain('Enter how many clicks it took to close')
    await go('5')
    await go('14')
    expect(w.text()).toContain('Now close it again by 9')
    expect(w.text()).toContain('“5 from closed”')
    await go()
    await vi.waitFor(() => expect(w.emitted('counted')).toEqual([[5]]))
    const { units } = (await t.get('/garage')).body as Garage
    const kept = units.find((u) => u.id === story.front.id)!.adjusters.find((a) => a.id === dial.id)!
    expect(kept).toMatchObject({ clicks: 14, step: 1, countBase: 'closed-0' })
  })
})

describe('what is read off a bike', () => {
  let t: TestApp
  beforeEach(async () => {
    t = await startApp()
    vi.stubGlobal('fetch', (path: string, init?: RequestInit) => t.app.request(path, init))
    localStorage.clear()
    await openPage()
  })
  afterEach(() => (t.store.close(), vi.useRealTimers()))

  const begin = async () => {
    const story = await startStory(t)
    await useGarage().load()
    const bike = useGarage().bike(story.bike.id)!
    const form = () => mount(BaselineForm, { props: { open: true, bike }, global })
    const dial = (end: 'front' | 'rear') => story[end].adjusters.find((a) => a.kind === 'click')!.id
    const read = (w: ReturnType<typeof form>, end: 'front' | 'rear', value: number) =>
      w
        .findAllComponents({ name: 'ClickRail' })
        .find((r) => r.props('adjuster').id === dial(end))!
        .vm.$emit('choose', value)
    const save = async (w: ReturnType<typeof form>) => {
      await w
        .findAll('button')
        .find((b) => b.text() === 'Save what was read')!
        .trigger('click')
      await vi.waitFor(() => expect(w.emitted('update:open')).toEqual([[false]]))
    }
    const onBike = (end: 'front' | 'rear') =>
      useGarage()
        .currentSetup(bike.id)!
        .positions.find((p) => p.adjusterId === dial(end))!
    return { story, form, dial, read, save, onBike }
  }

  it('says nothing of a dial that was turned since it was typed; of the other it says when it was read', async () => {
    const { story, form, dial, read, save, onBike } = await begin()
    vi.useFakeTimers({ toFake: ['Date'], now: new Date('2031-05-03T08:00:00.000Z') })
    const typed = form()
    read(typed, 'front', 3)
    read(typed, 'rear', 4)
    typed.unmount()
    // A week on the rear dial is turned on another device.
    vi.setSystemTime(new Date('2031-05-10T08:00:00.000Z'))
    const now = useGarage().currentSetup(story.bike.id)!
    const positions = now.positions.map((p) =>
      p.adjusterId === dial('rear')
        ? { ...p, value: 9, known: { ...p.known, at: '2031-05-10T07:00:00.000Z' } }
        : p,
    )
    const turned = makeSetup(story.bike, [], {
      parentId: now.id,
      madeAt: '2031-05-10T07:00:00.000Z',
      positions,
      reason: makeReason('own-idea'),
    })
    expect((await t.put(`/setups/${turned.id}`, turned)).status).toBe(200)
    await useGarage().load()

    const w = form()
    expect(w.text()).toContain('One reading of Sat')
    await save(w)
    expect(onBike('rear')).toMatchObject({ value: 9, known: { how: 'set' } })
    expect(onBike('front')).toMatchObject({
      value: 3,
      known: { how: 'read', at: '2031-05-03T08:00:00.000Z' },
    })
    expect(form().text()).not.toContain('left out')
  })

  it('a slip is taken back: the dial is then said by nobody', async () => {
    const { form, read, save, onBike } = await begin()
    const w = form()
    read(w, 'front', 3)
    read(w, 'rear', 4)
    await flushPromises()
    // What is being read is not said to have been set.
    const rails = w.findAllComponents({ name: 'ClickRail' })
    expect(rails.map((r) => (r.props('known') as { how: string }).how)).toEqual(['read', 'read'])
    await w.get('[aria-label^="Not read after all: front"]').trigger('click')
    await save(w)
    expect(onBike('front')).toMatchObject({ value: 6, known: { how: 'set' } })
    expect(onBike('rear')).toMatchObject({ value: 4, known: { how: 'read' } })
  })
})
