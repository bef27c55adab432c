import { expect, test } from '@playwright/test'
import type { Garage } from '../contract/endpoints.ts'
import { ridingMassKg } from '../core/spring/load.ts'
import { inDemo } from './screens.ts'
import { startDemo } from './server.ts'

/** Screens that lie open beside others; a weight is entered at the bench, at a start and in the rider's own form. */
const shared = ['today', 'garage', 'setups', 'tent', 'day', 'trace', 'compare', 'data', 'access'] as const

test('no screen that lies open beside others says what anybody weighs', async ({ page }) => {
  const server = await startDemo()
  const garage = (await (await page.request.get(`${server.base}/api/v1/garage`)).json()) as Garage
  const kg = garage.riders.flatMap((r) =>
    r.bodyMassKg === null ? [] : [r.bodyMassKg, r.bodyMassKg + (r.kitMassKg ?? 0), ridingMassKg(r)],
  )
  const weights = new Set(kg.flatMap((m) => [`${m} kg`, `${Math.round(m)} kg`, `${m.toFixed(1)} kg`]))
  expect(weights.size).toBeGreaterThan(20)
  for (const name of shared) {
    await test.step(name, async () => {
      const { address, ready } = inDemo[name]
      await page.goto(server.base + address)
      await ready(page)
      const said = await page.locator('body').innerText()
      const found = [...said.matchAll(/\d+(?:\.\d+)? kg/g)].map((m) => m[0])
      expect(found.filter((w) => weights.has(w))).toEqual([])
    })
  }
  await test.step('it is told where it is entered', async () => {
    await page.goto(`${server.base}/garage`)
    await inDemo.garage.ready(page)
    const rider = garage.riders.find((r) => r.bodyMassKg !== null)!
    await page
      .getByRole('button', { name: new RegExp(`^${rider.name}`) })
      .first()
      .click()
    await page.getByRole('button', { name: `Edit ${rider.name}` }).click()
    await expect(page.getByLabel('Body weight')).toHaveValue(String(rider.bodyMassKg))
  })
})
