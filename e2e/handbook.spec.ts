import { expect, test, type Page } from '@playwright/test'
import type { BikeSetups } from '../contract/bikeSetups.ts'
import type { Garage } from '../contract/endpoints.ts'
import type { Setup } from '../contract/setup.ts'
import type { SuspensionUnit } from '../contract/unit.ts'
import { startDemo, startServer, type RunningServer } from './server.ts'

// Nothing here writes: one demo serves all.
let server: RunningServer
test.beforeAll(async () => {
  server = await startDemo()
})
test.afterAll(async () => server?.stop())

/** Where a part stands, if somebody turned, pumped or counted it. */
const knownAt = (now: Setup, unit: SuspensionUnit, role: string) => {
  const part = unit.adjusters.find((a) => a.role === role)
  return now.positions.find((p) => p.adjusterId === part?.id && p.known.how !== 'assumed')?.value
}

test('a figure opens with what somebody set or read on a bike, and with nothing else', async ({ page }) => {
  const garage = (await (await page.request.get(`${server.base}/api/v1/garage`)).json()) as Garage
  await page.goto(`${server.base}/handbook/works/air-spring-and-spacers`)
  const figure = page.getByRole('region', { name: 'More air, or a spacer' })
  const whose = figure.getByLabel('Opens with the numbers of')
  const pressure = figure.getByRole('slider', { name: /^Pressure/ })
  await expect(pressure).toBeVisible()
  let own = 0
  for (const bike of garage.bikes) {
    const now = garage.currentSetups.find((s) => s.bikeId === bike.id)
    const fork = garage.units.find((u) => u.id === bike.frontUnitId)
    if (!now || !fork) continue
    await whose.selectOption(bike.id)
    const psi = knownAt(now, fork, 'main-pressure')
    const spacers = fork.adjusters.some((a) => a.kind === 'spacer') ? knownAt(now, fork, 'spacers') : 0
    if (psi !== undefined && spacers !== undefined && !fork.assumed.includes('strokeMm')) {
      own++
      await expect(figure.getByText(/^The fork of this bike/)).toBeVisible()
      await expect(pressure, bike.name).toHaveValue(String(psi))
    } else {
      await expect(figure.getByText(/^An invented 150 mm fork/)).toBeVisible()
      await expect(figure.getByText(/So the numbers are invented/)).toBeVisible()
    }
  }
  expect(own).toBeGreaterThan(3)
  await whose.selectOption({ label: 'an invented bike' })
  await expect(pressure).toHaveValue('75')
  // What was chosen goes along to the next page.
  await page.getByRole('link', { name: 'Sag', exact: true }).first().click()
  await expect(page.getByText(/^An invented shock/)).toBeVisible()
  await expect(page.getByLabel('Opens with the numbers of')).toHaveValue('')
})

/** Every bike that has something on it, with its parts. */
async function standing(page: Page) {
  const garage = (await (await page.request.get(`${server.base}/api/v1/garage`)).json()) as Garage
  return garage.bikes.flatMap((bike) => {
    const now = garage.currentSetups.find((s) => s.bikeId === bike.id)
    const unit = (id: string | null) => garage.units.find((u) => u.id === id)
    return now ? [{ bike, now, fork: unit(bike.frontUnitId), shock: unit(bike.rearUnitId) }] : []
  })
}

test('figures of rebound begin at the click that was counted on the bike, in its own count', async ({
  page,
}) => {
  const bikes = await standing(page)
  await page.goto(`${server.base}/handbook/works/packing`)
  const whose = page.getByLabel('Opens with the numbers of')
  const dial = page.getByRole('slider', { name: /^Rebound/ })
  await expect(dial).toBeVisible()
  let [own, invented] = [0, 0]
  for (const { bike, now, fork, shock } of bikes) {
    await whose.selectOption(bike.id)
    const unit = shock ?? fork!
    const part = unit.adjusters.find((a) => a.kind === 'click' && a.role.endsWith('rebound'))
    const at = part && knownAt(now, unit, part.role)
    if (part?.kind !== 'click' || at === undefined || unit.assumed.includes(part.id)) {
      invented++
      await expect(page.getByText(/So the numbers are invented/)).toBeVisible()
      await expect(dial).toHaveValue('4')
      continue
    }
    own++
    await expect(page.getByText(/rebound of this bike, where it was counted to stand/)).toBeVisible()
    await expect(dial, bike.name).toHaveValue(String(at))
    await expect(dial).toHaveAttribute('max', String(part.clicks))
    const counted = part.countBase === 'open' ? part.clicks - at : part.countBase === 'closed-1' ? at + 1 : at
    await expect(page.getByText(new RegExp(`^Rebound ${counted} clicks from`))).toBeVisible()
  }
  expect(own).toBeGreaterThan(3)
  expect(own + invented).toBe(bikes.length)
})

