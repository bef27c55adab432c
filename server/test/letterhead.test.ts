import { crc32, deflateSync } from 'node:zlib'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { letterheadId, type Letterhead } from '#contract/letterhead'
import { drawPdf } from '../../e2e/pdfPicture.ts'
import type { LiveEvent } from '../events.ts'
import { startApp, type TestApp } from './harness.ts'
import { startStory } from './story.ts'

let t: TestApp
beforeEach(async () => void (t = await startApp()))
afterEach(() => t.store.close())

/** A mark of one colour that no card has, 120 × 40. Source of the format: PNG specification, ISO/IEC 15948. */
function markOf(rgb: readonly [number, number, number]): string {
  const [width, height] = [120, 40]
  const piece = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type, 'latin1'), data])
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)]
    length.writeUInt32BE(data.length)
    sum.writeUInt32BE(crc32(body))
    return Buffer.concat([length, body, sum])
  }
  const header = Buffer.alloc(13)
  header.writeUInt32BE(width, 0)
  header.writeUInt32BE(height, 4)
  header.set([8, 2, 0, 0, 0], 8)
  const row = Buffer.from([0, ...Array.from({ length: width }, () => rgb).flat()])
  const rows = deflateSync(Buffer.concat(Array.from({ length: height }, () => row)))
  const png = Buffer.concat([
    Buffer.from('89504e470d0a1a0a', 'hex'),
    piece('IHDR', header),
    piece('IDAT', rows),
    piece('IEND', Buffer.alloc(0)),
  ])
  return `data:image/png;base64,${png.toString('base64')}`
}
const pink = markOf([255, 0, 255])
const read = async () => (await t.get('/letterhead')).body as Letterhead
const save = (over: Partial<Letterhead>) =>
  t.put(`/letterheads/${letterheadId}`, { id: letterheadId, version: 0, line: '', mark: null, ...over })

describe('the top of cards', () => {
  it('is blank until somebody writes it, then stands on every card, mark and line', async () => {
    expect(await read()).toMatchObject({ version: 0, line: '', mark: null })
    const { bike } = await startStory(t)
    const told: LiveEvent[] = []
    t.events.on((e) => told.push(e))
    const saved = await save({ line: 'The shed, Mill Lane 12', mark: pink })
    expect(saved.status).toBe(200)
    expect(told).toContainEqual({ type: 'stale', what: 'letterhead', id: null })
    const [page] = await drawPdf((await t.get(`/bikes/${bike.id}/card.pdf`)).body, 100)
    expect(page.text).toContain('The shed, Mill Lane 12')
    let points = 0
    let lowest = 0
    for (let y = 0; y < page.height; y++)
      for (let x = 0; x < page.width; x++) {
        const at = 4 * (y * page.width + x)
        if (page.data[at] > 240 && page.data[at + 1] < 20 && page.data[at + 2] > 240) {
          points++
          lowest = y
        }
      }
    // Drawn once, in its shape, at the top.
    expect(points).toBeGreaterThan(200)
    expect(lowest).toBeLessThan(page.height / 6)
  })
  it('refuses a mark that is no picture, though it is called one, and keeps the old one', async () => {
    await save({ mark: pink })
    const broken = `data:image/png;base64,${Buffer.from('not a picture at all').toString('base64')}`
    const cut = pink.slice(0, Math.floor(pink.length / 2 / 4) * 4 + 2)
    for (const bad of [broken, cut, 'data:image/svg+xml;base64,AAAA', 'https://example.org/mark.png']) {
      const answer = await save({ version: 1, mark: bad })
      expect(answer.status, bad.slice(0, 40)).toBe(422)
      expect(answer.body).toMatchObject({ code: 'request.invalid', path: 'mark' })
    }
    expect((await read()).mark).toBe(pink)
  })
  it('is one: another id is refused, and an old page does not write over it', async () => {
    await save({ line: 'first' })
    expect(
      (
        await t.put(`/letterheads/018f0000-0000-7000-8000-000000000002`, {
          id: '018f0000-0000-7000-8000-000000000002',
          version: 0,
          line: '',
          mark: null,
        })
      ).status,
    ).toBe(422)
    expect((await save({ line: 'old page' })).body).toMatchObject({ code: 'record.stale' })
  })
})
