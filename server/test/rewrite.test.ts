import { mkdtempSync, readFileSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, describe, expect, it } from 'vitest'
import type { Rider } from '#contract/rider'
import { rewriteFile } from '../db/rewriteFile.ts'
import type { Rewriter } from '../db/open.ts'
import { startApp, type TestApp } from './harness.ts'
import { makeRider } from './story.ts'

let t: TestApp
afterEach(() => t.store.close())

/** An application whose file is written anew by other means. */
async function appWith(rewriter: Rewriter) {
  t = await startApp(mkdtempSync(join(tmpdir(), 'wild-spring-anew-')), [], undefined, rewriter)
  const saved = async (rider: Rider) => {
    const { status, body } = await t.put(`/riders/${rider.id}`, rider)
    expect(status).toBe(200)
    return body as Rider
  }
  const gone = await saved(makeRider({ name: 'Quendolin' }))
  const stays = await saved(makeRider({ name: 'Barnabry' }))
  const erase = () => t.put(`/riders/${gone.id}/erasure`, { name: 'Quendolin', alsoCopies: false })
  return { gone, stays, erase }
}
const inFile = (word: string) =>
  ['', '-wal'].some((end) => readFileSync(join(t.dir, `test.sqlite${end}`)).includes(word))

describe('the data file is written anew', () => {
  it('while others read on; who writes comes after it, and is not lost', async () => {
    const order: string[] = []
    let written: Promise<unknown> = Promise.resolve()
    const { stays, erase } = await appWith(async (file) => {
      order.push(`read ${(await t.get('/garage')).status}`)
      written = t
        .put(`/riders/${stays.id}`, { ...stays, note: 'said meanwhile' })
        .then(({ status }) => order.push(`written ${status}`))
      await rewriteFile(file)
      order.push('anew')
    })
    expect((await erase()).status).toBe(200)
    await written
    expect(order).toEqual(['read 200', 'anew', 'written 200'])
    expect(inFile('Quendolin')).toBe(false)
    expect(JSON.stringify((await t.get('/garage')).body)).toContain('said meanwhile')
  })
  it('and leaves nothing beside it', async () => {
    const { erase } = await appWith(rewriteFile)
    await erase()
    expect(statSync(join(t.dir, 'test.sqlite-wal')).size).toBe(0)
    const [[found]] = (await t.store.client.execute('PRAGMA integrity_check')).rows.map(Object.values)
    expect(found).toBe('ok')
  })
  it('or it is said that it was not, with the way out; what was erased is gone from the data', async () => {
    const { gone, stays, erase } = await appWith(() => Promise.reject(new Error('database or disk is full')))
    const told: string[] = []
    t.events.on((e) => void told.push(e.type))
    const { status, body } = await erase()
    // No page may go on showing who is gone.
    expect(told).toContain('forgotten')
    expect(told).toContain('stale')
    expect(status).toBe(409)
    expect(body).toMatchObject({ code: 'storage.busy' })
    expect(JSON.stringify(body)).toMatch(/erased from the data.*disk is full/)
    const garage = JSON.stringify((await t.get('/garage')).body)
    expect(garage).not.toContain(gone.id)
    expect(garage).toContain(stays.id)
    // A name that is not theirs erases nobody, and nobody is told that somebody was.
    told.length = 0
    expect(
      (await t.put(`/riders/${stays.id}/erasure`, { name: 'Quendolin', alsoCopies: false })).status,
    ).toBe(422)
    expect(told).not.toContain('forgotten')
    // The next write is taken as ever.
    expect((await t.put(`/riders/${stays.id}`, { ...stays, note: 'after' })).status).toBe(200)
  })
})
