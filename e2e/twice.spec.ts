import { expect, test, type Page } from '@playwright/test'
import type { BikeSetups } from '../contract/bikeSetups.ts'
import type { DayBundle, DaySummary, Garage } from '../contract/endpoints.ts'
import { idOf } from '../demo/ids.ts'
import { inDemo, proposed } from './screens.ts'
import { startDemo, startServer, type RunningServer } from './server.ts'

/** A hand in a glove taps twice, and who sees nothing happen on a slow line presses once more: it is done once. */
test.describe.configure({ mode: 'parallel' })
let server: RunningServer
test.beforeEach(async () => void (server = await startDemo()))
test.afterEach(async () => server?.stop())

const api = async <T>(page: Page, path: string) =>
  (await (await page.request.get(`${server.base}/api/v1${path}`)).json()) as T
const garage = (page: Page) => api<Garage>(page, '/garage')
const days = (page: Page) => api<DaySummary[]>(page, '/days')
/** Every write is answered so late. */
const slowly = (page: Page, ms = 1500) =>
  page.route('**/api/v1/**', async (route) => {
    if (route.request().method() === 'PUT') await new Promise((r) => setTimeout(r, ms))
    await route.continue().catch(() => undefined)
  })

test('Start the day, pressed twice, begins one day on one trail', async ({ page }) => {
  await page.goto(`${server.base}/?new=day`)
  const form = page.getByRole('dialog', { name: 'New trail day' })
  await expect(form.getByLabel('Bike and rider')).toBeVisible()
  const before = (await days(page)).length
  await slowly(page)
  const start = form.getByRole('button', { name: 'Start the day' })
  await start.click()
  await form.getByLabel('Air').press('Enter')
  await start.click({ force: true, noWaitAfter: true, timeout: 500 }).catch(() => undefined)
  await expect(page.getByRole('heading', { name: 'One warm-up run, then the baseline' })).toBeVisible()
  await page.waitForTimeout(2000)
  expect((await days(page)).length).toBe(before + 1)
})

test('a line that is entered twice turns once', async ({ page }) => {
  await page.goto(server.base + inDemo.day.address)
  await proposed(page)
  const { day, setups } = await api<DayBundle>(page, new URL(page.url()).pathname)
  await slowly(page)
  await page.keyboard.press('c')
  const box = page.getByRole('textbox', { name: 'Change', exact: true })
  await box.fill('rear reb slower 1')
  await box.press('Enter')
  await box.press('Enter', { timeout: 500 }).catch(() => undefined)
  await expect(page.getByText(/On the bike: Rear rebound/).first()).toBeVisible()
  await page.waitForTimeout(2000)
  expect((await api<DayBundle>(page, `/days/${day.id}`)).setups.length).toBe(setups.length + 1)
})

for (const line of ['slow', 'quick'] as const)
  test(`Undo, tapped twice on a ${line} line, takes one change back`, async ({ page }) => {
    await page.goto(server.base + inDemo.day.address)
    await proposed(page)
    const path = new URL(page.url()).pathname
    for (const text of ['rear reb slower 1', 'fork reb faster 1']) {
      await page.keyboard.press('c')
      await page.getByRole('textbox', { name: 'Change', exact: true }).fill(text)
      await page.keyboard.press('Enter')
      await expect(page.getByRole('dialog', { name: 'Change in one line' })).toBeHidden()
    }
    const { setups } = await api<DayBundle>(page, path)
    if (line === 'slow') await slowly(page)
    await page.getByRole('button', { name: /^Undo: / }).dblclick()
    await expect(page.getByText(/^Taken back: /).first()).toBeVisible()
    await page.waitForTimeout(2500)
    expect((await api<DayBundle>(page, path)).setups.length).toBe(setups.length + 1)
  })

test('where everything stands, saved twice, is one reading', async ({ page }) => {
  await page.goto(`${server.base}/garage`)
  await page.getByRole('button', { name: 'Record current settings' }).first().click()
  const form = page.getByRole('dialog', { name: /where everything stands$/ })
  await expect(form).toBeVisible()
  const save = form.getByRole('button', { name: /^Save/ })
  const of = async () => {
    const all = (await garage(page)).bikes.map((b) => api<BikeSetups>(page, `/bikes/${b.id}/setups`))
    return (await Promise.all(all)).reduce((n, x) => n + x.setups.length, 0)
  }
  const before = await of()
  await slowly(page)
  await form.getByLabel('Pressure').first().fill('81')
  await page.keyboard.press('Tab')
  await save.click()
  await save.click({ force: true, noWaitAfter: true, timeout: 500 }).catch(() => undefined)
  await expect(form).toBeHidden()
  await page.waitForTimeout(2500)
  expect(await of()).toBe(before + 1)
})

