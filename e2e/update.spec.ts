import { expect, test } from '@playwright/test'
import { startDemo } from './server.ts'

// Without the worker that keeps the page: as on every other device of a tent without a certificate.
test.use({ serviceWorkers: 'block' })

test('a tab that was open during an update goes where it is sent', async ({ page }) => {
  const server = await startDemo()
  await page.goto(server.base)
  await expect(page.getByText('Next: Rear: when does it kick?')).toBeVisible()
  // The parts of the version that this tab is of are gone.
  let asked = 0
  await page.route('**/assets/SetupsPage*.js', (route) => {
    asked++
    return asked === 1 ? route.fulfill({ status: 404, body: 'gone' }) : route.continue()
  })
  await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Setups' }).click()
  await expect(page).toHaveURL(/\/setups/)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  expect(asked).toBeGreaterThan(1)
  await server.stop()
})

test('a dialog that went with an update is told of, not silent', async ({ page }) => {
  const server = await startDemo()
  await page.goto(server.base)
  await expect(page.getByText('Next: Rear: when does it kick?')).toBeVisible()
  await page.route('**/assets/NewDayForm*.js', (route) => route.fulfill({ status: 404, body: 'gone' }))
  await expect(page.getByRole('alert')).toHaveCount(0)
  await page.getByRole('button', { name: 'New trail day' }).click()
  await expect(page.getByRole('alert')).toContainText('Reload the page')
  await page.unroute('**/assets/NewDayForm*.js')
  await page.reload()
  await page.getByRole('button', { name: 'New trail day' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await server.stop()
})
