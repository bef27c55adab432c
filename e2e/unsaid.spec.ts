import { expect, test } from '@playwright/test'
import type { DayBundle, Garage } from '../contract/endpoints.ts'
import { inDemo } from './screens.ts'
import { startDemo, type RunningServer } from './server.ts'

/** What nobody has said stands nowhere as if somebody had: not the ground of a day, not the length of a trail, not the air elsewhere. */
let server: RunningServer
test.beforeEach(async () => void (server = await startDemo()))
test.afterEach(async () => server?.stop())

test('a day begun without a word on its ground has none, until it is said', async ({ page }) => {
  await page.goto(`${server.base}/?new=day`)
  const form = page.getByRole('dialog', { name: 'New trail day' })
  await expect(form.getByLabel('Surface').locator('option:checked')).toHaveText('not noted')
  await form.getByRole('button', { name: 'Start the day' }).click()
  await expect(page.getByRole('heading', { name: 'One warm-up run, then the baseline' })).toBeVisible()
  const held = async () =>
    (await (
      await page.request.get(`${server.base}/api/v1${new URL(page.url()).pathname}`)
    ).json()) as DayBundle
  expect((await held()).day.conditions).toEqual({ airTempC: null, altitudeM: null, surface: null })
  const head = page.locator('header.bar')
  await expect(head).not.toContainText(/dry|damp|wet|noted|null/)
  await page.getByRole('button', { name: 'About this day' }).click()
  const settings = page.getByRole('dialog', { name: 'This day' })
  await expect(settings.getByLabel('Surface').locator('option:checked')).toHaveText('not noted')
  await settings.getByLabel('Surface').selectOption({ label: 'wet' })
  await settings.getByRole('button', { name: 'Save' }).click()
  await expect(settings).toBeHidden()
  await expect.poll(async () => (await held()).day.conditions.surface).toBe('wet')
  await expect(head).toContainText('wet')
})

test('how a rider rides is told when it was said, and not before', async ({ page }) => {
  await page.goto(`${server.base}/garage`)
  await page.getByRole('button', { name: 'New rider' }).click()
  const form = page.getByRole('dialog', { name: 'New rider' })
  await form.getByLabel('Name').fill('Vesper')
  await expect(form.getByLabel('Level').locator('option:checked')).toHaveText('not said')
  await form.getByRole('button', { name: 'Save rider' }).click()
  await expect(form).toBeHidden()
  const vesper = async () =>
    ((await (await page.request.get(`${server.base}/api/v1/garage`)).json()) as Garage).riders.find(
      (r) => r.name === 'Vesper',
    )!
  expect((await vesper()).assumed).toEqual(['level', 'taste'])
  await page.goto(`${server.base}/garage?rider=${(await vesper()).id}`)
  const head = page.locator('.page-head').filter({ has: page.getByRole('heading', { name: 'Vesper' }) })
  await expect(head).toBeVisible()
  await expect(head).not.toContainText(/intermediate|feel/)
  await page.getByRole('button', { name: 'Edit Vesper' }).click()
  const edit = page.getByRole('dialog', { name: 'Rider' })
  await edit.getByLabel('Level').selectOption({ label: 'intermediate' })
  await edit.getByRole('button', { name: 'Save rider' }).click()
  await expect(edit).toBeHidden()
  await expect(head).toContainText('intermediate')
  await expect(head).not.toContainText('feel')
})

test('a trail is kept without the lengths that nobody has measured', async ({ page }) => {
  await page.goto(`${server.base}/garage?part=trails`)
  await page.getByRole('button', { name: 'New trail' }).click()
  const form = page.getByRole('dialog', { name: 'New trail' })
  await form.getByLabel('Trail or part of it').fill('Heron Steps')
  await form.getByRole('button', { name: 'roots' }).click()
  await form.getByRole('button', { name: 'berms' }).click()
  await form.getByLabel('Section 2, length in m').fill('240')
  await expect(form.getByText(/^2 sections, 240 m, 1 without a length/)).toBeVisible()
  // What was typed and taken back is not said either.
  await form.getByLabel('Section 1, length in m').fill('90')
  await form.getByLabel('Section 1, length in m').fill('')
  await form.getByRole('button', { name: 'Save trail' }).click()
  await expect(form).toBeHidden()
  const garage = (await (await page.request.get(`${server.base}/api/v1/garage`)).json()) as Garage
  const trail = garage.trails.find((t) => t.name === 'Heron Steps')!
  expect(trail.sections.map((s) => s.lengthM)).toEqual([null, 240])
  await expect(page.getByText('Roots (roots) · Berms (berms, 240 m)')).toBeVisible()
})

test('the air elsewhere is reckoned with when it is said, not before', async ({ page }) => {
  await page.goto(server.base + inDemo.bench.address.replace('sag-rear', 'who'))
  await page.getByLabel('Air', { exact: true }).fill('12')
  await page.getByRole('button', { name: /Name and save/ }).click()
  const there = page.locator('section.weather')
  await expect(there.getByLabel('Air there')).toHaveValue('')
  await expect(there.getByText(/untouched it will read/)).toHaveCount(0)
  await there.getByLabel('Air there').fill('27')
  await page.keyboard.press('Tab')
  const of = (end: string) => there.getByRole('listitem').filter({ hasText: `${end}: ` })
  await expect(of('Front')).toContainText(/untouched it will read \d+ psi; set \d+ psi for the same sag/)
  await expect(of('Rear')).toContainText('nobody has read its sag')
  await expect(of('Front')).not.toContainText('nobody has read')
})

test('carried over, ground and air count where they were noted; what was not is named', async ({ page }) => {
  const id = inDemo.day.address.slice('/days/'.length)
  const api = `${server.base}/api/v1/days/${id}`
  const { day, bike } = (await (await page.request.get(api)).json()) as DayBundle
  const put = await page.request.put(api, {
    data: { ...day, conditions: { airTempC: null, altitudeM: null, surface: null } },
  })
  expect(put.status()).toBe(200)
  await page.goto(`${server.base}/setups/${bike.id}`)
  await page.getByRole('button', { name: 'Carry over to …' }).click()
  const form = page.getByRole('dialog', { name: 'Carry this setup over' })
  await form.getByLabel('Riding weight there').fill('90')
  const left = form.getByText(/^Not counted/)
  await expect(left).toHaveCount(0)
  await form.getByLabel('Surface there').selectOption({ label: 'wet' })
  await form.getByLabel('Air there').fill('30')
  await page.keyboard.press('Tab')
  await expect(left).toHaveText(
    'Not counted, since nobody noted it where this setup was found: the air and the ground.',
  )
  // Nothing of it moves for wet ground or for warm air.
  await expect(form.locator('.rows')).not.toContainText(/wet|warmer|grip/i)
})
