import type { Page } from '@playwright/test'
import { v7 as uuid } from 'uuid'
import type { RecordingUpload } from '#contract/recording'
import { sniffLayout } from '#core/formats/layout'
import { suggestMapping } from '#core/telemetry/mapping'
import { fillDemo, startProcess } from '../e2e/server.ts'
import { idOf } from '../demo/ids.ts'
import { builtBrowser } from './builtBrowser.ts'
import type { Row } from './measure.ts'

const samples = 600_000
const moves = 60

function longFile(): Uint8Array<ArrayBuffer> {
  const lines = ['time_ms,front_mm,rear_mm']
  for (let i = 0; i < samples; i++) {
    const t = i / 1000
    const hit = Math.max(0, Math.sin(t * 4)) ** 6
    lines.push(`${i},${(32 + 60 * hit + 3 * Math.sin(t * 60)).toFixed(2)},${(16 + 24 * hit).toFixed(2)}`)
  }
  return new TextEncoder().encode(lines.join('\n') + '\n')
}

/**
 * Frames of the trace screen while a recording of 600,000 samples is zoomed and moved with the wheel and the pointer,
 * in headless Chromium without a graphics card. Needs a built page and a Chromium; without them there is no row.
 */
export async function panZoomRows(): Promise<Row[]> {
  const browser = await builtBrowser()
  if (!browser) return []
  const server = await startProcess()
  try {
    await fillDemo(server.base)
    const bytes = longFile()
    const runId = idOf('settled run 0')
    const upload: RecordingUpload = {
      uploadId: uuid(),
      again: false,
      runId,
      fileName: 'long.csv',
      mapping: suggestMapping(sniffLayout(bytes)),
      spans: [],
      remember: false,
    }
    const put = async (path: string, body: BodyInit, type: string) => {
      const sent = await fetch(`${server.base}/api/v1${path}`, {
        method: 'PUT',
        body,
        headers: { 'content-type': type },
      })
      if (!sent.ok) throw new Error(await sent.text())
    }
    await put(`/uploads/${upload.uploadId}`, bytes, 'application/octet-stream')
    await put(`/recordings/${uuid()}`, JSON.stringify(upload), 'application/json')
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${server.base}/days/${idOf('day settled')}/trace/${runId}`)
    const box = (await page.locator('.trace canvas').first().boundingBox())!
    const frames = await framesOf(page, box.x + box.width / 2, box.y + box.height / 2)
    const empty = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const still = await framesOf(empty, box.x + box.width / 2, box.y + box.height / 2)
    return [
      {
        work: `pan and zoom ${samples} samples, slowest of ${frames.length} frames`,
        figure: frames[frames.length - 1],
        unit: 'ms',
        against: `bar ≤ 32 ms after the first; an empty page here: ${still[still.length - 1].toFixed(1)} ms`,
      },
      {
        work: 'pan and zoom, 95 % of the frames within',
        figure: frames[Math.floor(0.95 * frames.length)],
        unit: 'ms',
        against: `a frame is 16.7 ms; an empty page here: ${still[Math.floor(0.95 * still.length)].toFixed(1)} ms`,
      },
    ]
  } finally {
    await browser.close()
    await server.stop()
  }
}

/** Lengths of the frames, ms, rising, while the wheel and the pointer zoom and move at a place of the page. */
async function framesOf(page: Page, x: number, y: number): Promise<number[]> {
  // The first zoom compiles and fills caches: the frame that the bar leaves out.
  await page.mouse.move(x, y)
  for (const way of [-120, 120]) {
    await page.mouse.wheel(0, way)
    await page.waitForTimeout(300)
  }
  // Frames are the gaps between animation callbacks; work in a gap makes it long.
  await page.evaluate(`window.frames_ = []; (function tick(last) {
    requestAnimationFrame((now) => { if (last) window.frames_.push(now - last); tick(now) })
  })(0)`)
  for (let i = 0; i < moves; i++) {
    await page.mouse.wheel(0, i % 20 < 14 ? -120 : 120)
    await page.waitForTimeout(16)
  }
  await page.mouse.down()
  for (let i = 0; i < moves; i++) await page.mouse.move(x + 4 * i * (i % 2 ? 1 : -1), y)
  await page.mouse.up()
  const frames = ((await page.evaluate('window.frames_')) as number[]).slice(1)
  return frames.sort((a, b) => a - b)
}
