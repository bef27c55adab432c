import { expect, test } from '@playwright/test'
import { idOf } from '../demo/ids.ts'
import { inDemo } from './screens.ts'
import { startDemo, type RunningServer } from './server.ts'

/** Screens that come with the page and need nothing of the server. */
const standsAlone = ['setup', 'practice', 'handbook', 'lost']
/** An id as any other, of nothing that was ever there. */
const none = '016f5e66-e800-7000-8000-000000000001'
const day = inDemo.day.address

test.describe('an address of something that is not there', () => {
  let server: RunningServer
  test.beforeAll(async () => void (server = await startDemo()))
  test.afterAll(async () => server?.stop())

  for (const [address, heading, back] of [
    [`/days/${none}`, 'This day could not be opened', 'Back to today'],
    [`/days/${none}/logger`, 'This day could not be opened', 'Back to today'],
    [`/days/${none}/trace/${none}`, 'This day could not be opened', 'Back to today'],
    [`/days/${none}/compare?a=${none}&b=${none}`, 'This day could not be opened', 'Back to today'],
    [`${day}/trace/${none}`, 'There is no such run', 'Back to the day'],
    [`/tent/${none}`, 'This tent could not be opened', 'Back to today'],
    [`/bench/${none}`, 'There is no such bike', 'To the garage'],
    ['/bench/half-an-addr', 'This bike could not be opened', 'To the garage'],
    [`/setups/${none}`, 'There is no such bike', 'To the setups'],
    ['/handbook/feels/nothing', 'There is no such page', null],
    ['/nowhere', 'There is no such screen', 'Back to today'],
  ] as const)
    test(`says so, and leads on: ${address}`, async ({ page }) => {
      await page.goto(server.base + address)
      const main = page.getByRole('main')
      await expect(main.getByRole('heading', { level: 1 })).toHaveText(heading)
      // Nothing of another record stands under its address.
      await expect(main.getByText(/Ilka|psi|\brun \d/i)).toHaveCount(0)
      if (back) {
        await main.getByRole('link', { name: back }).click()
        await expect(page).not.toHaveURL(server.base + address)
        await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(heading)
      }
    })

  test('a run that was removed since is not compared with', async ({ page }) => {
    await page.goto(`${server.base}${day}/compare?a=${none}&b=${idOf('half-way run 5')}`)
    await expect(page.getByRole('combobox').nth(0)).toHaveValue(idOf('half-way run 4'))
    await expect(page.getByRole('combobox').nth(1)).toHaveValue(idOf('half-way run 5'))
  })

  test('a day that is over and was never settled has a heading on a phone; a settled one stays so', async ({
    browser,
  }) => {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })
    const page = await context.newPage()
    await page.goto(server.base)
    await page
      .getByRole('link', { name: /^Tarek.*Heron Steep/ })
      .first()
      .click()
    await expect(page.getByText('This day is over')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Carry it over' })).toBeVisible()
    // It could not be settled again.
    await expect(page.getByRole('button', { name: 'Open the day again' })).toHaveCount(0)
    const id = new URL(page.url()).pathname.split('/').at(-1)
    const at = `${server.base}/api/v1/days/${id}`
    const { day: held } = await (await page.request.get(at)).json()
    await page.request.put(at, { data: { ...held, settledSetupId: null } })
    await page.reload()
    await expect(page.getByText('This day is over')).toBeVisible()
    await expect(page.getByRole('button', { name: 'Carry it over' })).toHaveCount(0)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Tarek, 160 mm bike')
    await context.close()
  })
})

test.describe('a screen that is opened while the server is out of reach', () => {
  let server: RunningServer
  test.beforeAll(async () => void (server = await startDemo()))
  test.afterAll(async () => server?.stop())

  for (const [name, { address, ready }] of Object.entries(inDemo))
    test(`claims nothing, and is there once the server is, without a tap: ${name}`, async ({ browser }) => {
      const context = await browser.newContext({ serviceWorkers: 'block' })
      const page = await context.newPage()
      await page.route('**/api/**', (route) => route.abort())
      await page.goto(server.base + address)
      await page.waitForTimeout(1500)
      // What nobody could read is not called empty, or gone.
      if (!standsAlone.includes(name))
        await expect(page.getByText(/no such|no bike yet|nothing yet|no days|never/i)).toHaveCount(0)
      await page.unroute('**/api/**')
      await ready(page)
      await context.close()
    })
})
