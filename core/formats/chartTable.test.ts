import { describe, expect, it } from 'vitest'
import { lbInToNPerMm } from '../units/convert.ts'
import { parseChartTable, type ChartOutput } from './chartTable.ts'

const read = (
  text: string,
  output: ChartOutput = 'pressure',
  input: 'riding-mass-kg' | 'pressure-psi' = 'riding-mass-kg',
) => parseChartTable(text, input, output, { at: input === 'riding-mass-kg' ? 'kg' : 'psi', value: 'psi' })

describe('a chart that was typed or pasted', () => {
  it('takes plain rows, tabs, semicolons and decimal commas', () => {
    const rows = [
      { at: 60, value: 62.5 },
      { at: 70, value: 71 },
    ]
    expect(read('60 62.5\n70 71')).toEqual(rows)
    expect(read('60\t62,5\r\n70\t71\r\n')).toEqual(rows)
    expect(read('60; 62.5\n\n70; 71\n')).toEqual(rows)
    expect(read('| 60'.slice(2) + ' | 62.5\n70 | 71')).toEqual(rows)
  })
  it('takes units from the heading or from behind the numbers', () => {
    const [a, b] = read('Rider weight (lb), pressure (bar)\n150, 4.5\n170, 5')
    expect(a.at).toBeCloseTo(68.04, 2)
    expect(a.value).toBeCloseTo(65.27, 2)
    expect(b.value).toBeCloseTo(72.52, 2)
    expect(read('150 lbs = 66 psi\n170 lbs = 75 psi')[1].at).toBeCloseTo(77.11, 2)
    expect(read('60 300 lb/in\n70 350 lb/in', 'spring-rate')[0].value).toBeCloseTo(lbInToNPerMm(300), 9)
    expect(read('60 psi: 9 clicks\n80 psi: 7 clicks', 'clicks', 'pressure-psi')).toEqual([
      { at: 60, value: 9 },
      { at: 80, value: 7 },
    ])
  })
  it('a range of weights stands for its middle', () => {
    expect(read('55-59 kg 60\n60 – 64 kg 65')).toEqual([
      { at: 57, value: 60 },
      { at: 62, value: 65 },
    ])
  })
  it.each([
    ['rows out of order', '70 80\n60 70', /Row 2: 60 does not come after 70; sort the rows/],
    [
      'two units in one column',
      '60 kg 62 psi\n150 lb 71 psi',
      /Row 2 is in lb but the rows before are in kg/,
    ],
    [
      'a unit that cannot be',
      '60 psi 62\n70 psi 71',
      /Row 1: the unit psi does not belong here; use kg or lb/,
    ],
    ['words', '60 62\nabout seventy', /Row 2: "about seventy" needs two numbers/],
    ['a third column', '60 62 9\n70 71 8', /Row 1: "60 62 9" needs two numbers/],
    ['one row only', '60 62', /at least two rows/],
    ['nothing', '  \n', /at least two rows/],
  ])('refuses %s, naming the row', (_, text, reason) => {
    expect(() => read(text)).toThrow(reason)
  })
})
