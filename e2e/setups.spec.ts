import { expect, test, type Page } from '@playwright/test'
import { v7 as uuid } from 'uuid'
import type { BikeSetups } from '../contract/bikeSetups.ts'
import type { Garage } from '../contract/endpoints.ts'
import { idOf } from '../demo/ids.ts'
import { drawPdf } from './pdfPicture.ts'
import { startDemo, startServer, type RunningServer } from './server.ts'

let server: RunningServer
test.beforeEach(async () => void (server = await startDemo()))
test.afterEach(async () => server?.stop())

const tarek = idOf('tarek bike')
const setups = `/setups/${tarek}`
const held = async (page: Page, base = server.base) =>
  (await (
    await page.request.get(`${base}/api/v1${setups}`.replace('/setups/', '/bikes/') + '/setups')
  ).json()) as BikeSetups
const garage = async (page: Page, base = server.base) =>
  (await (await page.request.get(`${base}/api/v1/garage`)).json()) as Garage
const present = async (page: Page, base = server.base) =>
  (await garage(page, base)).currentSetups.find((s) => s.bikeId === tarek)!
const rows = (page: Page) => page.getByRole('list', { name: 'Setups, newest first' }).getByRole('listitem')
const place = (page: Page, name: RegExp) => rows(page).getByRole('button', { name })
const dialog = (page: Page) => page.getByRole('dialog')

