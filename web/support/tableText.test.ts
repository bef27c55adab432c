import { describe, expect, it } from 'vitest'
import { readTable, textOf } from './tableText.ts'

describe('a table out of text', () => {
  it('has a heading where its first line holds no number and no day', () => {
    expect(readTable('Date\tFork psi\n3.4.2024\t80')).toEqual({
      header: ['Date', 'Fork psi'],
      rows: [['3.4.2024', '80']],
      lines: [2],
      hasHeading: true,
    })
    expect(readTable('3.4.2024;80\n4.4.2024;81')).toMatchObject({
      header: ['Column 1', 'Column 2'],
      lines: [1, 2],
      hasHeading: false,
    })
  })
  it('says the line that a row stands in, whatever is empty above it', () => {
    expect(readTable('Date,Fork psi\n\n3.4.2024,80\n,\n4.4.2024,81')).toMatchObject({
      rows: [
        ['3.4.2024', '80'],
        ['4.4.2024', '81'],
      ],
      lines: [3, 5],
    })
  })
  it('leaves out a title above it', () => {
    expect(readTable('My settings,,\n\nDate,Fork psi,Note\n3.4.2024,80,good')).toMatchObject({
      header: ['Date', 'Fork psi', 'Note'],
      lines: [4],
    })
  })
  it('reads a heading in two lines, where a cell that spans several stands over its parts', () => {
    const text = ',Fork,,,Shock,,\nDate,psi,reb,LSC,psi,reb,Note\n3.4.2024,80,6,9,180,7,good'
    expect(readTable(text)?.header).toEqual([
      'Date',
      'Fork psi',
      'Fork reb',
      'Fork LSC',
      'Shock psi',
      'Shock reb',
      'Shock Note',
    ])
    expect(readTable(text)?.rows).toEqual([['3.4.2024', '80', '6', '9', '180', '7', 'good']])
    expect(readTable('Date,Fork,,Note\n,psi,reb,\n3.4.2024,80,6,good')?.header).toEqual([
      'Date',
      'Fork psi',
      'Fork reb',
      'Note',
    ])
  })
  it('a first row of words alone is no second heading', () => {
    const text = 'Date,Fork psi,Note\n?,not read,good\n3.4.2024,80,good'
    expect(readTable(text)).toMatchObject({ header: ['Date', 'Fork psi', 'Note'], lines: [2, 3] })
  })
  it('tabs, commas, semicolons, quotes and a byte order mark', () => {
    const want = { header: ['date', 'fork psi'], rows: [['12.5.2024', '5,5']], lines: [2], hasHeading: true }
    for (const text of [
      'date\tfork psi\n12.5.2024\t5,5\n',
      '\uFEFFdate;fork psi\r\n12.5.2024;5,5\r\n',
      'date,fork psi\n12.5.2024,"5,5"\n\n',
    ])
      expect(readTable(text), text).toEqual(want)
  })
  it('a first line of numbers is no heading, unless somebody says so', () => {
    expect(readTable('2024-05-12\t80\n2024-05-13\t81')).toMatchObject({
      header: ['Column 1', 'Column 2'],
      hasHeading: false,
      rows: [
        ['2024-05-12', '80'],
        ['2024-05-13', '81'],
      ],
    })
    expect(readTable('2024\t2025\n80\t81', true)).toMatchObject({
      header: ['2024', '2025'],
      rows: [['80', '81']],
    })
  })
  it('short rows leave their last columns empty, long ones make a column', () => {
    expect(readTable('date\tpsi\n2024-05-12\n2024-05-13\t80\tmore')?.header).toEqual([
      'date',
      'psi',
      'Column 3',
    ])
  })
  it.each(['', '\n\n', 'just a sentence', '12\n13\n14'])('no table: %j', (text) =>
    expect(readTable(text)).toBeNull(),
  )
})

describe('the text of a file', () => {
  const table = 'Tag\tFork psi\tNotiz\n3.4.2024\t80\tnaß, Größe'
  const utf16 = (little: boolean) => {
    const bytes = new DataView(new ArrayBuffer(2 * table.length + 2))
    ;['\uFEFF', ...table].forEach((c, i) => bytes.setUint16(2 * i, c.charCodeAt(0), little))
    return new Uint8Array(bytes.buffer)
  }
  it.each([
    ['UTF-8', new TextEncoder().encode(table)],
    ['UTF-8 with its mark', new TextEncoder().encode(`\uFEFF${table}`)],
    ['UTF-16, as a spreadsheet saves “Unicode text”', utf16(true)],
    ['UTF-16, the other way round', utf16(false)],
    ['what older ones write', Uint8Array.from(table, (c) => c.charCodeAt(0))],
  ])('is read from %s', (_, bytes) => {
    expect(readTable(textOf(bytes))).toEqual(readTable(table))
  })
})
