import { expect, test, type Page } from '@playwright/test'
import type { DayBundle } from '../contract/endpoints.ts'
import { currentSetupId } from '../core/adviser/history.ts'
import { wordRules } from '../core/causes/words.ts'
import { seededRandom } from '../core/numeric/random.ts'
import { feelOf, type VirtualRider } from '../core/sim/virtualRider.ts'
import { idOf } from '../demo/ids.ts'
import { rideFile } from '../demo/sensors.ts'
import { startDemo, type RunningServer } from './server.ts'

let server: RunningServer
test.beforeEach(async () => {
  server = await startDemo()
})
test.afterEach(async () => server?.stop())

const halfWay = idOf('day half-way')
const dialog = (page: Page) => page.getByRole('dialog')
async function bundleOf(page: Page, id: string): Promise<DayBundle> {
  return (await page.request.get(`${server.base}/api/v1/days/${id}`)).json()
}
async function logRun(page: Page, n: number) {
  await page
    .getByRole('banner')
    .getByRole('button', { name: `Log run ${n}` })
    .click()
  await expect(page.getByRole('heading', { name: `Run ${n}, how it felt` })).toBeVisible()
}
async function rate(page: Page, rating: number) {
  const row = page.getByRole('group', { name: 'Rating' })
  await row.getByRole('button', { name: String(Math.floor(rating)), exact: true }).click()
  if (rating % 1) await row.getByRole('button', { name: 'and a half' }).click()
}

test('simulated runs bring the half-way day to rest, at settings that ride better', async ({ page }) => {
  /** Notices what a usual rider notices, says all of it, and rates it with little scatter. */
  const rider: VirtualRider = { threshold: 1.1, taste: 0, ratingSd: 0.4, silent: 0.1, misled: 0.05 }
  const random = seededRandom(7)
  await page.goto(`${server.base}/days/${halfWay}`)
  await expect(page.getByRole('heading', { name: 'Rear: when does it kick?' })).toBeVisible()
  const atRest = page.getByRole('heading', { name: /^(Settled: leave|Leave) it alone$/ })
  const first = await bundleOf(page, halfWay)
  const ratings = first.feels.flatMap((f) => f.rating ?? [])
  const before = Math.max(...ratings)
  let last = 0
  for (let n = 6; n <= 14 && !(await atRest.isVisible()); n++) {
    // This rider cannot say more than the words, and what the card asks to turn is turned; where it asks for another look, nothing is.
    const unsaid = page.getByRole('button', { name: /^Can’t say/ })
    while (await unsaid.isVisible()) {
      const asked = await page.getByRole('heading', { level: 1 }).innerText()
      await unsaid.click()
      await expect(page.getByRole('heading', { level: 1 })).not.toHaveText(asked)
      await expect(page.locator('[aria-labelledby=next-title]')).toHaveAttribute('aria-busy', 'false')
    }
    const turn = page.getByRole('button', { name: /^(Done|Try \d)/ })
    if (await turn.isVisible()) {
      await turn.click()
      await expect(page.getByText(/^On the bike: /).first()).toBeVisible()
    }
    const b = await bundleOf(page, halfWay)
    const setup = b.setups.find((s) => s.id === currentSetupId(b))!
    await logRun(page, n)
    const text = rideFile(
      { bike: b.bike, units: b.units, positions: setup.positions, ridingMassKg: 73 },
      b.trail.sections,
      100 + n,
    )
    await page.getByRole('button', { name: 'Add a sensor file' }).click()
    await dialog(page)
      .locator('input[type=file]')
      .setInputFiles({ name: `run ${n}.csv`, mimeType: 'text/csv', buffer: Buffer.from(text) })
    await dialog(page)
      .getByRole('button', { name: `Put it on run ${n}` })
      .click()
    await expect(page.getByRole('link', { name: 'What the suspension did' })).toBeVisible()
    const ridden = await bundleOf(page, halfWay)
    const recording = ridden.recordings.find((r) => r.runId === ridden.runs.at(-1)!.id)!
    const feel = feelOf(recording.analysis!, b.trail.sections, rider, random)
    test.info().annotations.push({
      type: `run ${n}`,
      description: `${feel.rating}: ${feel.marks.map((m) => `${m.word} ${m.end}`).join(', ')}`,
    })
    for (const m of feel.marks) {
      const section = b.trail.sections.find((s) => s.id === m.sectionId)
      await page
        .getByRole('button', { name: section ? `${section.name}, ${m.end}` : 'whole run', exact: true })
        .click()
      await page.getByRole('button', { name: wordRules[m.word].label, exact: true }).click()
    }
    last = feel.rating
    await rate(page, feel.rating)
    await expect(page.getByText('saved', { exact: true })).toBeVisible()
    await expect(page.getByRole('heading', { name: /say how it felt/ })).toHaveCount(0)
    await expect(page.locator('[aria-labelledby=next-title]')).toHaveAttribute('aria-busy', 'false')
  }
  await expect(atRest).toBeVisible()
  expect(last).toBeGreaterThan(before)
  await page.getByRole('button', { name: 'We’re happy' }).click()
  await expect(page.getByRole('heading', { name: 'Settled. Leave it alone.' })).toBeVisible()
})