test('what worked on wet roots last October is found, laid beside the bike, put on it, and carried to an empty Wild Spring by its card', async ({
  page,
  context,
}) => {
  await page.goto(server.base + setups)
  await test.step('found by month and ground, both of one day', async () => {
    await expect(rows(page)).not.toHaveCount(0)
    await page.getByLabel('Name, place, month').fill('october 2026')
    await page.getByLabel('Ground').selectOption('wet')
    await expect(place(page, /^Wet roots, October/)).toBeVisible()
    const all = await held(page)
    const ridden = all.ridden.filter((r) => r.date.startsWith('2026-10') && r.conditions.surface === 'wet')
    const standing = (id: string) =>
      JSON.stringify(
        all.setups
          .find((x) => x.id === id)!
          .positions.map((p) => [p.adjusterId, p.value])
          .sort(),
      )
    const different = new Set(ridden.map((r) => standing(r.setupId))).size
    await expect(page.getByText(`${different} found`)).toBeVisible()
    // Ridden dry or in another month only: none of these.
    for (const name of [/^Park, jumps/, /^Steep and dry/, /^Winter/])
      await expect(place(page, name)).toHaveCount(0)
  })
  await test.step('beside what is on the bike', async () => {
    await place(page, /^Wet roots, October/).click()
    const panel = page.getByRole('complementary', { name: 'The chosen setup' })
    await expect(panel.getByText('5 dials differ')).toBeVisible()
    const pressure = panel.getByRole('listitem', { name: 'Pressure: 86 psi, then 82 psi; 4 psi softer' })
    await expect(pressure).toBeVisible()
    await expect(panel.getByText('Only the same day tells them apart.')).toBeVisible()
  })
  const before = await present(page)
  await test.step('put on turn by turn, for eight degrees less; nothing is written before all are made', async () => {
    await page.getByRole('button', { name: 'Put it on the bike: 5 turns' }).click()
    await dialog(page).getByLabel('Air now').fill('1')
    await dialog(page).getByLabel('Air now').blur()
    await expect(dialog(page).getByText('Front rebound 7 clicks → 8 clicks: 8 °C colder')).toBeVisible()
    await dialog(page).getByRole('button', { name: 'Shift for 8 °C colder' }).click()
    const turns = dialog(page).getByRole('checkbox')
    await expect(turns).toHaveCount(7)
    const done = dialog(page).getByRole('button', { name: 'All made: it is on the bike' })
    for (let i = 0; i < 6; i++) await turns.nth(i).check()
    await expect(done).toBeDisabled()
    expect(await present(page)).toEqual(before)
    await turns.nth(6).check()
    await done.click()
    await expect(
      page.getByText('Wet roots, October, shifted for 8 °C colder is on the bike: 7 turns made.'),
    ).toBeVisible()
    const now = await present(page)
    const value = (name: string) => now.positions.find((p) => p.adjusterId === idOf(name))!.value
    expect(value('tarek fork psi')).toBe(82)
    expect(value('tarek fork rebound')).toBe(8)
    expect(value('tarek shock psi')).toBe(190)
    expect(now.positions.find((p) => p.adjusterId === idOf('tarek fork psi'))!.known).toMatchObject({
      how: 'set',
      airTempC: 1,
    })
  })
  const printed = await test.step('the card, drawn as a printer draws it', async () => {
    await page.getByRole('button', { name: 'Card to take along' }).click()
    const link = dialog(page).getByRole('link', { name: 'Card, to print' })
    const answer = await page.request.get(server.base + (await link.getAttribute('href'))!)
    const [picture] = await drawPdf((await answer.body()).buffer as ArrayBuffer, 150)
    expect(picture.text).toContain('Wet roots, October')
    return picture.png()
  })
  await test.step('its code is read into an empty Wild Spring, with the same numbers', async () => {
    const empty = await startServer()
    try {
      const there = await context.newPage()
      await there.goto(empty.base)
      await there.getByRole('button', { name: /Bring data in/ }).click()
      await dialog(there)
        .getByRole('button', { name: /A setup card/ })
        .click()
      await dialog(there)
        .locator('input[type=file]')
        .setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: printed })
      await expect(dialog(there).getByText('Rebound 7 clicks')).toBeVisible()
      await dialog(there).getByRole('button', { name: 'Bring it in' }).click()
      await expect(there.getByText('160 mm bike is here and stands as its card says.')).toBeVisible()
      await expect(place(there, /^Wet roots, October on the bike now/)).toBeVisible()
      const g = await garage(there, empty.base)
      expect(g.riders.map((r) => [r.name, r.bodyMassKg])).toEqual([['Tarek', null]])
      const [now] = g.currentSetups
      const numbers = (positions: typeof now.positions, units: Garage['units']) =>
        units.flatMap((u) =>
          u.adjusters.map((a) => [
            u.end,
            a.role,
            positions.find((p) => p.adjusterId === a.id)?.value ?? null,
          ]),
        )
      const all = await held(page)
      const original = all.setups.find((s) => s.id === wetOf(all))!
      const here = (await garage(page)).units.filter((u) =>
        [original.frontUnitId, original.rearUnitId].includes(u.id),
      )
      const sorted = (units: Garage['units']) => [...units].sort((a, b) => a.end.localeCompare(b.end))
      expect(numbers(now.positions, sorted(g.units))).toEqual(numbers(original.positions, sorted(here)))
    } finally {
      await empty.stop()
    }
  })
})
const wetOf = (all: BikeSetups) => all.kept.find((k) => k.name === 'Wet roots, October')!.id

test('a picture without a code, half a code, and a card of a newer version are each told what they are', async ({
  page,
}) => {
  await page.goto(server.base + setups)
  await page.getByRole('button', { name: 'Bring in a card' }).click()
  const take = (name: string, mimeType: string, buffer: Buffer) =>
    dialog(page).locator('input[type=file]').setInputFiles({ name, mimeType, buffer })
  await take('view.png', 'image/png', await page.screenshot())
  await expect(dialog(page).getByRole('alert')).toContainText('No code was found in the picture')
  const card = (await (
    await page.request.get(`${server.base}/api/v1/bikes/${tarek}/card.json`)
  ).json()) as Record<string, unknown>
  await take('card.json', 'application/json', Buffer.from(JSON.stringify({ ...card, version: 9 })))
  await expect(dialog(page).getByRole('alert')).toContainText('made by a newer Wild Spring (form 9')
  await take('code.txt', 'text/plain', Buffer.from('WILDSPRING.1.00000000.abc'))
  await expect(dialog(page).getByRole('alert')).toContainText('The code is not whole')
  // Nothing came in by any of them.
  await expect(dialog(page).getByRole('button', { name: 'Bring it in' })).toHaveCount(0)
  await take('card.json', 'application/json', Buffer.from(JSON.stringify(card)))
  await expect(dialog(page).getByRole('alert')).toHaveCount(0)
  // The units are here already: it is a wish for that bike, and turns nothing.
  const before = await present(page)
  await dialog(page).getByRole('button', { name: 'Bring it in' }).click()
  await expect(page.getByText(/Nothing is turned yet/)).toBeVisible()
  expect(await present(page)).toEqual(before)
  await expect(rows(page).getByText('wanted, not turned yet')).toBeVisible()
})

