// @vitest-environment happy-dom
import { mount, type DOMWrapper } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { analysisWith } from '#core/test/dayBuilder'
import BandStrip from './trace/BandStrip.vue'
import EffectBar from './compare/EffectBar.vue'
import EvidencePanel from './trace/EvidencePanel.vue'
import MappingTable from './importing/MappingTable.vue'
import NumberField from './shell/NumberField.vue'

describe('a number field', () => {
  const type = async (text: string) => {
    const w = mount(NumberField, { props: { modelValue: 1, label: 'Air', unit: '°C' } })
    w.get('input').element.value = text
    await w.get('input').trigger('change')
    return w.emitted('update:modelValue')!.at(-1)![0]
  }
  it('takes a comma or a point, and empty is nothing', async () => {
    expect(await type('5,5')).toBe(5.5)
    expect(await type(' 5.5 ')).toBe(5.5)
    expect(await type('')).toBeNull()
  })
  it('says when it is no number, and does not pass it off as one', async () => {
    expect(await type('five')).toBeNaN()
    expect(mount(NumberField, { props: { modelValue: NaN, label: 'Air' } }).text()).toContain(
      'Enter a number.',
    )
  })
  it('keeps what is being typed while another number comes in, and takes it when the field is left', async () => {
    for (const leave of ['change', 'blur']) {
      const w = mount(NumberField, { props: { modelValue: null, label: 'Riding weight there' } })
      const field = w.get('input')
      field.element.value = '82'
      await field.trigger('input')
      await w.setProps({ modelValue: 78 })
      expect(field.element.value).toBe('82')
      await field.trigger(leave)
      expect(w.emitted('update:modelValue')).toEqual([[82]])
    }
  })
  it('shows the number that comes in once nobody types', async () => {
    const w = mount(NumberField, { props: { modelValue: 3, label: 'Air' } })
    const field = w.get('input')
    field.element.value = '5'
    await field.trigger('input')
    await field.trigger('change')
    await field.trigger('blur')
    expect(w.emitted('update:modelValue')).toEqual([[5]])
    await w.setProps({ modelValue: 7 })
    expect(field.element.value).toBe('7')
  })
  it('ties label, unit and fault to the field', () => {
    const w = mount(NumberField, {
      props: { modelValue: 3, label: 'Front tyre', unit: 'psi', fault: 'Too little.' },
    })
    expect(w.get('label').attributes('for')).toBe(w.get('input').attributes('id'))
    expect(w.text()).toContain('psi')
    expect(w.get(`#${w.get('input').attributes('aria-describedby')}`).text()).toBe('Too little.')
  })
})

describe('a band strip', () => {
  it('is as wide as its shares and writes figures only where they fit', () => {
    const w = mount(BandStrip, { props: { end: 'rear', shares: [0.5, 0.45, 0.05], names: ['a', 'b', 'c'] } })
    const spans = w.findAll('.strip > span')
    expect(spans.map((s) => s.text())).toEqual(['50%', '45%', ''])
    expect(spans[1].attributes('style')).toContain('45%')
  })
  it('is readable without seeing it', () => {
    const label = mount(BandStrip, {
      props: { end: 'front', shares: [0.25, 0.75], names: ['0 to 15 % deep', '15 to 30 % deep'] },
    })
      .get('[role=img]')
      .attributes('aria-label')
    expect(label).toBe('front: 0 to 15 % deep: 25.0 % of the time, 15 to 30 % deep: 75.0 % of the time')
  })
})

describe('the effect bar', () => {
  const bar = (effect: number, low80: number, high80: number) =>
    mount(EffectBar, { props: { effect: { effect, low80, high80, probability: 0.8 } } })
  it('puts no difference in the middle and grows with the interval', () => {
    expect(bar(0, -0.4, 0.4).get('.point').attributes('style')).toContain('50.00%')
    expect(bar(1, 0.4, 1.6).text()).toContain('B better, 2 points')
    expect(bar(3, 0.5, 5.2).text()).toContain('B better, 6 points')
  })
  it('says effect and interval in words', () => {
    expect(bar(1.04, 0.4, 1.6).get('[role=img]').attributes('aria-label')).toBe(
      'Effect +1.0 rating points, 80 percent interval +0.4 to +1.6',
    )
  })
})

describe('the evidence panel', () => {
  it('says what a ride has too little of, and for what', () => {
    const text = mount(EvidencePanel, {
      props: {
        analysis: analysisWith({ bigHits: 1, hits: 60 }, { bigHits: 0, hits: 50 }),
        wrongDepths: [],
      },
    }).text()
    expect(text).toContain('60: enough for return speed by depth')
    expect(text).toContain('1 of 4: too few yet to judge ramp and high-speed compression; ride square edges')
  })
  it('says that hits told by depths of a moved zero count for nothing', () => {
    const text = mount(EvidencePanel, {
      props: {
        analysis: analysisWith({ bigHits: 9, hits: 60 }, { bigHits: 9, hits: 50 }),
        wrongDepths: ['front', 'rear'],
      },
    }).text()
    expect(text).not.toContain('enough for return speed by depth')
    expect(text).toContain('told by depths, which count for nothing here: nothing yet to judge ramp')
  })
})