test('what was proposed is kept, with what was done instead', async ({ page }) => {
  await page.goto(`${server.base}/days/${halfWay}`)
  await page.getByRole('button', { name: 'Worse along a row of hits' }).click()
  await expect(page.getByRole('button', { name: /^Done, it’s on/ })).toBeVisible()
  await page.getByRole('slider', { name: /front Pressure/ }).focus()
  await page.keyboard.press('ArrowRight')
  await page.getByRole('button', { name: 'Done, it is on' }).click()
  await page.getByText('What was proposed, 1').click()
  await expect(page.getByText('something else', { exact: true })).toBeVisible()
  await expect(page.getByText(/Front pressure 78 → 79 psi/).first()).toBeVisible()
})

test('judged blind, settings and data stay covered until the feel is in', async ({ page }) => {
  await page.goto(`${server.base}/days/${halfWay}`)
  await page.getByRole('button', { name: 'About this day' }).click()
  await dialog(page).getByLabel('The rider judges blind').check()
  await dialog(page).getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('judged blind')).toBeVisible()
  await expect(page.getByRole('slider', { name: /rear Rebound/ })).toBeVisible()
  await logRun(page, 6)
  await expect(page.getByText('Covered until the feel of run 6 is in.').first()).toBeVisible()
  await expect(page.getByRole('slider')).toHaveCount(0)
  await expect(page.getByText('Front LSC 12 → 10')).toHaveCount(0)
  // Nor is it a file away.
  await page.getByRole('button', { name: 'About this day' }).click()
  await expect(dialog(page).getByLabel('The rider judges blind')).toBeVisible()
  await expect(dialog(page).getByRole('link')).toHaveCount(0)
  await page.keyboard.press('Escape')
  await page.goto(`${server.base}/days/${halfWay}/trace/${idOf('half-way run 4')}`)
  await expect(page.getByText('Covered until the feel of run 6 is in.').first()).toBeVisible()
  await expect(page.locator('canvas')).toHaveCount(0)
  await page.goto(`${server.base}/days/${halfWay}`)
  await rate(page, 7)
  await expect(page.getByRole('slider', { name: /rear Rebound/ })).toBeVisible()
})

test('on race day nothing new is tried', async ({ page }) => {
  await page.goto(`${server.base}/days/${halfWay}`)
  await page.getByRole('button', { name: 'About this day' }).click()
  await dialog(page).getByLabel('What it is for').selectOption('race')
  await dialog(page).getByLabel('Changes at most').fill('0')
  await dialog(page).getByRole('button', { name: 'Save' }).click()
  await expect(dialog(page).getByRole('alert')).toContainText('from 1 to 30')
  await dialog(page).getByLabel('Changes at most').fill('4')
  await dialog(page).getByRole('button', { name: 'Save' }).click()
  await expect(page.getByRole('heading', { name: 'Race day: leave it alone' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^(Done|Try \d)/ })).toHaveCount(0)
})

