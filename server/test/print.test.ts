import { inflateSync } from 'node:zlib'
import { beforeAll, describe, expect, it } from 'vitest'
import { startApp, type TestApp } from './harness.ts'
import { startStory } from './story.ts'

let t: TestApp
let story: Awaited<ReturnType<typeof startStory>>
beforeAll(async () => {
  t = await startApp()
  story = await startStory(t)
})

/** Drawing operators of all pages, and the page size in points. */
function look(bytes: ArrayBuffer) {
  const text = Buffer.from(bytes).toString('latin1')
  const streams = [...text.matchAll(/stream\r?\n([\s\S]*?)\r?\nendstream/g)].flatMap((m) => {
    try {
      return [inflateSync(Buffer.from(m[1], 'latin1')).toString('latin1')]
    } catch {
      return []
    }
  })
  const box = /\/MediaBox \[([\d. ]+)\]/.exec(text)![1].split(' ').map(Number)
  return { head: text.slice(0, 5), drawing: streams.find((s) => s.includes(' re')) ?? streams[0], box, text }
}
const points = (mm: number) => (mm * 72) / 25.4

describe('the sag strip', () => {
  it('is drawn 1:1 on A4: check line, stroke and target window', async () => {
    const { status, headers, body } = await t.get(`/bikes/${story.bike.id}/sag-strip.pdf`)
    expect(status).toBe(200)
    expect(headers.get('content-type')).toBe('application/pdf')
    const { head, drawing, box } = look(body)
    expect(head).toBe('%PDF-')
    expect(box[2]).toBeCloseTo(points(210), 0)
    expect(box[3]).toBeCloseTo(points(297), 0)
    // Rectangles as x y w h: pdf keeps at least two places.
    const heights = [...drawing.matchAll(/([-\d.]+) ([-\d.]+) ([-\d.]+) ([-\d.]+) re/g)].map((m) =>
      Math.abs(Number(m[4])),
    )
    const has = (mm: number) =>
      expect(Math.min(...heights.map((h) => Math.abs(h - points(mm)))), `${mm} mm`).toBeLessThan(0.01)
    has(story.front.strokeMm)
    has(story.rear.strokeMm)
    // Window of ± 1.5 % of the stroke.
    has(0.03 * story.front.strokeMm)
    const lines = [...drawing.matchAll(/([-\d.]+) ([-\d.]+) m\n([-\d.]+) ([-\d.]+) l/g)].map((m) =>
      Math.hypot(Number(m[3]) - Number(m[1]), Number(m[4]) - Number(m[2])),
    )
    expect(Math.min(...lines.map((l) => Math.abs(l - points(100))))).toBeLessThan(0.01)
  })
})

describe('a travel longer than the page', () => {
  it('is cut short above the check line, and the target stays on the strip', async () => {
    const front = { ...story.front, version: 1, strokeMm: 260, sagTargetPct: 45 }
    await t.put(`/units/${front.id}`, front)
    const { drawing } = look((await t.get(`/bikes/${story.bike.id}/sag-strip.pdf`)).body)
    const heights = [...drawing.matchAll(/([-\d.]+) ([-\d.]+) ([-\d.]+) ([-\d.]+) re/g)].map((m) =>
      Math.abs(Number(m[4])),
    )
    expect(Math.max(...heights)).toBeCloseTo(points(235), 1)
  })
})

describe('sheets', () => {
  it('are refused for an unknown bike', async () => {
    expect((await t.get(`/bikes/${story.setup.id}/sag-strip.pdf`)).status).toBe(404)
  })
})