test('a setup of long ago is kept by a name, found by it, and kept no longer without being lost', async ({
  page,
}) => {
  await page.goto(server.base + setups)
  await page.getByLabel('Name, place, month').fill('july 2025')
  await place(page, /^Heron Steep/)
    .first()
    .click()
  await page.getByRole('button', { name: 'Keep it by a name' }).click()
  await dialog(page).getByLabel('Name').fill('')
  await dialog(page).getByRole('button', { name: 'Keep it', exact: true }).click()
  await expect(dialog(page).getByText('Give it a name.')).toBeVisible()
  await dialog(page).getByLabel('Name').fill('Dusty chute')
  await dialog(page).getByRole('button', { name: 'rough' }).click()
  await dialog(page).getByRole('button', { name: 'Keep it', exact: true }).click()
  await page.getByLabel('Name, place, month').fill('dusty')
  await expect(place(page, /^Dusty chute/)).toBeVisible()
  await expect
    .poll(async () => (await held(page)).kept.find((k) => k.name === 'Dusty chute')?.found)
    .toMatchObject({ place: 'Slatecombe', airTempC: 26, surface: 'dry-loose' })
  await page.getByRole('button', { name: 'Name and purpose' }).click()
  await dialog(page).getByRole('button', { name: 'Keep it no longer' }).click()
  await expect(place(page, /^Dusty chute/)).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(place(page, /^Dusty chute/)).toBeVisible()
})

test('what is typed while the setups are still on their way is looked for when they are there', async ({
  page,
}) => {
  let release = () => {}
  const held = new Promise<void>((resolve) => (release = resolve))
  await page.route('**/api/v1/garage', async (route) => {
    await held
    await route.continue()
  })
  await page.goto(server.base + setups)
  await page.getByLabel('Name, place, month').fill('tour pack')
  release()
  await expect(place(page, /^Tour with the pack/)).toBeVisible()
  await expect(page.getByLabel('Name, place, month')).toHaveValue('tour pack')
  await expect(place(page, /^Wet roots, October/)).toHaveCount(0)
})

test('a kept setup is found from anywhere by its name', async ({ page }) => {
  await page.goto(server.base)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('tour pack')
  await page.getByRole('option', { name: /Tour with the pack Setup/ }).click()
  await expect(page.getByRole('heading', { name: 'Tour with the pack' }).first()).toBeVisible()
  await expect(place(page, /^Tour with the pack/)).toHaveAttribute('aria-pressed', 'true')
  // Alone, every dial that is known has one peg on its rail, beside another it has two.
  const panel = page.getByRole('complementary', { name: 'The chosen setup' })
  const pegs = panel.getByRole('listitem').first().locator('circle')
  await expect(pegs).toHaveCount(2)
  await page.getByLabel('Beside').selectOption('none')
  await expect(pegs).toHaveCount(1)
})