test('the figure of noise scatters as the rider of the bike does, where repeats have shown it', async ({
  page,
}) => {
  const bikes = await standing(page)
  await page.goto(`${server.base}/handbook/works/noise`)
  const whose = page.getByLabel('Opens with the numbers of')
  const scatter = page.getByRole('slider', { name: /scatter by/ })
  await expect(scatter).toBeVisible()
  let own = 0
  for (const { bike } of bikes) {
    const all = (await (
      await page.request.get(`${server.base}/api/v1/bikes/${bike.id}/setups`)
    ).json()) as BikeSetups
    const repeated = all.ridden.filter((r) => r.ratings.length > 1).map((r) => r.ratings)
    const repeats = repeated.reduce((n, r) => n + r.length - 1, 0)
    await whose.selectOption(bike.id)
    if (repeats < 4) {
      await expect(page.getByText(/Too few of its settings were ridden twice/)).toBeVisible()
      await expect(scatter).toHaveValue('0.7')
      continue
    }
    own++
    const off = repeated.flatMap((r) => r.map((x) => x - r.reduce((a, b) => a + b, 0) / r.length))
    const sd = Math.sqrt(off.reduce((n, x) => n + x * x, 0) / repeats)
    await expect(page.getByText(`by ${repeats} repeats on its days`)).toBeVisible()
    await expect(scatter, bike.name).toHaveValue(String(Math.max(0.2, Math.round(10 * sd) / 10)))
  }
  expect(own).toBeGreaterThan(0)
  expect(own).toBeLessThan(bikes.length)
})

test('without a bike the figures are invented, and nobody is asked whose they are', async ({ page }) => {
  const empty = await startServer()
  await page.goto(`${empty.base}/handbook/works/sag`)
  await expect(page.getByText(/^An invented shock/)).toBeVisible()
  await expect(page.getByLabel('Opens with the numbers of')).toHaveCount(0)
  await empty.stop()
})

test('a step of a slider moves the line at once, and who points at it reads the new one', async ({
  page,
}) => {
  await page.goto(`${server.base}/handbook/works/packing`)
  const figure = page.getByRole('img', { name: /^Depth over time along/ })
  const height = page.getByRole('slider', { name: /% of travel$/ })
  await expect(figure).toBeVisible()
  /** Mean height of what is painted on the canvas of the lines, px from its top; null: nothing is. */
  const paintedAt = () =>
    figure.locator('canvas').evaluateAll((all) => {
      const canvas = all[all.length - 1] as HTMLCanvasElement
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height)
      const rows: number[] = []
      for (let i = 3; i < data.length; i += 4) if (data[i] > 200) rows.push(Math.floor(i / 4 / canvas.width))
      return rows.length > 0 ? rows.reduce((t, y) => t + y, 0) / rows.length : null
    })
  await expect.poll(paintedAt).not.toBeNull()
  const before = (await paintedAt())!
  const { x, y, width, height: tall } = (await figure.boundingBox())!
  const readOut = figure.getByText(/% deep/)
  const pointAt = (px: number) => page.mouse.move(x + width / 2 + px, y + tall / 2)
  await pointAt(0)
  const said = await readOut.innerText()
  await height.focus()
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight')
  // Higher bumps go deeper, and deeper is further up.
  await expect.poll(async () => before - (await paintedAt())!).toBeGreaterThan(5)
  await pointAt(1)
  await expect(readOut).not.toHaveText(said)
  // On a narrower page it still lies inside of its axes.
  await page.setViewportSize({ width: 390, height: 844 })
  await expect.poll(async () => (await figure.boundingBox())!.width).toBeLessThan(width)
  await expect.poll(paintedAt).not.toBeNull()
})

test('a whole question finds its pages, in the handbook and in the search of everything', async ({
  page,
}) => {
  await page.goto(`${server.base}/handbook`)
  await page.getByRole('searchbox').fill('my fork dives when I brake')
  await page
    .getByRole('link', { name: /^dives/ })
    .first()
    .click()
  await expect(page).toHaveURL(/\/handbook\/feels\/dives$/)
  await page.getByRole('button', { name: 'Search everything' }).click()
  await page.getByRole('combobox').fill('rebound too slow')
  await page
    .getByRole('option')
    .filter({ has: page.getByText('Rebound', { exact: true }) })
    .first()
    .click()
  await expect(page).toHaveURL(/\/handbook\/(dials|words)\/rebound$/)
  // Records are found by their names as before, ahead of any page.
  await page.getByRole('button', { name: 'Search everything' }).click()
  await page.getByRole('combobox').fill('Ilka')
  await expect(page.getByRole('option').first()).toContainText('Ilka')
})