describe('the mapping table', () => {
  const look = {
    layout: {
      delimiter: ',' as const,
      decimal: '.' as const,
      skipBytes: 0,
      firstRowLine: 2,
      headerLine: 'a,b',
      quote: '"' as const,
      dateOrder: null,
      columns: [
        { name: 'a', role: 'time' as const, unit: 's' as const },
        { name: 'b', role: 'front-travel' as const, unit: 'mm' as const },
      ],
    },
    fingerprintBytes: null,
    encoding: 'ASCII' as const,
    rows: [
      [0, 12.3456789],
      [0.005, NaN],
    ],
  }
  const mapping = {
    delimiter: ',' as const,
    decimal: '.' as const,
    sampleRateHz: null,
    columns: [
      { column: 0, role: 'time' as const, unit: 's' as const, calibration: null },
      { column: 1, role: 'front-travel' as const, unit: 'mm' as const, calibration: null },
    ],
  }
  const select = {
    props: ['modelValue', 'options'],
    emits: ['update:modelValue'],
    template:
      '<select :aria-label="$attrs[\'aria-label\']" @change="$emit(\'update:modelValue\', $event.target.value)"><option v-for="o in options" :key="o.value" :value="o.value">{{ o.text }}</option></select>',
  }
  const table = (m: object = mapping) =>
    mount(MappingTable, {
      props: { look, strokes: { front: 150, rear: 55 }, modelValue: m as typeof mapping },
      global: { stubs: { BFormSelect: select } },
    })
  const last = (w: ReturnType<typeof table>) => w.emitted('update:modelValue')!.at(-1)![0] as typeof mapping
  const type = async (field: DOMWrapper<Element>, text: string) => {
    ;(field.element as HTMLInputElement).value = text
    await field.trigger('change')
  }
  it('shows the first rows, and a dot where a cell is empty', () => {
    expect(table().text()).toContain('12.346')
    expect(table().text()).toContain('·')
  })
  it('raw readings ask for their two calibration points', async () => {
    const w = table()
    await w.get('select[aria-label="Unit of b"]').setValue('raw')
    expect(last(w).columns[1]).toMatchObject({ unit: 'raw', calibration: null })
    const raw = table(last(w))
    expect(raw.text()).toContain('Reading, fully extended')
    const fields = raw.findAll('.calibration input')
    // Nobody has read them yet; the stroke is known from the garage.
    expect(fields.map((f) => (f.element as HTMLInputElement).value)).toEqual(['', '0', '', '150'])
    await type(fields[0], '118')
    expect(raw.emitted('update:modelValue')).toBeUndefined()
    await type(fields[2], '3960')
    expect(last(raw).columns[1].calibration).toEqual({
      extendedReading: 118,
      compressedReading: 3960,
      compressedMm: 150,
    })
    // One that is emptied again takes the calibration back.
    await raw.setProps({ modelValue: last(raw) })
    await type(fields[2], '')
    expect(last(raw).columns[1].calibration).toBeNull()
  })
  it('a column that is not used asks for nothing, whatever it is measured in', () => {
    const [time, travel] = mapping.columns
    const volts = { ...mapping, columns: [time, { ...travel, role: 'ignore', unit: 'raw' }] }
    expect(table(volts).findAll('.calibration input')).toHaveLength(0)
  })
  it('a pressure column has no calibration until ratio and baseline are typed, or enough depths are', async () => {
    const w = table()
    await w.get('select[aria-label="What b is"]').setValue('front-pressure')
    expect(last(w).columns[1]).toMatchObject({ unit: 'psi', calibration: null })
    const p = table(last(w))
    const [ratio, baseline] = p.findAll('.calibration input')
    expect((ratio.element as HTMLInputElement).value + (baseline.element as HTMLInputElement).value).toBe('')
    await type(ratio, '2.3')
    expect(p.emitted('update:modelValue')).toBeUndefined()
    await type(baseline, '84')
    expect(last(p).columns[1].calibration).toEqual({ compressionRatio: 2.3, baselinePsi: 84 })
  })
  it('without a time column it asks for the sample rate', async () => {
    expect(table().text()).not.toContain('Sample rate')
    const w = table()
    await w.get('select[aria-label="What a is"]').setValue('ignore')
    expect(table(last(w)).text()).toContain('Sample rate')
  })
  it('another role brings its own first unit', async () => {
    const w = table()
    await w.get('select[aria-label="What b is"]').setValue('speed')
    expect(last(w).columns[1]).toMatchObject({ role: 'speed', unit: 'm/s', calibration: null })
  })
})