test('what was only tried is folded until it is asked for, and any two lie beside each other', async ({
  page,
}) => {
  await page.goto(server.base + setups)
  await expect(place(page, /^Wet roots, October/)).toBeVisible()
  const shown = await rows(page).count()
  expect(shown).toBeLessThan(22)
  await page.getByRole('button', { name: 'Show 3 tries around Heron Steep' }).first().click()
  await expect(rows(page)).toHaveCount(shown + 3)
  await place(page, /^Wet roots, October/).click()
  const winter = page.getByLabel('Beside').locator('option', { hasText: 'Winter, thick oil' })
  await page.getByLabel('Beside').selectOption(await winter.getAttribute('value'))
  const panel = page.getByRole('complementary', { name: 'The chosen setup' })
  await expect(panel.getByRole('heading', { name: 'Winter, thick oil' }).first()).toBeVisible()
  await expect(panel.getByText(/set at 1 °C shows \d+ psi at 9 °C, without a turn/).first()).toBeVisible()
  // Another bike's dials are counted by themselves: a click there is none here.
  await page.getByLabel('of', { exact: true }).selectOption({ label: 'Ilka, 150 mm trail bike' })
  await expect(panel.getByText('another dial: its clicks are not these').first()).toBeVisible()
  // The address holds what is looked at.
  await page.reload()
  await expect(panel.getByText('another dial: its clicks are not these').first()).toBeVisible()
})

test('the difference of two setups is kept, and laid on another base as a wish that turns nothing', async ({
  page,
}) => {
  await page.goto(server.base + setups)
  await place(page, /^Wet roots, October/).click()
  await page.getByRole('button', { name: 'Keep the difference' }).click()
  await expect(dialog(page).getByText('Front pressure 86 → 82 psi, 4 psi softer')).toBeVisible()
  await dialog(page).getByRole('button', { name: 'Keep it' }).click()
  await expect(dialog(page).getByText('Give it a name.')).toBeVisible()
  await dialog(page).getByLabel('Name').fill('Wet')
  await dialog(page).getByRole('button', { name: 'Keep it' }).click()
  // On Ilka's bike: what is not there is said, with what is nearest; the rest moves by the same.
  await page.getByLabel('Bike', { exact: true }).selectOption({ label: 'Ilka, 150 mm trail bike' })
  await page.getByRole('button', { name: 'For other ground …' }).click()
  await expect(dialog(page).getByText('Front pressure 78 → 74 psi')).toBeVisible()
  await expect(dialog(page).getByText(/Rear low-speed compression not on this unit/)).toBeVisible()
  const ilka = async () => (await garage(page)).currentSetups.find((s) => s.bikeId === idOf('ilka bike'))!
  const before = await ilka()
  await dialog(page).getByRole('button', { name: 'Save it as a start' }).click()
  await expect(page.getByText(/Wet is wanted. Nothing is turned yet/)).toBeVisible()
  expect(await ilka()).toEqual(before)
  const wish = (await garage(page)).wantedSetups.find((s) => s.bikeId === idOf('ilka bike'))!
  const psi = (s: typeof wish) => s.positions.find((p) => p.adjusterId === idOf('ilka fork psi'))!
  expect([psi(before).value, psi(wish).value, psi(wish).known.how]).toEqual([78, 74, 'assumed'])
})

