import { describe, expect, it } from 'vitest'
import type { Adjuster } from '#contract/adjuster'
import { Setup } from '#contract/setup'
import type { SuspensionUnit } from '#contract/unit'
import type { ColumnUse } from './column.ts'
import { asDial, guessColumns } from './columns.ts'
import { dateOrderOf, readDate } from './dates.ts'
import { readNotebook } from './read.ts'
import { recordsOf } from './records.ts'
import { readValue } from './values.ts'

const base = { alias: null, tool: 'hand' as const }
const id = (n: number) => `018f0000-0000-7000-8000-${String(n).padStart(12, '0')}`
const click = (
  n: number,
  role: 'rebound' | 'low-speed-compression' | 'high-speed-compression',
  clicks = 14,
  over = {},
) =>
  ({ ...base, id: id(n), kind: 'click', role, clicks, step: 1, countBase: 'closed-0', ...over }) as Adjuster
const psi = (n: number): Adjuster => ({
  ...base,
  id: id(n),
  kind: 'pressure',
  role: 'main-pressure',
  minPsi: 40,
  maxPsi: 300,
  stepPsi: 1,
})
const unit = (end: 'front' | 'rear', adjusters: Adjuster[]) =>
  ({ id: id(end === 'front' ? 90 : 91), end, adjusters }) as unknown as SuspensionUnit
const lever: Adjuster = {
  ...base,
  id: id(8),
  kind: 'lever',
  role: 'lever',
  positions: ['Open', 'Trail', 'Firm'],
}
const spring: Adjuster = {
  ...base,
  id: id(9),
  kind: 'spring-rate',
  role: 'spring-rate',
  ratesNPerMm: [79, 88, 96],
}
const fork = unit('front', [
  psi(1),
  { ...base, id: id(2), kind: 'spacer', role: 'spacers', maxCount: 4 },
  click(3, 'low-speed-compression', 16),
  click(4, 'high-speed-compression', 8),
  click(5, 'rebound', 14),
])
const shock = unit('rear', [psi(6), click(7, 'rebound', 14, { alias: 'Red knob' }), lever, spring])
const bike = [fork, shock]
const nameOf = (c: ColumnUse) => (c.use === 'dial' ? `${c.end} ${Number(c.adjusterId.slice(-2))}` : c.use)

describe('what a heading means', () => {
  // Headings of tables that people keep.
  it.each([
    ['Date', 'date'],
    ['Day ridden', 'date'],
    ['Setup name', 'name'],
    ['Trail / spot', 'place'],
    ['Comments', 'note'],
    ['Shock Note', 'note'],
    ['How it felt', 'note'],
    ['Fork psi', 'front 1'],
    ['FORK AIR (bar)', 'front 1'],
    ['Front pressure', 'front 1'],
    ['fork spacers', 'front 2'],
    ['Rear reb clicks in', 'rear 7'],
    ['Fork LSC (16)', 'front 3'],
    ['F LSC', 'front 3'],
    ['Fork low speed comp', 'front 3'],
    ['Fork compression', 'front 3'],
    ['front_hsc', 'front 4'],
    ['HSC', 'front 4'],
    ['Fork reb (clicks out)', 'front 5'],
    ['FR', 'front 5'],
    ['front rebound', 'front 5'],
    ['Rear psi', 'rear 6'],
    ['shock air', 'rear 6'],
    ['rr', 'rear 7'],
    ['Rear Reb', 'rear 7'],
    ['red knob', 'rear 7'],
    ['Lever', 'rear 8'],
    ['coil', 'rear 9'],
    // Of which end, nobody said.
    ['Rebound', 'ignore'],
    ['psi', 'ignore'],
    // This bike has none.
    ['rear HSC', 'ignore'],
    ['Weight', 'ignore'],
    ['', 'ignore'],
  ])('"%s" is %s', (heading, means) => {
    expect(guessColumns([heading], [['7']], bike).map(nameOf)).toEqual([means])
  })
  it('one dial is one column, and one day one day', () => {
    expect(guessColumns(['Date', 'Date edited', 'fork reb', 'front rebound'], [], bike).map(nameOf)).toEqual([
      'date',
      'ignore',
      'front 5',
      'ignore',
    ])
  })
  it('a column without a heading whose cells are days is the day', () => {
    const rows = [
      ['3.4.2024', '80'],
      ['', '81'],
    ]
    expect(guessColumns(['Column 1', 'Column 2'], rows, bike).map(nameOf)).toEqual(['date', 'ignore'])
  })
  it('where it is counted from, and in what unit, comes from the heading, else from the dial and the numbers', () => {
    const [front] = guessColumns(['fork reb from open'], [['3']], bike)
    expect(front).toMatchObject({ base: 'open' })
    expect(asDial('front', click(5, 'rebound', 14), 'reb (clicks in)', ['3'])).toMatchObject({ base: 'open' })
    expect(asDial('front', click(5, 'rebound', 14), 'rebound in clicks', ['3'])).toMatchObject({
      base: 'closed-0',
    })
    expect(
      asDial('front', click(5, 'rebound', 14, { countBase: 'open' }), 'reb out of 14', ['3']),
    ).toMatchObject({ base: 'open' })
    expect(asDial('front', click(5, 'rebound', 14, { countBase: 'closed-1' }), 'reb', ['3'])).toMatchObject({
      base: 'closed-1',
    })
    expect(asDial('front', psi(1), 'Fork', ['5,4', '5.6'])).toMatchObject({ pressure: 'bar' })
    expect(asDial('front', psi(1), 'Fork', ['78', '80'])).toMatchObject({ pressure: 'psi' })
    expect(asDial('front', psi(1), 'Fork kPa', ['540'])).toMatchObject({ pressure: 'kPa' })
    expect(asDial('rear', spring, 'Spring', ['450', '500'])).toMatchObject({ rate: 'lb/in' })
    expect(asDial('rear', spring, 'Spring', ['79'])).toMatchObject({ rate: 'N/mm' })
  })
})

