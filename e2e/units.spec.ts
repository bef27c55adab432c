import { expect, test, type Page } from '@playwright/test'
import { otherUnits } from '../core/test/otherUnits.ts'
import { idOf } from '../demo/ids.ts'
import { inDemo } from './screens.ts'
import { startDemo, type RunningServer } from './server.ts'

/** Who reads bar, inches, pounds, °F and feet is told nothing in psi, kilograms or °C, wherever it stands. */
let server: RunningServer
test.beforeAll(async () => void (server = await startDemo()))
test.afterAll(async () => server?.stop())

/** Travel and stroke are names of parts here; speeds are of the machine. */
const inOthers = /\d[\d.,]*\s*(psi|kg|°C|N\/mm)(?![\w/])/
const days = ['tent mika', 'tent sanna', 'heat', 'spring']

/** Lines of text, names and hints of what is on the screen. */
const lines = (page: Page) =>
  page.evaluate(() => {
    const hints = [...document.querySelectorAll('[aria-label], [title], [placeholder], [alt]')].flatMap((e) =>
      ['aria-label', 'title', 'placeholder', 'alt'].map((a) => e.getAttribute(a) ?? ''),
    )
    return [...document.body.innerText.split('\n'), ...hints]
  })

test('every screen speaks the units that were chosen', async ({ page }) => {
  await page.addInitScript((u) => localStorage.setItem('wild-spring:units', JSON.stringify(u)), otherUnits)
  const found: string[] = []
  const look = async (where: string) => {
    for (const line of await lines(page)) if (inOthers.test(line)) found.push(`${where}: ${line}`)
  }
  // The handbook says of how many °C and psi its rules are.
  for (const [screen, { address, ready }] of Object.entries(inDemo))
    if (!['handbook', 'enter', 'lost'].includes(screen)) {
      await page.goto(server.base + address)
      await ready(page)
      await look(screen)
    }
  for (const name of days) {
    await page.goto(`${server.base}/days/${idOf(`day ${name}`)}`)
    await expect(page.getByRole('heading', { name: 'On the bike now' })).toBeVisible()
    await expect(page.getByText('Working it out')).toHaveCount(0)
    await look(`day ${name}`)
  }
  // What asks when a setup goes elsewhere, or comes from another air.
  await page.goto(`${server.base}/setups/${idOf('tarek bike')}`)
  await page.getByRole('button', { name: /^Wet roots, October/ }).click()
  for (const ask of ['Put it on the bike', 'For other ground', 'Card to take along']) {
    await page.getByRole('button', { name: ask }).first().click()
    const dialog = page.getByRole('dialog')
    await expect(dialog).toBeVisible()
    if (ask.startsWith('Put')) {
      await dialog.getByLabel('Air now').fill('34')
      await dialog.getByLabel('Air now').blur()
      await expect(dialog.getByText(/°F colder/).first()).toBeVisible()
    }
    await look(ask)
    await page.keyboard.press('Escape')
    await expect(dialog).toHaveCount(0)
  }
  await page.goto(`${server.base}/start`)
  await look('start')
  expect([...new Set(found)]).toEqual([])
})