test('a rule of thumb is offered with its reason, as a start that is assumed and turns nothing', async ({
  page,
}) => {
  await page.goto(server.base + setups)
  const before = await present(page)
  await page.getByRole('button', { name: 'For other ground …' }).click()
  await dialog(page).getByLabel('Profile').selectOption({ label: 'Winter, near freezing, a rule of thumb' })
  await expect(dialog(page).getByText('Cold oil damps harder')).toBeVisible()
  await expect(dialog(page).getByText('A start, not proven here')).toBeVisible()
  await expect(dialog(page).getByRole('button', { name: 'Remove the profile' })).toHaveCount(0)
  await dialog(page).getByRole('button', { name: 'Save it as a start' }).click()
  await expect(page.getByText(/Winter, near freezing is wanted. Nothing is turned yet/)).toBeVisible()
  expect(await present(page)).toEqual(before)
  const wish = (await garage(page)).wantedSetups.find(
    (s) => s.bikeId === tarek && s.name?.includes('Winter, near'),
  )!
  for (const p of wish.positions) {
    const was = before.positions.find((x) => x.adjusterId === p.adjusterId)!
    // Only what the rule moved is assumed; toward open is toward the higher count.
    expect(p.value >= was.value, p.adjusterId).toBe(true)
    expect(p.known.how).toBe(p.value === was.value ? was.known.how : 'assumed')
  }
  // What is laid on top of it says where it begins only by assumption, and says nothing of the kind of what was read.
  await page.goto(`${server.base}${setups}?at=${wish.id}`)
  await page.getByRole('button', { name: 'For other ground …' }).click()
  await dialog(page).getByLabel('Profile').selectOption({ label: 'Wet, mud or loose, a rule of thumb' })
  const rows = dialog(page).getByRole('listitem')
  await expect(rows.filter({ hasText: 'is assumed, nobody has read it' }).first()).toBeVisible()
  await expect(rows.filter({ hasText: '→' }).filter({ hasNotText: 'is assumed' }).first()).toBeVisible()
})

test('what is recommended stands side by side, each in its own count; what is not on this unit is said, scores by style', async ({
  page,
}) => {
  await page.goto(`${server.base}/setups/${idOf('ilka bike')}`)
  await page.getByRole('button', { name: 'What is recommended' }).click()
  const table = dialog(page).getByRole('table')
  // The same dial of 16 clicks, 10 from closed here; the analyser counts from open.
  const row = table.getByRole('row', { name: /Low-speed compression/ }).first()
  await expect(row).toContainText('6 clicks from open')
  await expect(row).toContainText(/\d+ clicks from closed/)
  await expect(table.getByRole('columnheader', { name: /leaflets of fork/ })).toContainText('20 Feb 2026')
  await expect(
    dialog(page).getByText(
      'High-speed compression 3 from open, says pocket analyser: not on this unit; nearest is low-speed compression, by feel.',
    ),
  ).toBeVisible()
  await expect(dialog(page).getByText('calm: pocket analyser 71')).toBeVisible()
  await expect(dialog(page).getByText('They compare within one style only')).toBeVisible()
})

