import { describe, expect, it } from 'vitest'
import { readDelimited, type DelimitedOptions } from './delimited.ts'
import { readOnce } from './readOnce.ts'

const bytes = new TextEncoder().encode('t,a,b\n0,1,10\n1,2,20\n2,3,30\n')
const options = (columns: number[]): DelimitedOptions => ({
  delimiter: ',',
  decimal: '.',
  skipBytes: 0,
  firstRowLine: 2,
  columns,
  clockColumn: 0,
})
const tables = (columns: number[][]) => {
  const read = readOnce(bytes)
  return columns.map((c) => read(bytes, options(c)))
}

describe('a file that is mapped again and again', () => {
  it('is read once for the same columns, whatever they mean', () => {
    const [a, b] = tables([
      [0, 1],
      [0, 1],
    ])
    expect(b).toBe(a)
  })
  it('is read anew for other columns, and the table is the one a fresh reading gives', () => {
    const [a, b, c] = tables([
      [0, 1],
      [0, 2],
      [0, 1],
    ])
    expect(b).not.toBe(a)
    expect(b).toEqual(readDelimited(bytes, options([0, 2])))
    expect(c).toEqual(a)
  })
  it('never answers for another file', () => {
    expect(() => readOnce(bytes)(new Uint8Array(bytes), options([0]))).toThrow(/another file/)
  })
})
