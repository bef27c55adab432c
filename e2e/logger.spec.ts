import { expect, test, type Page } from '@playwright/test'
import { idOf } from '../demo/ids.ts'
import { faultsNow } from './faults.ts'
import { startDemo, startLoggers, type RunningServer } from './server.ts'

/** A tap that comes sooner is of the same hand (web/support/oneAtATime.ts). */
const twiceMs = 700

let loggers: Awaited<ReturnType<typeof startLoggers>>
let server: RunningServer
test.beforeAll(async () => {
  loggers = await startLoggers()
  server = await startDemo(loggers.addresses)
})
test.afterAll(async () => {
  await server?.stop()
  loggers?.stop()
})

/** The logger screen of the half-way day. */
async function open(page: Page) {
  await page.goto(`${server.base}/days/${idOf('day half-way')}/logger`)
  await expect(page.getByRole('heading', { name: 'A logger on the bike' })).toBeVisible()
}
async function connect(page: Page, name: string) {
  const row = page.getByRole('listitem').filter({ hasText: name })
  await expect(row.getByRole('button', { name: 'Connect' })).toBeDisabled()
  for (const box of await page.getByRole('checkbox').all()) await box.check()
  await row.getByRole('button', { name: 'Connect' }).click()
  await expect(page.getByText('live', { exact: true })).toBeVisible()
}
const heldStep = (page: Page, title: string) => page.getByRole('listitem').filter({ hasText: title })

test('from the fitting check to figures per section', async ({ page }) => {
  const broken: string[] = []
  page.on('pageerror', (e) => broken.push(e.message))
  await page.goto(`${server.base}/days/${idOf('day half-way')}`)
  await page.getByRole('button', { name: /^Run 1,/ }).click()
  await page.getByRole('link', { name: 'From a logger' }).click()
  await connect(page, 'Stand-in pressure logger')

  await test.step('calibrates step by step, saying why', async () => {
    await expect(page.getByText('Air left behind in either chamber would pass for travel.')).toBeVisible()
    await page.getByRole('button', { name: 'That is done' }).first().click()
    for (const title of ['Hold it fully extended, empty', 'Hold it fully compressed, empty']) {
      await heldStep(page, title)
        .getByRole('button', { name: /Hold now/ })
        .click()
      await expect(heldStep(page, title).getByRole('timer')).toBeVisible()
      await expect(heldStep(page, title).getByText(/^Held: front/)).toBeVisible()
    }
    await page.getByRole('button', { name: 'That is done' }).first().click()
    const baseline = heldStep(page, 'Hold it fully extended, filled')
    await baseline.getByRole('button', { name: /Hold now/ }).click()
    await expect(baseline.getByText(/^Held: front 7[78]/)).toBeVisible()
  })

  await test.step('keeps its holds over a reload', async () => {
    await page.reload()
    await connect(page, 'Stand-in pressure logger')
    await expect(heldStep(page, 'Hold it fully extended, filled').getByText(/^Held: front/)).toBeVisible()
  })

  await test.step('records, is taken off, and lands on the run with its sections', async () => {
    await page.getByRole('button', { name: 'Start recording' }).click()
    await expect(page.getByText(/the trail has ended/)).toBeVisible()
    await page.getByRole('button', { name: 'Stop' }).click()
    await page.getByRole('button', { name: 'Put it on the run' }).click()
    await expect(page.getByText('It is on the run, with figures for 6 sections.')).toBeVisible()
    expect(await faultsNow(page)).toEqual([])
    await page.getByRole('link', { name: 'See what the suspension did' }).click()
    await expect(page.getByRole('heading', { name: /Run 1, what the suspension did/ })).toBeVisible()
    await expect(page.getByText('Root web').first()).toBeVisible()
    await expect(page.getByText('it has no speed or distance')).toHaveCount(0)
  })
  expect(broken).toEqual([])
})

