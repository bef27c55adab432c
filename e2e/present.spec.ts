import { expect, test, type Browser, type Page } from '@playwright/test'
import type { DayBundle } from '../contract/endpoints.ts'
import { idOf } from '../demo/ids.ts'
import { handFile } from './handFile.ts'
import { startDemo, type RunningServer } from './server.ts'

let server: RunningServer
test.beforeAll(async () => {
  server = await startDemo()
})
test.afterAll(async () => server?.stop())

const halfWay = idOf('day half-way')
const settled = idOf('day settled')
const dialog = (page: Page) => page.getByRole('dialog').last()
const get = async (path: string) => (await fetch(`${server.base}/api/v1${path}`)).json()
async function onBike(): Promise<Record<string, number>> {
  const { bike, setups } = await get(`/days/${halfWay}`)
  const now = setups.find((s: { id: string }) => s.id === bike.currentSetupId)
  return Object.fromEntries(
    now.positions.map((p: { adjusterId: string; value: number }) => [p.adjusterId, p.value]),
  )
}
async function open(page: Page, id = halfWay) {
  await page.goto(`${server.base}/days/${id}`)
  await expect(page.locator('.day')).toBeVisible()
  // Judged, and what belongs to it drawn: before that a key may move under the hand of a script.
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await expect(page.locator('[aria-busy="true"]')).toHaveCount(0)
}
async function turn(page: Page, rail: RegExp, key: 'ArrowRight' | 'ArrowLeft') {
  await page.getByRole('slider', { name: rail }).press(key)
  await page.getByRole('button', { name: 'Done, it is on' }).click()
}