test('a settled setup is carried over to a heavier rider, with reasons, as a start', async ({ page }) => {
  await page.goto(`${server.base}/days/${idOf('day settled')}`)
  await page.getByRole('button', { name: 'Carry it over' }).click()
  await expect(dialog(page).getByText('Nothing moves: it is the same situation.')).toBeVisible()
  await dialog(page).getByLabel('Riding weight there').fill('92')
  await dialog(page).getByLabel('Air there').fill('28')
  await page.keyboard.press('Tab')
  await expect(dialog(page).getByRole('heading', { name: /Rear pressure/ })).toBeVisible()
  await expect(dialog(page).getByText('more weight on the spring, same sag').first()).toBeVisible()
  await expect(
    dialog(page)
      .getByText(/warmer, the oil is thinner: slower/)
      .first(),
  ).toBeVisible()
  await expect(dialog(page).getByText('A start, not a settled setup')).toBeVisible()
  await dialog(page).getByRole('button', { name: 'Save it as a start' }).click()
  await expect(page.getByText('Saved as a wanted start.').first()).toBeVisible()
})

test('the same settings, and clearly worse: the gauge is asked for, what is missing is pumped back, and it is ridden again', async ({
  page,
}) => {
  await page.goto(`${server.base}/days/${halfWay}`)
  await expect(page.getByRole('heading', { name: 'Rear: when does it kick?' })).toBeVisible()
  await logRun(page, 6)
  await rate(page, 3)
  const card = page.locator('[aria-labelledby=next-title]')
  await expect(card.getByRole('heading', { level: 1 })).toHaveText(
    'The same settings, and clearly worse: put the gauge on',
  )
  await expect(card).toContainText('Rated 3 on run 6; on the same settings 7.3 on runs 4, 5')
  const before = await bundleOf(page, halfWay)
  // Nothing was read: nothing can be saved.
  await expect(card.getByRole('button', { name: 'Nothing read yet' })).toBeDisabled()
  await card.getByRole('button', { name: 'Front pressure: still 78 psi' }).click()
  await card.getByLabel('Rear pressure, the gauge shows').fill('168')
  await card.getByRole('button', { name: 'Save what was read' }).click()
  await expect(card.getByRole('heading', { level: 1 })).toHaveText('The shock’s air back to 178 psi')
  await expect(card).toContainText('never above the maximum printed on the unit')
  await expect.poll(async () => (await bundleOf(page, halfWay)).setups.length).toBe(before.setups.length + 1)
  const read = await bundleOf(page, halfWay)
  const pressures = (b: DayBundle) =>
    b.setups.at(-1)!.positions.flatMap((p) => {
      const part = b.units.flatMap((u) => u.adjusters).find((a) => a.id === p.adjusterId)
      return part?.role === 'main-pressure' ? [[p.end, p.value, p.known.how]] : []
    })
  expect(pressures(read)).toEqual([
    ['front', 78, 'read'],
    ['rear', 168, 'read'],
  ])
  expect(read.setups.at(-1)!.reason.source).toBe('reading')

  await card.getByRole('button', { name: 'Done, it’s on 178' }).click()
  await expect(card.getByRole('heading', { level: 1 })).toHaveText('Ride the same settings again')
  await expect.poll(async () => pressures(await bundleOf(page, halfWay))[1]).toEqual(['rear', 178, 'set'])
  await logRun(page, 7)
  await rate(page, 8)
  // Where air was missing once, it is looked for after every run; the end that held is left alone.
  await expect(card.getByRole('heading', { level: 1 })).toHaveText('Gauge first: air was missing before')
  await expect(card.getByLabel('Front pressure, the gauge shows')).toHaveCount(0)
  await card.getByRole('button', { name: 'Rear pressure: still 178 psi' }).click()
  await card.getByRole('button', { name: 'Save what was read' }).click()
  await expect(card.getByRole('heading', { level: 1 })).not.toHaveText(/[Gg]auge/)
  await expect(card.getByRole('button', { name: 'Save what was read' })).toHaveCount(0)
})