describe('what a cell means', () => {
  const column = (a: Adjuster, over: object = {}) =>
    ({ ...asDial('front', a, '', []), ...over }) as ColumnUse & { use: 'dial' }
  const rebound = click(5, 'rebound', 14)
  const turns = {
    ...base,
    id: id(10),
    kind: 'turn',
    role: 'preload',
    turns: 4,
    stepTurns: 0.25,
    countBase: 'closed-0',
  } as Adjuster
  it.each<[string, Adjuster, object, number | null | RegExp]>([
    ['8', rebound, {}, 8],
    [' 8 clicks', rebound, {}, 8],
    ['8 out', rebound, { base: 'open' }, 8],
    ['8 from open', rebound, {}, 6],
    ['8', rebound, { base: 'open' }, 6],
    ['8', rebound, { base: 'closed-1' }, 7],
    ['15', rebound, {}, /^Front rebound goes from 0 clicks to 14 clicks; “15” is no place it can stand\.$/],
    ['8.5', rebound, {}, /no place/],
    ['eight', rebound, {}, /no number/],
    ['', rebound, {}, null],
    ['-', rebound, {}, null],
    ['?', rebound, {}, null],
    ['n/a', rebound, {}, null],
    ['0', rebound, {}, 0],
    ['80', psi(1), {}, 80],
    ['80psi', psi(1), { pressure: 'bar' }, 80],
    ['5,5 bar', psi(1), {}, 79.77],
    ['5.5', psi(1), { pressure: 'bar' }, 79.77],
    ['550', psi(1), { pressure: 'kPa' }, 79.77],
    ['8', psi(1), {}, /Front pressure goes from 40 psi to 300 psi/],
    ['firm', lever, {}, 2],
    ['Lockout', lever, {}, /none of Open, Trail, Firm/],
    ['450', spring, { rate: 'lb/in' }, 79],
    ['450 lbs', spring, {}, 79],
    ['88', spring, {}, 88],
    ['600 lbs', spring, {}, /no place/],
    // Of how many: as people note it.
    ['8/14', rebound, {}, 8],
    ['8 of 14', rebound, { base: 'open' }, 6],
    ['8 out of 14', rebound, { base: 'open' }, 6],
    ['8/20', rebound, {}, /“8\/20” counts 20 clicks; this dial has 14/],
    ['8 in', rebound, {}, 6],
    ['8 clicks in', rebound, {}, 6],
    ['3 clicks from fully closed', rebound, { base: 'open' }, 3],
    ['closed', rebound, {}, 0],
    ['fully open', rebound, { base: 'open' }, 14],
    ['all the way in', rebound, {}, 0],
    ['none', { ...base, id: id(2), kind: 'spacer', role: 'spacers', maxCount: 4 } as Adjuster, {}, 0],
    ['80 psi cold', psi(1), { pressure: 'bar' }, 80],
    ['5,5bar (shop)', psi(1), {}, 79.77],
    ['80 psi @ 21°C', psi(1), {}, 80],
    ['450x2.5', spring, { rate: 'lb/in' }, 79],
    ['450 x 65', spring, { rate: 'lb/in' }, 79],
    ['1/2', turns, {}, 0.5],
    ['1 1/2', turns, {}, 1.5],
    ['1½', turns, {}, 1.5],
    ['¾ turn', turns, {}, 0.75],
    // Two numbers are no place, and a step is none: neither is chosen for anybody.
    ['8-9', rebound, {}, /“8-9” has two numbers/],
    ['8 or 9', rebound, {}, /two numbers/],
    ['8 -> 7', rebound, {}, /two numbers/],
    ['8 (was 6)', rebound, {}, /two numbers/],
    ['80/82', psi(1), {}, /two numbers/],
    ['80 cold, 84 hot', psi(1), {}, /two numbers/],
    ['+2', rebound, {}, /“\+2” is a step/],
    ['+2 psi', psi(1), {}, /is a step/],
    ['-8', rebound, {}, /is a step/],
    ['2 slower', rebound, {}, /is a step/],
    ['1 firmer', rebound, {}, /is a step/],
    [
      '1 spacer more',
      { ...base, id: id(2), kind: 'spacer', role: 'spacers', maxCount: 4 } as Adjuster,
      {},
      /is a step/,
    ],
  ])('"%s" of %o %o', (cell, a, over, means) => {
    const read = readValue(cell, a, column(a, over))
    if (means === null) expect(read).toBeNull()
    else if (means instanceof RegExp)
      expect(read).toMatchObject({ fault: expect.stringMatching(means) as string })
    else expect((read as { value: number }).value).toBeCloseTo(means, 2)
  })
})

