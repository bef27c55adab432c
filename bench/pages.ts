import type { Browser, Locator, Page } from '@playwright/test'
import { largeSize } from '../demo/large.ts'
import { fillDemo, startProcess } from '../e2e/server.ts'
import { builtBrowser } from './builtBrowser.ts'
import type { Row } from './measure.ts'

const times = 5
const median = (of: number[]) => of.sort((a, b) => a - b)[of.length >> 1]

/**
 * How long a person waits in a world of 40 riders and 200 days: from the address to what was asked for, in a window
 * that was never here before, and from a key to the first answer of the search. Needs a built page and a Chromium.
 */
export async function pageRows(): Promise<Row[]> {
  const browser = await builtBrowser()
  if (!browser) return []
  const server = await startProcess()
  try {
    await fillDemo(server.base, 'large')
    const opened = (path: string, wanted: (p: Page) => Locator) =>
      openMs(browser, `${server.base}${path}`, wanted)
    const screens: [string, string, (p: Page) => Locator][] = [
      ['Today', '/', (p) => p.getByRole('link', { name: /counted of|no run yet/ }).first()],
      ['the garage', '/garage', (p) => p.getByRole('button', { name: /^Arvid/ })],
      [
        'a day of 30 runs',
        await dayOfThirty(browser, server.base),
        (p) => p.getByRole('heading', { name: 'The day so far' }),
      ],
    ]
    const rows: Row[] = []
    for (const [name, path, wanted] of screens) {
      // In turns, so that a machine that slows down slows both.
      const pairs: { ms: number; ratio: number }[] = []
      for (let i = 0; i <= times; i++) {
        const bare = await opened('/nowhere', (p) => p.getByRole('heading', { level: 1 }))
        const ms = await opened(path, wanted)
        if (i > 0) pairs.push({ ms, ratio: ms / bare })
      }
      rows.push({
        work: `${name} with ${largeSize.riders} riders and ${largeSize.days} days, first content`,
        figure: median(pairs.map((p) => p.ms)),
        unit: 'ms',
        against: `bar ≤ 1000 ms; ${median(pairs.map((p) => p.ratio)).toFixed(1)} × a page that asks for nothing`,
      })
    }
    return [...rows, await searchRow(browser, server.base)]
  } finally {
    await browser.close()
    await server.stop()
  }
}

/** From an address to a thing seen, in a window that was never here, ms. */
async function openMs(browser: Browser, url: string, wanted: (p: Page) => Locator): Promise<number> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  const start = performance.now()
  await page.goto(url, { waitUntil: 'commit' })
  await wanted(page).waitFor()
  const took = performance.now() - start
  await context.close()
  return took
}

async function dayOfThirty(browser: Browser, base: string): Promise<string> {
  const page = await browser.newPage()
  await page.goto(base)
  const href = await page.getByRole('link', { name: /29 counted of 30 runs/ }).getAttribute('href')
  await page.close()
  return href!
}

/** From the key that is typed to the first answer, in the page's own clock. */
async function searchRow(browser: Browser, base: string): Promise<Row> {
  const page = await browser.newPage()
  await page.goto(base)
  await page.getByRole('button', { name: 'Search everything' }).click()
  await page.getByRole('combobox').fill('zeno')
  await page.getByRole('option').first().waitFor()
  const took: number[] = []
  for (const name of ['arvid', 'birk', 'gesa', 'hanne', 'ylva'])
    took.push(
      await page.evaluate(async (typed) => {
        const box = document.querySelector<HTMLInputElement>('[role="combobox"]')!
        const start = performance.now()
        box.value = typed
        box.dispatchEvent(new Event('input', { bubbles: true }))
        while (!document.querySelector('[role="option"]')?.textContent?.toLowerCase().includes(typed))
          await new Promise((next) => requestAnimationFrame(next))
        return performance.now() - start
      }, name),
    )
  await page.close()
  return {
    work: 'a name typed into the search, to its first answer',
    figure: median(took),
    unit: 'ms',
    against: 'bar ≤ 100 ms; a frame is 16.7 ms',
  }
}