test('a spring that is needed: whose is free is said, and the shelf knows afterwards where it is', async ({
  page,
}) => {
  const g = await garage(page)
  const coil = g.units.find((u) => u.id === idOf('tarek coil shock'))!
  const bike = g.bikes.find((b) => b.id === idOf('oskar bike'))!
  const put = async <T extends { id: string }>(path: string, data: T) => {
    const answer = await page.request.put(`${server.base}/api/v1/${path}/${data.id}`, { data })
    expect(answer.ok(), await answer.text()).toBe(true)
  }
  await put('bikes', { ...bike, rearUnitId: coil.id })
  const now = g.currentSetups.find((s) => s.bikeId === bike.id)!
  const at = (rate: number) => [
    ...now.positions.filter((p) => p.end === 'front'),
    {
      end: 'rear' as const,
      adjusterId: idOf('tarek coil spring'),
      value: rate,
      known: now.positions[0].known,
    },
  ]
  const fitted = { ...now, id: idOf('coil in'), parentId: now.id, rearUnitId: coil.id, positions: at(96.3) }
  await put('setups', { ...fitted, reason: { ...now.reason, source: 'baseline', linked: true } })
  const wish = {
    ...fitted,
    id: idOf('softer coil'),
    parentId: fitted.id,
    positions: at(78.8),
    name: 'Softer coil',
    wanted: true,
  }
  await put('setups', { ...wish, reason: { ...now.reason, source: 'carried', linked: true } })
  await page.goto(`${server.base}/setups/${bike.id}`)
  await place(page, /^Softer coil/).click()
  await page.getByRole('button', { name: /^Put it on the bike/ }).click()
  await expect(dialog(page).getByText('78.8 N/mm: Tarek’s yellow spring is free')).toBeVisible()
  await dialog(page).getByLabel('Which one goes in').selectOption({ label: 'Tarek’s yellow spring' })
  for (const box of await dialog(page).getByRole('checkbox').all()) await box.check()
  await dialog(page)
    .getByRole('button', { name: /All made/ })
    .click()
  await expect(page.getByText(/is on the bike: 1 turn made/)).toBeVisible()
  await expect
    .poll(async () => (await garage(page)).stock.find((s) => s.id === idOf('yellow spring'))!.out)
    .toEqual([{ where: 'bike', bikeId: bike.id, end: 'rear' }])
  await page.goto(`${server.base}/garage?part=workshop`)
  await expect(page.getByRole('listitem').filter({ hasText: 'Tarek’s yellow spring' })).toContainText(
    `on ${bike.name}, rear`,
  )
  await expect(page.getByRole('listitem').filter({ hasText: '60 mm coil shock' })).toContainText(
    'on loan to Wren since 2 Nov 2026',
  )
  // Brought back by hand.
  await page
    .getByRole('listitem')
    .filter({ hasText: 'yellow spring' })
    .getByRole('button', { name: 'Edit' })
    .click()
  await dialog(page).getByRole('button', { name: 'It is back' }).click()
  await dialog(page).getByRole('button', { name: 'Save it' }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Tarek’s yellow spring' })).toContainText('free')
})

test('figures of two setups stand beside each other with the scatter of repeats', async ({ page }) => {
  await page.goto(`${server.base}/setups/${idOf('ilka bike')}`)
  const panel = page.getByRole('complementary', { name: 'The chosen setup' })
  const ridden = (await (
    await page.request.get(`${server.base}/api/v1/bikes/${idOf('ilka bike')}/figures`)
  ).json()) as { setupId: string }[]
  const [first, second] = [...new Set(ridden.map((r) => r.setupId))]
  await page.goto(`${server.base}/setups/${idOf('ilka bike')}?at=${second}&with=${first}`)
  await expect(panel.getByRole('heading', { name: /What the sensors say/ })).toBeVisible()
  await expect(panel.getByText(/runs with sensors/)).toBeVisible()
  await expect(panel.getByText(/, (clear|scatter not known)$|by no more than repeats/).first()).toBeVisible()
})

test('the line and the mark at the top are kept for every card, typed before what is kept was read too', async ({
  page,
  context,
}) => {
  let typed = () => {}
  const isTyped = new Promise<void>((resolve) => (typed = resolve))
  await page.route('**/api/v1/letterhead', async (route) => {
    if (route.request().method() === 'GET') await isTyped
    await route.continue()
  })
  await page.goto(server.base + setups)
  await page.getByRole('button', { name: 'Card to take along' }).click()
  await dialog(page).getByLabel('A line at the top').fill('The shed, Mill Lane 12')
  // At once: the card waits for the line that was just typed.
  const [asked] = await Promise.all([
    context.waitForEvent('request', (r) => r.url().includes('card.pdf')),
    dialog(page).getByRole('link', { name: 'Card, to print' }).click().then(typed),
  ])
  const [sheet] = await drawPdf(
    await (await page.request.get(asked.url())).body().then((b) => Uint8Array.from(b).buffer),
  )
  expect(sheet.text).toContain('The shed, Mill Lane 12')
  await dialog(page)
    .getByLabel(/A mark beside it/)
    .setInputFiles('docs/screenshots/setups.png')
  await expect(dialog(page).getByRole('img', { name: 'The mark at the top' })).toBeVisible()
  await dialog(page)
    .getByLabel(/Another mark/)
    .setInputFiles({ name: 'mark.png', mimeType: 'image/png', buffer: Buffer.from('no picture') })
  await expect(page.getByText('That file is no picture this browser can read')).toBeVisible()
  await expect(dialog(page).getByRole('img', { name: 'The mark at the top' })).toBeVisible()
  const kept = async () => (await page.request.get(`${server.base}/api/v1/letterhead`)).json()
  await expect
    .poll(kept)
    .toMatchObject({ line: 'The shed, Mill Lane 12', mark: expect.stringMatching(/^data:image\/png/) })
  // In one breath: neither takes the other's place.
  await dialog(page).getByLabel('A line at the top').fill('Tarek, at the shed')
  await dialog(page).getByRole('button', { name: 'No mark' }).click()
  await expect.poll(kept).toMatchObject({ line: 'Tarek, at the shed', mark: null })
})

test('a fork that was re-valved, and a shock that was exchanged since, are said before anything is turned', async ({
  page,
}) => {
  const g = await garage(page)
  const fork = g.units.find((u) => u.id === idOf('tarek fork'))!
  await page.request.put(`${server.base}/api/v1/units/${fork.id}`, {
    data: { ...fork, revalved: true, revalvedOn: '2026-11-20' },
  })
  const other = g.units.find((u) => u.id === idOf('ilka shock'))!
  const bike = g.bikes.find((b) => b.id === tarek)!
  const answer = await page.request.put(`${server.base}/api/v1/bikes/${bike.id}`, {
    data: { ...bike, rearUnitId: other.id },
  })
  expect(answer.ok(), await answer.text()).toBe(true)
  await page.goto(server.base + setups)
  await place(page, /^Wet roots, October/).click()
  await page.getByRole('button', { name: /^Put it on the bike/ }).click()
  await expect(dialog(page).getByText(/re-valved on .* the same clicks damp differently now/)).toBeVisible()
  await expect(dialog(page).getByText('The shock was exchanged since')).toBeVisible()
  for (const name of await dialog(page).getByRole('checkbox').all())
    await expect(name.locator('xpath=ancestor::label')).toContainText('Front')
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('the same facts are a list, and the chosen one has a page of its own with a way back', async ({
    page,
  }) => {
    await page.goto(server.base + setups)
    const row = place(page, /^Wet roots, October/)
    await expect(row).toContainText('10 Oct 2026')
    await expect(row).toContainText('9 °C'.replace(' ', '\u00a0'))
    await expect(row).toContainText('Front rebound 1 click faster, from Wet roots')
    await row.tap()
    await expect(page.getByText('5 dials differ')).toBeVisible()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Wet roots, October/)
    await expect(page.getByRole('button', { name: 'Put it on the bike: 5 turns' })).toBeInViewport()
    await page.getByRole('button', { name: 'Back to the map' }).tap()
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('What I know works')
    await expect(row).toBeVisible()
  })
})