test('a day’s own form saves what was typed in it, and not what stood in it over what was noted elsewhere meanwhile', async ({
  page,
}) => {
  await open(page)
  await page.getByRole('button', { name: 'About this day' }).click()
  await expect(dialog(page).getByLabel('Changes at most')).toBeVisible()
  const held = async () => ((await get(`/days/${halfWay}`)) as DayBundle).day
  const elsewhere = async (change: object) => {
    const put = await fetch(`${server.base}/api/v1/days/${halfWay}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...(await held()), ...change }),
    })
    expect(put.ok).toBe(true)
  }
  const before = await held()
  await elsewhere({ conditions: { ...before.conditions, airTempC: 27 } })
  await page.waitForTimeout(1000)
  await dialog(page).getByLabel('Changes at most').fill('11')
  await dialog(page).getByLabel('Altitude').fill('640')
  await dialog(page).getByRole('button', { name: 'Save' }).click()
  await expect(dialog(page)).toBeHidden()
  expect(await held()).toMatchObject({ changeLimit: 11, conditions: { airTempC: 27, altitudeM: 640 } })
  // The tests after this one find the day as it was.
  await elsewhere({ changeLimit: before.changeLimit, conditions: before.conditions })
})

test('two windows and a phone on one day, each turning something while another is saving: all three show the same', async ({
  browser,
}) => {
  const windows = await Promise.all([
    windowOf(browser, 1280),
    windowOf(browser, 1280),
    windowOf(browser, 390),
  ])
  for (const w of windows) await open(w)
  const phone = windows[2]
  await phone
    .getByRole('navigation', { name: 'Parts of the day' })
    .getByRole('button', { name: 'Bike' })
    .click()
  // Saves travel slowly, so that they meet on the way.
  for (const w of windows)
    await w.route('**/api/v1/setups/*', async (route) => {
      await new Promise((r) => setTimeout(r, 300))
      await route.continue()
    })
  await Promise.all([
    turn(windows[0], /front Rebound/, 'ArrowRight'),
    turn(windows[1], /rear Rebound/, 'ArrowRight'),
    turn(phone, /front Low-speed/, 'ArrowLeft'),
  ])
  const turnedAll = async () => {
    const now = await onBike()
    return (
      now[idOf('ilka fork rebound')] === 7 &&
      now[idOf('ilka shock rebound')] === 6 &&
      now[idOf('ilka fork lsc')] === 9
    )
  }
  // Whoever met a bike that had been changed is asked, and says that the turn was made all the same.
  for (let i = 0; i < 30; i++) {
    for (const w of windows) {
      const mine = w.getByRole('button', { name: 'I’ve turned mine too' })
      if (await mine.isVisible()) await mine.click({ timeout: 1000 }).catch(() => undefined)
    }
    if (await turnedAll()) break
    await phone.waitForTimeout(300)
  }
  for (const w of windows)
    for (const words of [
      /front Rebound, 7 clicks/,
      /rear Rebound, 6 clicks/,
      /front Low-speed compression, 9 clicks/,
    ])
      await expect(w.getByRole('slider', { name: words })).toBeVisible()
  const now = await onBike()
  expect([
    now[idOf('ilka fork rebound')],
    now[idOf('ilka shock rebound')],
    now[idOf('ilka fork lsc')],
  ]).toEqual([7, 6, 9])
  // A garage that stayed open says the same, without being asked.
  await windows[0].goto(`${server.base}/garage`)
  const card = windows[0]
    .getByRole('article')
    .filter({ has: windows[0].getByRole('heading', { name: '150 mm trail bike' }) })
  await expect(card.getByText('7 clicks', { exact: true })).toBeVisible()
  await turn(windows[1], /front Rebound/, 'ArrowRight')
  await expect(card.getByText('8 clicks', { exact: true })).toBeVisible()
  for (const w of windows) await w.context().close()
})
async function windowOf(browser: Browser, width: number): Promise<Page> {
  const context = await browser.newContext({ viewport: { width, height: 844 }, hasTouch: width < 700 })
  return context.newPage()
}

test('undo says what it will do, walks back one by one, and counts as nothing', async ({ page }) => {
  await open(page)
  const before = await onBike()
  await turn(page, /rear Rebound/, 'ArrowRight')
  await expect(page.getByText(/^On the bike: Rear rebound \d+ → \d+ clicks, 1 click faster/)).toBeVisible()
  const undo = page.getByRole('button', { name: /^Undo: Rear rebound/ })
  await expect(undo).toBeVisible()
  const counted = await page.getByText(/of 8 changes today/).innerText()
  await undo.click()
  await expect(page.getByText(/^Taken back: Rear rebound/)).toBeVisible()
  await expect.poll(onBike).toEqual(before)
  const [n, m] = [counted, await page.getByText(/of 8 changes today/).innerText()].map((t) =>
    Number(t.split(' ')[0]),
  )
  expect(m).toBe(n - 1)
  // The notice speaks of this day, and leaves with it.
  await page.goto(`${server.base}/days/${settled}`)
  await expect(page.getByText(/^Taken back/)).toHaveCount(0)
})

test('a past day turns nothing by itself: it offers its settings, turn by turn', async ({ page }) => {
  await open(page, settled)
  const before = await onBike()
  await expect(page.getByText('This day is over')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'On the bike at the end of that day' })).toBeVisible()
  await expect(page.getByRole('button', { name: /Log run/ })).toHaveCount(0)
  const rail = page.getByRole('slider', { name: /rear Rebound/ })
  await rail.click({ force: true })
  await page.keyboard.press('c')
  await expect(page.getByRole('button', { name: 'Done, it is on' })).toHaveCount(0)
  expect(await onBike()).toEqual(before)
  await page.getByRole('button', { name: 'Put this on the bike now' }).click()
  const all = dialog(page).getByRole('button', { name: 'All made: it is on the bike' })
  await expect(all).toBeDisabled()
  const ticks = await dialog(page).getByRole('checkbox').all()
  expect(ticks.length).toBeGreaterThan(1)
  for (const t of ticks.slice(1)) await t.check()
  // Half made is not made.
  await expect(all).toBeDisabled()
  expect(await onBike()).toEqual(before)
  await ticks[0].check()
  await all.click()
  await expect(page.getByText(/is on the bike: \d+ turns made/)).toBeVisible()
  const { setups } = await get(`/days/${settled}`)
  const last = setups.filter((s: { dayId: string | null }) => s.dayId === settled).at(-1)
  const now = await onBike()
  for (const p of last.positions) expect(now[p.adjusterId]).toBe(p.value)
})

// Twice in six whole runs its page was blank or did not answer after *Turns to make*; over a hundred times by itself it passed.
// Until that is found out it has a second try, which `npm test` tells by name.
test.describe('carried over', () => {
  test.describe.configure({ retries: 1 })
  test('a carried setup is wanted until somebody has turned it', async ({ page }) => {
    const before = await onBike()
    await open(page, settled)
    await page.getByRole('button', { name: 'Carry it over' }).click()
    await dialog(page).getByLabel('Riding weight there').fill('82')
    await page.keyboard.press('Tab')
    await dialog(page).getByRole('button', { name: 'Save it as a start' }).click()
    await expect(page.getByText('Wanted, not on the bike: Carried from').first()).toBeVisible()
    expect(await onBike()).toEqual(before)
    await page.getByRole('button', { name: 'Turns to make' }).click()
    await dialog(page).getByRole('checkbox').first().waitFor()
    for (const t of await dialog(page).getByRole('checkbox').all()) await t.check()
    await dialog(page).getByRole('button', { name: 'All made: it is on the bike' }).click()
    await expect(page.getByText('Wanted, not on the bike')).toHaveCount(0)
    // The page shows what was sent before the answer is there: the server may be a moment behind.
    await expect.poll(onBike).not.toEqual(before)
  })
})

test.describe('with a finger', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('a swipe up over the rails scrolls, and turns nothing', async ({ page, context }) => {
    await open(page)
    await page
      .getByRole('navigation', { name: 'Parts of the day' })
      .getByRole('button', { name: 'Bike' })
      .tap()
    const rail = page.getByRole('slider', { name: /front Rebound/ })
    const box = (await rail.boundingBox())!
    const x = box.x + box.width * 0.2
    const cdp = await context.newCDPSession(page)
    const touch = (type: string, y?: number) =>
      cdp.send('Input.dispatchTouchEvent', {
        type: type as 'touchStart',
        touchPoints: y === undefined ? [] : [{ x, y }],
      })
    await touch('touchStart', box.y + 20)
    for (let dy = 12; dy <= 240; dy += 12) await touch('touchMove', box.y + 20 - dy)
    await touch('touchEnd')
    await expect.poll(() => page.evaluate(() => scrollY)).toBeGreaterThan(50)
    await expect(page.getByRole('button', { name: 'Done, it is on' })).toHaveCount(0)
    // A tap is still a tap.
    await rail.tap({ position: { x: box.width * 0.9, y: 20 } })
    await expect(page.getByRole('button', { name: 'Done, it is on' })).toBeVisible()
    await page.getByRole('button', { name: 'Cancel' }).tap()
    for (const step of await page.locator('button.step').all()) {
      const size = (await step.boundingBox())!
      expect(Math.min(size.width, size.height)).toBeGreaterThanOrEqual(48)
    }
  })
})

test('a sensor file whose answer is lost is on the run once, however often it is asked for', async ({
  page,
}) => {
  await open(page)
  await page.getByRole('button', { name: /^Run 1,/ }).click()
  await page.getByRole('button', { name: 'Add a sensor file' }).click()
  await dialog(page)
    .locator('input[type=file]')
    .setInputFiles({ name: 'lost.csv', mimeType: 'text/csv', buffer: handFile({ sinking: 1, seconds: 10 }) })
  let lost = 0
  await page.route('**/api/v1/recordings/*', async (route) => {
    if (route.request().method() !== 'PUT' || lost > 0) return route.continue()
    lost++
    await route.fetch()
    await route.abort()
  })
  await dialog(page).getByRole('button', { name: 'Put it on run 1' }).click()
  await expect(page.getByRole('link', { name: 'What the suspension did' })).toBeVisible()
  expect(lost).toBe(1)
  const { recordings } = await get(`/days/${halfWay}`)
  expect(recordings.filter((r: { fileName: string }) => r.fileName === 'lost.csv')).toHaveLength(1)
})

test('what was removed lies on the shelf and comes back, long after the notice is gone', async ({ page }) => {
  await page.goto(`${server.base}/garage`)
  await page.getByRole('button', { name: /^Joren/ }).click()
  await page.getByRole('button', { name: 'Remove Joren' }).click()
  await expect(page.getByText('Joren and every bike of this rider was removed')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('button', { name: /^Ilka/ })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Joren/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Removed', exact: true }).click()
  await expect(page.getByRole('heading', { name: /^Removed: \d/ })).toBeVisible()
  await page.getByRole('button', { name: 'Bring Joren back' }).click()
  await expect(page.getByText('Joren is back.')).toBeVisible()
  await page.getByRole('button', { name: 'Riders', exact: true }).click()
  await expect(page.getByRole('button', { name: /^Joren/ })).toBeVisible()
})

test('a run on the shelf goes by the time on the clock of whoever looks', async ({ browser }) => {
  // Three quarters of an hour off every server's clock.
  const context = await browser.newContext({ timezoneId: 'Asia/Kathmandu', serviceWorkers: 'block' })
  const page = await context.newPage()
  const runId = idOf('half-way run 2')
  const day = await (await context.request.get(`${server.base}/api/v1/days/${idOf('day half-way')}`)).json()
  const { startedAt } = (day as DayBundle).runs.find((r) => r.id === runId)!
  expect((await context.request.delete(`${server.base}/api/v1/runs/${runId}`)).status()).toBe(200)
  const there = new Date(Date.parse(startedAt) + (5 * 60 + 45) * 60_000).toISOString().slice(11, 16)
  await page.goto(`${server.base}/garage?part=shelf`)
  const row = page.getByRole('listitem').filter({ hasText: 'run, ' })
  await expect(row).toContainText(there)
  await row.getByRole('button', { name: /^Bring .* back$/ }).click()
  await expect(page.getByText(new RegExp(`${there} is back\\.$`))).toBeVisible()
  await context.close()
})

test('a browser that keeps nothing still shows the day, saves, and says so', async ({ page }) => {
  await page.addInitScript(() => {
    for (const name of ['localStorage', 'indexedDB'])
      Object.defineProperty(window, name, {
        get() {
          throw new DOMException('blocked', 'SecurityError')
        },
      })
  })
  await open(page)
  await expect(page.getByText('This browser keeps nothing on the device')).toBeVisible()
  await page.getByLabel('Note on this run').fill('written without storage')
  await expect(page.getByText('saved', { exact: true })).toBeVisible()
  const { feels } = await get(`/days/${halfWay}`)
  expect(feels.some((f: { note: string }) => f.note === 'written without storage')).toBe(true)
})

test('on a slow line what was removed or saved does not fall back while the garage is read again', async ({
  page,
}) => {
  await page.goto(`${server.base}/garage`)
  await page.getByRole('button', { name: /^Joren/ }).click()
  let slow = 0
  await page.route('**/api/v1/garage', async (route) => {
    slow++
    await new Promise((resolve) => setTimeout(resolve, 2500))
    await route.continue().catch(() => undefined)
  })
  const stays = async (what: () => Promise<boolean>) => {
    for (let i = 0; i < 20; i++, await page.waitForTimeout(100)) expect(await what()).toBe(true)
  }
  await page.getByRole('button', { name: 'Edit Joren' }).click()
  await dialog(page).getByLabel('Name', { exact: true }).fill('Joren the elder')
  await dialog(page).getByRole('button', { name: 'Save rider' }).click()
  await expect(dialog(page)).toHaveCount(0)
  await stays(() =>
    page
      .getByRole('button', { name: /^Joren the elder/ })
      .first()
      .isVisible(),
  )
  await page.getByRole('button', { name: 'Remove Joren the elder' }).click()
  await expect(page.getByText('Joren the elder and every bike of this rider was removed')).toBeVisible()
  await stays(async () => (await page.getByRole('button', { name: /^Joren/ }).count()) === 0)
  expect(slow).toBeGreaterThan(1)
})
