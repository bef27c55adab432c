import { startProcess } from '../e2e/server.ts'
import { builtBrowser } from './builtBrowser.ts'
import type { Row } from './measure.ts'
import { middleOf, tasksAfter } from './pageTasks.ts'

/** A step of a slider is drawn by then. */
const redrawMs = 60
const pauseMs = 120
const stepsEach = 7

/** The figures of the handbook: what a step of each of their sliders costs the page, script to paint. */
export async function figureRows(): Promise<Row[]> {
  const browser = await builtBrowser()
  if (!browser) return []
  const server = await startProcess()
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${server.base}/handbook/works`)
    const links = page.locator('a[href^="/handbook/works/"]')
    await links.first().waitFor()
    const addresses = [...new Set(await links.evaluateAll((all) => all.map((a) => a.getAttribute('href')!)))]
    const each: { title: string; ms: number; wallMs: number }[] = []
    for (const address of addresses) {
      await page.goto(server.base + address)
      await page.getByRole('heading', { level: 1 }).waitFor()
      await page.waitForLoadState('networkidle')
      const sliders = page.locator('main input[type=range]')
      for (let i = 0; i < (await sliders.count()); i++) {
        const step = (mark: string) =>
          sliders.nth(i).evaluate((slider: HTMLInputElement, words) => {
            console.timeStamp(words)
            const before = slider.value
            slider.stepUp()
            if (slider.value === before) slider.stepDown()
            slider.dispatchEvent(new Event('input', { bubbles: true }))
          }, mark)
        const tasks = await tasksAfter(page, Array<typeof step>(stepsEach).fill(step), redrawMs, pauseMs)
        each.push({
          title: await page.getByRole('heading', { level: 1 }).innerText(),
          ms: middleOf(tasks.map((t) => t.reduce((x, y) => x + y.workMs, 0))),
          wallMs: middleOf(tasks.map((t) => t.reduce((x, y) => x + y.wallMs, 0))),
        })
      }
    }
    const slowest = each.reduce((a, b) => (b.ms > a.ms ? b : a))
    return [
      {
        work: `a step of a slider in a figure of the handbook, work from script to paint: the slowest of ${each.length}`,
        figure: slowest.ms,
        unit: 'ms',
        against: `bar ≤ 8 ms; “${slowest.title}”, ${slowest.wallMs.toFixed(1)} ms with its waiting; half of them ${middleOf(each.map((x) => x.ms)).toFixed(1)} ms`,
      },
    ]
  } finally {
    await browser.close()
    await server.stop()
  }
}
