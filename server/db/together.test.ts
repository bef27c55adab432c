import { describe, expect, it } from 'vitest'
import { Together } from './together.ts'
import { WriteQueue } from './writeQueue.ts'

/** Rows that are written if they are even; what each step was given is kept. */
function evenOnes() {
  const steps: number[][] = []
  const together = new Together<number, string>(new WriteQueue(), async (rows) => {
    steps.push(rows)
    if (rows.includes(666)) throw new Error('the disk is full')
    return new Map(rows.filter((r) => r % 2 === 0).map((r) => [`key ${r}`, `row ${r}`]))
  })
  return { steps, add: (row: number, key = `key ${row}`) => together.add(key, row) }
}

describe('rows that wait for the same turn', () => {
  it('are written in one step; each is told what became of it', async () => {
    const { steps, add } = evenOnes()
    expect(await Promise.all([add(2), add(3), add(4)])).toEqual(['row 2', null, 'row 4'])
    expect(steps).toEqual([[2, 3, 4]])
  })
  it('that come while a step is written go with the next', async () => {
    const steps: number[][] = []
    let late: Promise<number | null> | undefined
    const together = new Together<number, number>(new WriteQueue(), async (rows) => {
      steps.push(rows)
      late ??= together.add('late', 4)
      return new Map(rows.map((r) => [r === 4 ? 'late' : 'early', r]))
    })
    expect(await together.add('early', 2)).toBe(2)
    expect(await late).toBe(4)
    expect(steps).toEqual([[2], [4]])
  })
  it('of one key never go together: the second is looked at by itself', async () => {
    const { steps, add } = evenOnes()
    expect(await Promise.all([add(2, 'key 2'), add(4, 'key 2')])).toEqual(['row 2', null])
    expect(steps).toEqual([[2]])
  })
  it('are a hundred at most; the others have a turn of their own', async () => {
    const { steps, add } = evenOnes()
    const rows = Array.from({ length: 230 }, (_, i) => 2 * i)
    expect(await Promise.all(rows.map((r) => add(r)))).toEqual(rows.map((r) => `row ${r}`))
    expect(steps.map((s) => s.length)).toEqual([100, 100, 30])
  })
  it('fail together, and whoever comes later does not', async () => {
    const { add } = evenOnes()
    const failed = await Promise.allSettled([add(666), add(2)])
    expect(failed.map((f) => f.status)).toEqual(['rejected', 'rejected'])
    expect(await add(4)).toBe('row 4')
  })
})