test('a table of old settings is brought in: what its columns are is seen, what cannot be read is left out, and the bike does not turn', async ({
  page,
}) => {
  await page.goto(server.base + setups)
  await expect(rows(page)).not.toHaveCount(0)
  const [before, onBike] = [await held(page), await present(page)]
  await page.getByRole('button', { name: 'Bring in a table' }).click()
  const table = [
    'When\tSpot\tfork psi\tfork reb\tRebound\tRemarks',
    '03/04/2024\tLarch Bank\t82\t6\t4\tfelt harsh',
    '05/06/2024\tLarch Bank\t5.5 bar\t5 clicks\t5\tbetter',
    '07/08/2024\tHeron Steep\t82\t60\t5\tcannot be',
    '\tHeron Steep\t81\t5\t?\tno day',
  ].join('\n')
  await dialog(page).getByLabel('The table').fill(table)
  await test.step('what nobody can know is asked', async () => {
    const is = (heading: string) => dialog(page).getByLabel(`${heading} is`, { exact: true })
    await expect(is('When').locator('option:checked')).toHaveText('the day')
    await expect(is('fork psi').locator('option:checked')).toHaveText('front: pressure')
    // Of which end it is, the heading does not say.
    await expect(is('Rebound').locator('option:checked')).toHaveText('not used')
    await expect(dialog(page).getByRole('button', { name: 'Nothing to keep yet' })).toBeDisabled()
    await dialog(page).getByLabel('Its days can be read two ways').selectOption('dmy')
    await is('Rebound').selectOption({ label: 'rear: rebound' })
  })
  const come = dialog(page).getByRole('list', { name: 'Setups that are kept' }).getByRole('listitem')
  await expect(come).toHaveCount(2)
  await expect(come.first()).toContainText('3 Apr 2024')
  await expect(come.last()).toContainText('front rebound 5 clicks')
  const left = dialog(page).getByRole('list', { name: 'Rows that are left out' }).getByRole('listitem')
  await expect(left).toHaveText([/^line 4 Front rebound goes from/, /^line 5 It has no day\.$/])
  await dialog(page).getByRole('button', { name: 'Keep 2 setups of before' }).click()

  await test.step('they lie before all others, and nothing was turned', async () => {
    await expect(page.getByText('2 setups of before are kept. The bike stands as it stood.')).toBeVisible()
    await expect(place(page, /Larch Bank.*noted before/).first()).toBeVisible()
    expect(await present(page)).toEqual(onBike)
    const all = await held(page)
    expect(all.setups.slice(2)).toEqual(before.setups)
    const psi = all.setups[1].positions.map((p) => p.value)
    expect(psi[0]).toBeCloseTo(79.77, 1)
  })
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => await held(page)).toEqual(before)
})

