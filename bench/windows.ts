import type { Browser, Page } from '@playwright/test'
import { idOf } from '../demo/ids.ts'
import { fillDemo, startProcess } from '../e2e/server.ts'
import { builtBrowser } from './builtBrowser.ts'
import type { Row } from './measure.ts'

const turns = 12

/**
 * Two windows and a phone on one day: from “Done, it is on” until all three show where the dial stands, at another window
 * each time. Needs a built page and a Chromium.
 */
export async function windowRows(): Promise<Row[]> {
  const browser = await builtBrowser()
  if (!browser) return []
  const server = await startProcess()
  try {
    await fillDemo(server.base)
    const day = `${server.base}/days/${idOf('day half-way')}`
    const windows = await Promise.all([1280, 1280, 390].map((width) => windowOn(browser, day, width)))
    const own: number[] = []
    const others: number[] = []
    for (let i = 0; i < turns; i++) {
      const from = windows[i % windows.length]
      const before = await placeIn(from)
      await rebound(from).press(i % 2 === 0 ? 'ArrowRight' : 'ArrowLeft')
      const start = performance.now()
      await from.getByRole('button', { name: 'Done, it is on' }).click()
      const took = async (w: Page) => {
        await w.waitForFunction(
          ([selector, was]) => document.querySelector(selector)?.getAttribute('aria-valuetext') !== was,
          [selectorOf, before] as const,
        )
        return performance.now() - start
      }
      const all = await Promise.all(windows.map(took))
      own.push(all[i % windows.length])
      others.push(Math.max(...all))
    }
    return [
      {
        work: 'a turned dial is seen in two windows and on a phone, slowest of 12',
        figure: Math.max(...others),
        unit: 'ms',
        against: `bar ≤ 2000 ms; median ${(median(others) / median(own)).toFixed(1)} × until its own window shows it`,
      },
    ]
  } finally {
    await browser.close()
    await server.stop()
  }
}

const median = (of: readonly number[]) => [...of].sort((a, b) => a - b)[of.length >> 1]
const selectorOf = '[role=slider][aria-label^="rear Rebound"]'
const rebound = (page: Page) => page.getByRole('slider', { name: /^rear Rebound/ })
const placeIn = async (page: Page) => (await rebound(page).getAttribute('aria-valuetext')) ?? ''

async function windowOn(browser: Browser, address: string, width: number): Promise<Page> {
  const context = await browser.newContext({ viewport: { width, height: 844 }, hasTouch: width < 700 })
  const page = await context.newPage()
  await page.goto(address)
  if (width < 700)
    await page
      .getByRole('navigation', { name: 'Parts of the day' })
      .getByRole('button', { name: 'Bike' })
      .tap()
  await rebound(page).waitFor()
  return page
}
