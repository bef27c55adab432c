import { expect, test } from '@playwright/test'
import type { Garage } from '../contract/endpoints.ts'
import type { Setup } from '../contract/setup.ts'
import type { SuspensionUnit } from '../contract/unit.ts'
import { startDemo, startServer, type RunningServer } from './server.ts'

let server: RunningServer
test.afterEach(async () => server?.stop())

/** Where a part stands, if somebody turned, pumped or counted it. */
const knownAt = (now: Setup, unit: SuspensionUnit, role: string) => {
  const part = unit.adjusters.find((a) => a.role === role)
  return now.positions.find((p) => p.adjusterId === part?.id && p.known.how !== 'assumed')?.value
}

test('a figure opens with what somebody set or read on a bike, and with nothing else', async ({ page }) => {
  server = await startDemo()
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

test('without a bike the figures are invented, and nobody is asked whose they are', async ({ page }) => {
  server = await startServer()
  await page.goto(`${server.base}/handbook/works/sag`)
  await expect(page.getByText(/^An invented shock/)).toBeVisible()
  await expect(page.getByLabel('Opens with the numbers of')).toHaveCount(0)
})
