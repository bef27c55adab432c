import { expect, test, type Page } from '@playwright/test'
import { calibrationSteps } from '../core/devices/calibration.ts'
import { idOf } from '../demo/ids.ts'
import { holdWrites } from './held.ts'
import { startDemo, startLoggers, type RunningServer } from './server.ts'

/** A hand taps twice, and answers of a device come late, in another order, or when another device is looked at. */
test.describe.configure({ mode: 'parallel' })
let loggers: Awaited<ReturnType<typeof startLoggers>>
let server: RunningServer
test.beforeEach(async () => {
  loggers = await startLoggers()
  server = await startDemo(loggers.addresses)
})
test.afterEach(async () => {
  await server?.stop()
  loggers?.stop()
})

const longestHoldS = Math.max(...calibrationSteps.travel.map((s) => s.holdSeconds))
const row = (page: Page, name: string) => page.getByRole('listitem').filter({ hasText: name })
const connectTo = (page: Page, name: string) => row(page, name).getByRole('button', { name: 'Connect' })
/** The logger screen of the half-way day, with all that is fitted ticked. */
async function open(page: Page) {
  await page.goto(`${server.base}/days/${idOf('day half-way')}/logger`)
  await expect(connectTo(page, 'Stand-in pressure logger')).toBeDisabled()
  for (const box of await page.getByRole('checkbox').all()) await box.check()
}
/** What the device itself says of its faults. */
const deviceFaults = async (page: Page) =>
  ((await (await page.request.get(`${loggers.addresses[0]}/stand-in`)).json()) as { faults: object }).faults

test('two faults told one after the other on a slow line are both told', async ({ page }) => {
  await open(page)
  await connectTo(page, 'Stand-in pressure logger').click()
  const leak = page.getByRole('checkbox', { name: 'leaking adapter' })
  const jump = page.getByRole('checkbox', { name: 'clock jump' })
  await expect(leak).toBeVisible()
  const { letGo } = await holdWrites(page, '**/stand-in/faults')
  await leak.click()
  await jump.click()
  // What was asked for is seen at once.
  await expect(leak).toBeChecked()
  await expect(jump).toBeChecked()
  letGo()
  await expect.poll(() => deviceFaults(page)).toMatchObject({ leakingAdapter: true, clockJump: true })
  await expect(leak).toBeChecked()
  await expect(jump).toBeChecked()
})

test('what one logger measured is never kept for the one that was connected meanwhile', async ({ page }) => {
  await open(page)
  await connectTo(page, 'Stand-in travel logger').click()
  const first = () => row(page, 'Hold it fully extended')
  await page.getByRole('button', { name: 'That is done' }).first().click()
  const { letGo } = await holdWrites(page, '**/v1/hold')
  await first()
    .getByRole('button', { name: /Hold now/ })
    .click()
  await page.getByRole('button', { name: 'Disconnect' }).click()
  await connectTo(page, 'Stand-in pressure logger').click()
  await expect(page.getByText('live', { exact: true })).toBeVisible()
  const answered = page.waitForResponse('**/v1/hold')
  letGo()
  await answered
  // A hold is no shorter than what is asked of the hands.
  await page.waitForTimeout(1000 * longestHoldS)
  await expect(page.getByText(/^Held:/)).toHaveCount(0)
  await expect(page.getByText('sent no readings')).toHaveCount(0)
  await expect(page.getByText('Something went wrong')).toHaveCount(0)
})

test('Connect, Start and Stop, tapped twice, are done once', async ({ page }) => {
  const lives: string[] = []
  page.on('request', (r) => void (r.url().endsWith('/v1/live') && lives.push(r.url())))
  await open(page)
  await connectTo(page, 'Stand-in pressure logger').dblclick()
  await expect(page.getByText('live', { exact: true })).toBeVisible()
  await page.waitForTimeout(1000)
  expect(lives).toHaveLength(1)
  await page.getByRole('button', { name: 'Start recording' }).dblclick()
  await expect(page.getByText(/min so far|the trail has ended/)).toBeVisible()
  await page.waitForTimeout(1000)
  await expect(page.getByText('It is recording already')).toHaveCount(0)
  await page.getByRole('button', { name: 'Stop' }).dblclick()
  await expect(page.getByRole('listitem').filter({ hasText: 'SI-P-1 r1.csv' })).toBeVisible()
  await page.waitForTimeout(1000)
  await expect(page.getByText('It is not recording')).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Start recording' })).toBeVisible()
})