test('a dial that nobody is sure of any more is counted on its card, and not ridden for', async ({
  page,
}) => {
  await page.goto(`${server.base}/days/${halfWay}`)
  await expect(page.getByRole('heading', { name: 'Rear: when does it kick?' })).toBeVisible()
  await page.keyboard.press('c')
  await dialog(page).getByRole('textbox').fill('read shock reb not sure')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Unread from now on; nothing was turned.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Count the rear rebound to its stop first' })).toBeVisible()
  const card = page.locator('[aria-labelledby=next-title]')
  // Nobody knows where it stands: no number is offered as if somebody did.
  await expect(card).not.toContainText('Still')
  await expect(card.getByRole('button', { name: 'Nothing read yet' })).toBeDisabled()
  const field = card.getByRole('textbox', { name: /^Rear rebound, counted from/ })
  await field.fill('9')
  await field.press('Enter')
  await expect(page.getByText(/^Read: rear rebound 9 clicks\. Nothing was turned/)).toBeVisible()
  const b = await bundleOf(page, halfWay)
  const now = b.setups.find((s) => s.id === b.bike.currentSetupId)!
  const rebound = b.units
    .filter((u) => u.id === now.rearUnitId)
    .flatMap((u) => u.adjusters)
    .find((a) => a.role === 'rebound')!
  expect(now.positions.find((p) => p.adjusterId === rebound.id)).toMatchObject({ known: { how: 'read' } })
})

test('two runs with one number around a turn: asked which was better; the tap is a verdict, and goes with it', async ({
  page,
}) => {
  await page.goto(`${server.base}/days/${halfWay}`)
  const card = page.locator('[aria-labelledby=next-title]')
  const title = card.getByRole('heading', { level: 1 })
  await expect(title).toHaveText('Rear: when does it kick?')
  await card.getByRole('button', { name: /^Worse along a row/ }).click()
  await card.getByRole('button', { name: /^Done/ }).click()
  const before = await bundleOf(page, halfWay)
  const fifth = before.runs.at(-1)!
  await logRun(page, 6)
  await rate(page, before.feels.find((f) => f.runId === fifth.id)!.rating!)
  await expect(title).toHaveText('Better or worse than run 5?')
  await card.getByRole('button', { name: /^Worse/ }).click()
  await expect(page.getByText('Kept on run 6: Better or worse than the run before? Worse.')).toBeVisible()
  await expect(title).not.toHaveText(/Better or worse/)
  const said = page.getByRole('group', { name: 'Worse or better' })
  await expect(said.getByRole('button', { name: 'worse', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  const feel = async () =>
    (await bundleOf(page, halfWay)).feels.find(
      (f) => f.runId !== fifth.id && f.verdicts.some((v) => v.againstRunId === fifth.id),
    )
  await expect.poll(async () => (await feel())?.verdicts).toEqual([{ againstRunId: fifth.id, value: -1 }])
  // Said otherwise by hand, it is what was said by hand.
  await said.getByRole('button', { name: 'much better' }).click()
  await expect.poll(feel).toMatchObject({ verdicts: [{ againstRunId: fifth.id, value: 2 }], answers: [] })
  await said.getByRole('button', { name: 'much better' }).click()
  await expect(title).toHaveText('Better or worse than run 5?')
  await card.getByRole('button', { name: /^Can’t say/ }).click()
  await expect(title).not.toHaveText(/Better or worse/)
  await page.reload()
  await expect(title).not.toHaveText(/Better or worse/)
  await expect(said.locator('[aria-pressed=true]')).toHaveCount(0)
})