test.describe('in the tent', () => {
  const tentId = idOf('tent practice')
  const entry = (page: Page) => page.getByRole('region', { name: 'Entry' })
  const comesIn = (page: Page) => entry(page).getByRole('button', { name: /^Comes in/ })
  async function open(page: Page) {
    await page.goto(`${server.base}/tent/${tentId}`)
    await expect(comesIn(page)).toBeEnabled()
  }
  const runs = async (page: Page) => {
    const { riders } = await api<{ riders: { id: string }[] }>(page, `/tents/${tentId}`)
    const all = await Promise.all(riders.map((r) => api<DayBundle>(page, `/days/${r.id}`)))
    return all.reduce((n, d) => n + d.runs.length, 0)
  }
  for (const line of ['slow', 'quick'] as const)
    test(`Comes in, tapped twice on a ${line} line, is one run`, async ({ page }) => {
      await open(page)
      const before = await runs(page)
      if (line === 'slow') await slowly(page)
      await comesIn(page).dblclick()
      await expect(page.getByText(/is in: run \d+ is logged/).first()).toBeVisible()
      await page.waitForTimeout(2000)
      expect(await runs(page)).toBe(before + 1)
    })

  test('a bike that is added twice has one day', async ({ page }) => {
    await open(page)
    await page.getByRole('button', { name: /^Riders/ }).click()
    const form = page.getByRole('dialog', { name: 'Riders in this tent' })
    await expect(form).toBeVisible()
    const before = (await days(page)).length
    await slowly(page)
    await form.getByLabel('A rider who has no day yet').selectOption({ index: 1 })
    const add = form.getByRole('button', { name: 'Begin a day here' })
    await add.click()
    await add.click({ force: true, noWaitAfter: true, timeout: 500 }).catch(() => undefined)
    await page.waitForTimeout(5000)
    expect((await days(page)).length).toBe(before + 1)
  })
})

test('a second day of one bike on one date is not begun by oversight', async ({ page }) => {
  const [today] = await days(page)
  await page.goto(`${server.base}/?new=day&bike=${today.bikeId}`)
  const form = page.getByRole('dialog', { name: 'New trail day' })
  await form.getByLabel('Day', { exact: true }).fill(today.date)
  await expect(form.getByText(/has a day on that date already, on .*Another one ends it/)).toBeVisible()
  await form.getByRole('link', { name: 'Go on with that day' }).click()
  await expect(page).toHaveURL(new RegExp(`/days/${today.id}`))
  await expect(form).toBeHidden()
  await page.goto(`${server.base}/?new=day&bike=${today.bikeId}`)
  await form.getByLabel('Day', { exact: true }).fill('2031-01-02')
  await expect(form.getByText(/has a day on that date already/)).toHaveCount(0)
})

test('a day of another year is asked about: it would stand in front of all that is ridden until then', async ({
  page,
}) => {
  const before = await days(page)
  const [today] = before
  await page.goto(`${server.base}/?new=day&bike=${today.bikeId}`)
  const form = page.getByRole('dialog', { name: 'New trail day' })
  const day = form.getByLabel('Day', { exact: true })
  for (const [year, says] of [
    ['2062', /years ahead; check month and year/],
    ['1026', 'The year 1026 is most likely a slip; check it.'],
  ] as const) {
    await day.fill(`${year}-11-29`)
    await form.getByRole('button', { name: 'Start the day' }).click()
    await expect(form.getByText(says)).toBeVisible()
  }
  expect(await days(page)).toEqual(before)
  const tomorrow = new Date(Date.now() + 26 * 3600_000).toISOString().slice(0, 10)
  await day.fill(tomorrow)
  await form.getByRole('button', { name: 'Start the day' }).click()
  await expect(form).toBeHidden()
  expect((await days(page)).length).toBe(before.length + 1)
  // What was done cannot have been done later than now.
  await page.goto(server.base)
  await page.getByText(/^\d+ bikes to check$/).click()
  await page
    .getByRole('button', { name: /^Log the check of/ })
    .first()
    .click()
  const service = page.getByRole('dialog', { name: /service log/ })
  await service.getByLabel('Day').fill('2062-01-02')
  await service.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(service.getByText('That day has not come yet.')).toBeVisible()
})

test.describe('where nothing is yet', () => {
  test.beforeEach(async () => {
    await server.stop()
    server = await startServer()
  })
  test('the invented rider, asked for twice, comes once', async ({ page }) => {
    await page.goto(server.base)
    await slowly(page, 300)
    await page.getByRole('button', { name: /Try it with an invented rider/ }).dblclick()
    await expect(page.getByRole('button', { name: /^Run 5,/ })).toBeVisible()
    await page.waitForTimeout(1500)
    expect((await days(page)).length).toBe(1)
    expect((await garage(page)).riders.length).toBe(1)
  })
  test('a rider’s form, entered twice, is one rider and no quarrel with oneself', async ({ page }) => {
    await page.goto(`${server.base}/garage`)
    await slowly(page)
    await page.getByRole('button', { name: 'New rider' }).click()
    const form = page.getByRole('dialog')
    await form.getByLabel('Name').fill('Mara')
    await form.getByLabel('Name').press('Enter')
    await page.waitForTimeout(200)
    await form
      .getByLabel('Name')
      .press('Enter', { timeout: 500 })
      .catch(() => undefined)
    await expect(form).toBeHidden()
    await page.waitForTimeout(1500)
    await expect(page.getByText(/changed elsewhere/)).toHaveCount(0)
    expect((await garage(page)).riders.map((r) => [r.name, r.version])).toEqual([['Mara', 1]])
  })
})