test('a table of before is all there is of a bike: it is brought in, lies there, and can be put on', async ({
  page,
}) => {
  const g = await garage(page)
  const model = g.bikes.find((b) => b.frontUnitId && b.rearUnitId)!
  const put = async (kind: string, record: { id: string }) => {
    const answer = await page.request.put(`${server.base}/api/v1/${kind}/${record.id}`, { data: record })
    expect(answer.status(), await answer.text()).toBe(200)
  }
  const copyOf = async (id: string | null) => {
    const unit = g.units.find((u) => u.id === id)!
    const copy = {
      ...unit,
      id: uuid(),
      version: 0,
      adjusters: unit.adjusters.map((a) => ({ ...a, id: uuid() })),
      assumed: [],
      charts: [],
    }
    await put('units', copy)
    return copy.id
  }
  const [frontUnitId, rearUnitId] = [await copyOf(model.frontUnitId), await copyOf(model.rearUnitId)]
  const bike = {
    ...model,
    id: uuid(),
    version: 0,
    name: 'from the attic',
    frontUnitId,
    rearUnitId,
    currentSetupId: null,
  }
  await put('bikes', bike)

  await page.goto(`${server.base}/setups/${bike.id}`)
  await expect(page.getByText('Nothing is known of this bike yet.')).toBeVisible()
  await expect(page.getByRole('complementary', { name: 'The chosen setup' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Bring in a table' }).click()
  await dialog(page)
    .getByLabel('The table')
    .fill('Date\tPlace\tfork psi\n2024-05-01\tLarch Bank\t82\n2024-06-01\tLarch Bank\t84')
  await dialog(page).getByRole('button', { name: 'Keep 2 setups of before' }).click()
  const panel = page.getByRole('complementary', { name: 'The chosen setup' })
  // Nobody here has read it, and nothing is on the bike because of it.
  await expect(panel.getByRole('listitem', { name: 'Pressure: 84 psi, assumed' })).toBeVisible()
  await expect(panel.getByLabel('Beside').locator('option:checked')).toHaveText('nothing')
  const now = async () => (await garage(page)).currentSetups.find((s) => s.bikeId === bike.id)
  expect(await now()).toBeUndefined()
  await panel.getByRole('button', { name: 'Put it on the bike: 1 turn' }).click()
  await expect(
    dialog(page)
      .getByText(/84 psi/)
      .first(),
  ).toBeVisible()
})