test('a chamber is calibrated as it is ridden, by depths that somebody reads', async ({ page }) => {
  await open(page)
  await connect(page, 'Stand-in pressure logger')
  await page.getByRole('radio', { name: /As it is ridden/ }).check()
  await expect(page.getByText('Letting air out of a unit', { exact: false })).toHaveCount(0)
  const base = heldStep(page, 'Hold it fully extended, at riding pressure')
  await base.getByRole('button', { name: /Hold now/ }).click()
  await expect(base.getByText(/^Held: front/)).toBeVisible()
  for (const title of ['a fifth', 'a third', 'half']) {
    const step = heldStep(page, `Hold it ${title} of the way in`)
    await step.getByRole('button', { name: /Hold now/ }).click()
    await expect(step.getByText('Read the front ring and say how deep it stood.')).toBeVisible()
    // Nothing is filled in for anybody: the rings are read.
    await expect(step.getByLabel('Front ring, along the leg')).toHaveValue('')
    const [, front, rear] = /front (\d+) mm, rear (\d+) mm/.exec((await step.textContent())!)!
    await step.getByLabel('Front ring, along the leg').fill(front)
    await step.getByLabel('Rear ring, along the shaft').fill(rear)
    await step.getByLabel('Rear ring, along the shaft').blur()
    await expect(step.getByText(new RegExp(`^Held: front ${front} mm at`))).toBeVisible()
  }
  await expect(page.getByText(/compression ratio [\d.]+ ± 0\.\d+, baseline \d+ ± [\d.]+ psi/)).toBeVisible()
  await expect(page.getByText('Calibrate first', { exact: false })).toHaveCount(0)
  expect(await faultsNow(page)).toEqual([])
})

test('each fault is recognised and named, with the way out of it', async ({ page }) => {
  await open(page)
  await connect(page, 'Stand-in pressure logger')
  const alert = (title: string) => page.getByRole('alert').filter({ hasText: title })
  const fault = (name: string) => page.getByRole('checkbox', { name })

  await test.step('before anything is calibrated, a recording is only numbers', async () => {
    await page.getByRole('button', { name: 'Start recording' }).click()
    // A stop that comes sooner is of the same tap.
    await page.waitForTimeout(twiceMs)
    await page.getByRole('button', { name: 'Stop' }).click()
    await expect(page.getByText('Calibrate first', { exact: false })).toBeVisible()
    await page.waitForTimeout(twiceMs)
  })
  await test.step('a flat battery', async () => {
    await fault('flat battery').check()
    await expect(alert('The battery is nearly flat')).toBeVisible()
    await page.getByRole('button', { name: 'Start recording' }).click()
    await expect(page.getByText('charge it before recording')).toBeVisible()
    await fault('flat battery').uncheck()
    await expect(alert('The battery is nearly flat')).toHaveCount(0)
  })
  await test.step('drop-outs', async () => {
    await fault('drop-outs').check()
    await expect(alert('The connection drops out')).toBeVisible()
    await fault('drop-outs').uncheck()
  })
  await test.step('a clock that is set while it runs', async () => {
    await fault('clock jump').check()
    await expect(alert('The clock was set while it ran')).toBeVisible()
    await fault('clock jump').uncheck()
  })
  await test.step('a leaking adapter, in the baseline', async () => {
    await fault('leaking adapter').check()
    await page.getByRole('button', { name: 'That is done' }).first().click()
    for (const title of ['Hold it fully extended, empty', 'Hold it fully compressed, empty']) {
      await heldStep(page, title)
        .getByRole('button', { name: /Hold now/ })
        .click()
      await expect(heldStep(page, title).getByText(/^Held: front/)).toBeVisible()
    }
    await page.getByRole('button', { name: 'That is done' }).first().click()
    await heldStep(page, 'Hold it fully extended, filled')
      .getByRole('button', { name: /Hold now/ })
      .click()
    await expect(alert('The adapter leaks')).toBeVisible()
    await expect(page.getByText(/pressure falls by [\d.]+ psi a minute/)).toBeVisible()
    // A baseline that leaks is none: what was recorded cannot be read by it.
    await expect(page.getByText('Calibrate first', { exact: false })).toBeVisible()
    await fault('leaking adapter').uncheck()
  })
  await test.step('a range too small, in the compressed hold of the travel logger', async () => {
    await page.getByRole('button', { name: 'Disconnect' }).click()
    await page
      .getByRole('listitem')
      .filter({ hasText: 'Stand-in travel logger' })
      .getByRole('button', { name: 'Connect' })
      .click()
    await fault('range too small').check()
    await page.getByRole('button', { name: 'That is done' }).first().click()
    for (const title of ['Hold it fully extended', 'Hold it fully compressed']) {
      await heldStep(page, title)
        .getByRole('button', { name: /Hold now/ })
        .click()
      await expect(heldStep(page, title).getByRole('timer')).toHaveCount(0)
    }
    await expect(alert('The sensor’s range is too small')).toBeVisible()
    await fault('range too small').uncheck()
  })
})