describe('days', () => {
  it.each([
    ['2024-05-12', '2024-05-12'],
    ['2024/5/2', '2024-05-02'],
    ['2024-05-12 14:30', '2024-05-12'],
    ['12.5.2024', '2024-05-12'],
    ['12/05/24', '2024-05-12'],
    ['12 May 2024', '2024-05-12'],
    ['Sun, 12 May 2024', '2024-05-12'],
    ['12th May 24', '2024-05-12'],
    ['Sun 12.5.24', '2024-05-12'],
    ['So., 12.05.2024', '2024-05-12'],
    ['12. Mai 2024', '2024-05-12'],
    ['3 octobre 2023', '2023-10-03'],
    ['3. Dez. 2023', '2023-12-03'],
    ['12 de agosto de 2024', '2024-08-12'],
    ['12 maggio 2024', '2024-05-12'],
    ['12 Mumble 2024', null],
    ['May 12, 2024', '2024-05-12'],
    ['31.02.2024', null],
    ['29.02.2023', null],
    ['29.02.2024', '2024-02-29'],
    ['May 2024', null],
    ['yesterday', null],
    ['45000', null],
  ])('%s is %s', (cell, day) => expect(readDate(cell, 'dmy')).toBe(day))
  it('which comes first is known by a day above 12, and else it is asked', () => {
    expect(dateOrderOf(['3/4/2024', '13/4/2024'])).toBe('dmy')
    expect(dateOrderOf(['3/4/2024', '4/13/2024'])).toBe('mdy')
    expect(dateOrderOf(['3/4/2024', '5/6/2024'])).toBe('unclear')
    expect(dateOrderOf(['4/4/2024'])).toBe('dmy')
    expect(dateOrderOf(['2024-04-03'])).toBeNull()
    // Both cannot hold: neither is chosen for anybody.
    expect(dateOrderOf(['13/4/2024', '4/13/2024'])).toBe('unclear')
    expect(readDate('3/4/2024', 'mdy')).toBe('2024-03-04')
  })
})

describe('a table', () => {
  const header = ['Date', 'Fork psi', 'fork reb', 'Place', 'Note']
  const columns = guessColumns(header, [], bike)
  const read = (rows: string[][], noDate: string | null = null) =>
    readNotebook(
      rows,
      rows.map((_, i) => i + 2),
      columns,
      bike,
      'dmy',
      noDate,
    )
  it('a row is whole or left out, with the reason; nothing comes from the row above', () => {
    const rows = read([
      ['12.5.2024', '80', '6', 'Larch Bank', 'good'],
      ['', '81', '6', '', ''],
      ['13.5.2024', '81', '60', '', ''],
      ['14.5.2024', '', '?', '', 'only words'],
      ['', '', '', '', ''],
      ['15.5.2024', '', '7', '', ''],
    ])
    expect(rows.map((r) => [r.line, r.faults.map((f) => f.split(';')[0])])).toEqual([
      [2, []],
      [3, ['It has no day.']],
      [4, ['Front rebound goes from 0 clicks to 14 clicks']],
      [5, ['There is no setting in it.']],
      [7, []],
    ])
    // The pressure of the row before is not that of this one.
    expect(rows.at(-1)!.positions.map((p) => p.value)).toEqual([7])
    expect(read([['', '81', '6', '', '']], '2024-06-01')[0]).toMatchObject({ date: '2024-06-01', faults: [] })
  })
  it('becomes setups by day, oldest first, that nobody here has read or set', () => {
    let n = 100
    const noted = recordsOf(
      read([
        ['20.6.2024', '82', '7', '', 'later'],
        ['12.5.2024', '80', '6', 'Larch Bank', 'first'],
        ['never', '80', '6', '', ''],
      ]),
      { id: id(50), frontUnitId: fork.id, rearUnitId: shock.id },
      'settings.csv',
      () => id(n++),
      '2031-05-02T12:00:00.000Z',
    )
    const { setups, kept } = noted
    expect(setups.map((s) => [s.madeAt.slice(0, 10), s.name, s.reason.text])).toEqual([
      ['2024-05-12', 'Larch Bank', 'first'],
      ['2024-06-20', '2024-06-20', 'later'],
    ])
    expect(setups.map((s) => s.parentId)).toEqual([null, setups[0].id])
    expect(setups.flatMap((s) => s.positions.map((p) => p.known.how))).toEqual(Array(4).fill('assumed'))
    expect(setups[0].positions[0].known.source).toBe('noted in settings.csv, line 3')
    expect(kept.map((k) => k.id)).toEqual(setups.map((s) => s.id))
    for (const s of setups) expect(Setup.safeParse(s).success).toBe(true)
  })
})
