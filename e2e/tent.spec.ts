import { expect, test, type Page } from '@playwright/test'
import type { DayBundle } from '../contract/endpoints.ts'
import type { TentBundle } from '../contract/tent.ts'
import { idOf } from '../demo/ids.ts'
import { startDemo, type RunningServer } from './server.ts'

let server: RunningServer
test.beforeEach(async () => void (server = await startDemo()))
test.afterEach(async () => server?.stop())

const tentId = idOf('tent practice')
const dayOf = (rider: string) => idOf(`day tent ${rider}`)
const api = async <T>(page: Page, path: string) =>
  (await (await page.request.get(`${server.base}/api/v1${path}`)).json()) as T
const tent = (page: Page) => api<TentBundle>(page, `/tents/${tentId}`)
const day = (page: Page, rider: string) => api<DayBundle>(page, `/days/${dayOf(rider)}`)
const rows = (page: Page) => page.getByRole('list', { name: 'Riders by need' }).getByRole('listitem')
const row = (page: Page, name: string) =>
  rows(page).filter({ has: page.getByRole('button', { name: new RegExp(`^${name} \\d`) }) })
const order = async (page: Page) =>
  (
    await rows(page)
      .getByRole('button', { pressed: undefined })
      .filter({ hasText: /^\w+ \d+$/ })
      .allTextContents()
  ).map((t) => t.trim().split(/\s+/)[0])
const line = (page: Page) => page.getByRole('textbox', { name: /^Rider’s number/ })
const entry = (page: Page) => page.getByRole('region', { name: 'Entry' })
async function open(page: Page) {
  await page.goto(`${server.base}/tent/${tentId}`)
  await expect(row(page, 'Sanna').getByText('all as it started')).toBeVisible()
  // What would be turned is the chosen rider's: the day has been read.
  await expect(entry(page).getByRole('button', { name: /^Comes in/ })).toBeEnabled()
}
/** Types as at a keyboard with nothing in focus, and counts the keys. */
async function keys(page: Page, text: string): Promise<number> {
  await page.locator('body').click({ position: { x: 5, y: 70 } })
  for (const k of text) await page.keyboard.press(k === ' ' ? 'Space' : k)
  await page.keyboard.press('Enter')
  return text.length + 1
}

test('who needs me next, what is on each bike, and what turns in the tent, at one glance', async ({
  page,
}) => {
  await open(page)
  // Here longest; then who is out, with something put off before the rest; who rests; who is left alone.
  await expect.poll(() => order(page)).toEqual(['Sanna', 'Mika', 'Nuri', 'Wren', 'Runa', 'Obi'])
  await expect(row(page, 'Sanna')).toContainText(/here, \d+ min/)
  await expect(row(page, 'Mika')).toContainText('rebound 6, 1 slower')
  await expect(row(page, 'Mika')).toContainText('LSC 8, 1 firmer')
  await expect(row(page, 'Nuri')).toContainText('After the run: fork lsc firmer 1')
  await expect(row(page, 'Wren')).toContainText('One warm-up run, then the baseline')
  await expect(row(page, 'Obi')).toContainText(/settled \d\d:\d\d/)
  await expect(page.getByText(/practice ends \d\d:\d\d, \d+ min/)).toBeVisible()
  const trend = page.getByRole('list', { name: 'What turns in the tent' })
  await expect(trend).toContainText(/rebound slower: 3 riders since \d\d:\d\d; it is warm oil/)
  // Runa has not agreed to be named; Mika and Nuri have.
  await expect(trend).toContainText('and 1 other')
  await expect(trend).not.toContainText('Runa')
  // All of it fits: the last rider is seen without scrolling.
  await expect(row(page, 'Obi').getByText('Settled. Leave it alone.')).toBeInViewport()
})

test('a change and a run with its feel are typed in a few keys, on the bike of whoever was named', async ({
  page,
}) => {
  await open(page)
  const before = await day(page, 'runa')
  const stood = new Map<string, string | null>()
  for (const other of ['mika', 'sanna', 'nuri', 'wren', 'obi'])
    stood.set(other, (await day(page, other)).bike.currentSetupId)
  const used = await keys(page, '6 rear reb slower 1')
  expect(used).toBeLessThanOrEqual(20)
  await expect(page.getByText(/On the bike: Rear rebound 4 → 3 clicks, 1 click slower/)).toBeVisible()
  const runa = await day(page, 'runa')
  const now = runa.setups.find((s) => s.id === runa.bike.currentSetupId)!
  expect(now.positions.find((p) => p.adjusterId === idOf('runa shock rebound'))!.value).toBe(3)
  // Nobody else's bike was touched.
  for (const other of ['mika', 'sanna', 'nuri', 'wren', 'obi'])
    expect((await day(page, other)).bike.currentSetupId, other).toBe(stood.get(other))
  expect(await keys(page, '3 in 6.5 ki')).toBeLessThanOrEqual(12)
  await expect(page.getByText('Nuri is in: run 4 is logged.')).toBeVisible()
  await expect(row(page, 'Nuri')).toContainText('here, 0 min')
  await expect
    .poll(async () => {
      const b = await day(page, 'nuri')
      return b.feels.find((f) => f.runId === b.runs.at(-1)?.id)?.rating
    })
    .toBe(6.5)
  const nuri = await day(page, 'nuri')
  expect(nuri.runs).toHaveLength(4)
  const run = nuri.runs.at(-1)!
  const feel = nuri.feels.find((f) => f.runId === run.id)!
  expect(feel.marks.map((m) => [m.word, m.end])).toEqual([['kicks', 'rear']])
  // It began when the rider went out, and has the air that was noted last.
  const held = await tent(page)
  expect(run.airTempC).toBe(27)
  expect(Date.parse(run.startedAt)).toBeLessThan(Date.now() - 10 * 60_000)
  expect(held.riders.find((r) => r.id === dayOf('nuri'))!.whereabouts).toBe('here')
  expect(before.runs).toHaveLength((await day(page, 'runa')).runs.length)
})

test('nothing is done of a line that is not understood, and a slip is asked about first', async ({
  page,
}) => {
  await open(page)
  const before = await day(page, 'mika')
  await line(page).fill('1 rear wobble 3')
  await expect(entry(page).getByRole('status')).toContainText('is not understood')
  await line(page).press('Enter')
  await expect(line(page)).toHaveValue('1 rear wobble 3')
  // From 74 psi to 14: nobody means that.
  await line(page).fill('1 fork psi to 47')
  await line(page).press('Enter')
  await expect(entry(page).getByText(/psi/).last()).toBeVisible()
  expect((await day(page, 'mika')).bike.currentSetupId).toBe(before.bike.currentSetupId)
  // A number that nobody has is no rider: the chosen one's command line says what it makes of it.
  await line(page).fill('9 out')
  await expect(row(page, 'Mika').getByRole('button', { name: /^Mika/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await line(page).press('Enter')
  expect((await tent(page)).riders.every((r) => r.number <= 6)).toBe(true)
  // The line outlives a reload.
  await page.reload()
  await expect(line(page)).toHaveValue('9 out')
})

test('“where are you? – eight”: a reading corrects the count before it is moved, and is no turn', async ({
  page,
}) => {
  await open(page)
  const dial = idOf('mika shock rebound')
  const held = async () => {
    const b = await day(page, 'mika')
    return b.setups.find((s) => s.id === b.bike.currentSetupId)!.positions.find((p) => p.adjusterId === dial)
  }
  await line(page).fill('1 read shock reb 8')
  await expect(entry(page).getByRole('status')).toContainText(
    'Rear rebound read: 8 clicks, it was said to be 6 clicks. Nothing is turned',
  )
  await line(page).press('Enter')
  await expect(page.getByText('Read; nothing was turned.')).toBeVisible()
  expect(await held()).toMatchObject({ value: 8, known: { how: 'read' } })
  // What was turned since the start is still one click: the count was wrong, not the bike.
  await expect(row(page, 'Mika')).toContainText('rebound 8, 1 slower')
  await line(page).fill('1 read shock reb unsure')
  await line(page).press('Enter')
  await expect.poll(held).toBeUndefined()
  // From nowhere nothing is turned.
  await line(page).fill('1 shock reb slower 1')
  await expect(entry(page).getByRole('status')).toContainText('Nobody has read where rear rebound stands')
})

test('where a rider is takes one key; taken back it is as it was; settled needs a run', async ({ page }) => {
  await open(page)
  const state = async (rider: string) => (await tent(page)).riders.find((r) => r.id === dayOf(rider))!
  await page.keyboard.press('o')
  await expect(row(page, 'Sanna')).toContainText('out since')
  await expect.poll(async () => (await state('sanna')).whereabouts).toBe('out')
  // Out, she is no longer needed first; what is pressed next is still hers.
  await page.keyboard.press('i')
  const notice = page.getByText('Sanna is in: run 5 is logged.')
  await expect(notice).toBeVisible()
  // It stands above the keys, which are needed next.
  const [said, keys] = [
    await notice.boundingBox(),
    await page.getByRole('region', { name: 'Entry' }).boundingBox(),
  ]
  expect(said!.y + said!.height).toBeLessThanOrEqual(keys!.y)
  expect((await day(page, 'sanna')).runs).toHaveLength(5)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await day(page, 'sanna')).runs.length).toBe(4)
  await expect.poll(async () => (await state('sanna')).whereabouts).toBe('out')
  await row(page, 'Wren').click()
  await page.keyboard.press('s')
  await expect(page.getByText('No run counts yet: nobody can be settled on it.')).toBeVisible()
  expect((await state('wren')).whereabouts).toBe('out')
})

test('left alone with a reason, and put off until after the run: neither is a turn', async ({ page }) => {
  await open(page)
  const before = await day(page, 'mika')
  await line(page).fill('1 leave alone')
  await line(page).press('Enter')
  await expect(page.getByText('Say why it is left alone.')).toBeVisible()
  await line(page).fill('1 leave alone, rode it once only')
  await line(page).press('Enter')
  await expect(page.getByText('Mika: left alone, rode it once only.')).toBeVisible()
  await line(page).fill('2 later fork +2')
  await line(page).press('Enter')
  await expect(row(page, 'Sanna')).toContainText('After the run: fork +2')
  await expect
    .poll(async () => (await tent(page)).notes.map((n) => `${n.kind}: ${n.text}`))
    .toEqual(expect.arrayContaining(['left-alone: rode it once only', 'later: fork +2']))
  expect((await day(page, 'mika')).bike.currentSetupId).toBe(before.bike.currentSetupId)
  // Done later: the line says it, Enter turns it.
  await row(page, 'Nuri')
    .getByRole('button', { name: /^After the run/ })
    .click()
  await expect(line(page)).toHaveValue('fork lsc firmer 1')
  await expect(entry(page).getByRole('status')).toContainText('Front low-speed compression 8 → 7 clicks')
  await line(page).press('Enter')
  await expect(page.getByText(/On the bike: Front low-speed compression 8 → 7 clicks/)).toBeVisible()
  expect((await tent(page)).notes.find((n) => n.id === idOf('tent note later'))!.closedAt).not.toBeNull()
})

test('a plan waits for the run it is for: silence is no answer, and once it came so one key puts it into the line', async ({
  page,
}) => {
  await open(page)
  await line(page).fill('2 if worse or weird, rear reb faster 1')
  await expect(entry(page).getByRole('status')).toContainText('A plan is “if worse')
  await line(page).press('Enter')
  await line(page).fill('2 if worse or ki, reb faster 1')
  await expect(entry(page).getByRole('status')).toContainText('If the next run comes worse, or kicks, rear:')
  await line(page).press('Enter')
  // It cannot be done on that bike as it stands: nothing is planned.
  await expect(line(page)).toHaveValue('2 if worse or ki, reb faster 1')
  expect((await tent(page)).notes.filter((n) => n.kind === 'plan' && n.dayId === dayOf('sanna'))).toEqual([])
  await line(page).fill('2 if worse or ki, rear reb faster 1')
  await expect(entry(page).getByRole('status')).toContainText('Rear rebound 7 → 8 clicks')
  await line(page).press('Enter')
  const plan = row(page, 'Sanna').getByRole('button', {
    name: /^(?!Drop).*If worse, or kicks, rear: rear reb faster 1/,
  })
  await expect(plan).toBeVisible()
  const before = await day(page, 'sanna')
  await line(page).fill('2 in 8')
  await line(page).press('Enter')
  await expect(plan).toContainText('not told of run 5')
  await line(page).fill('2 worse')
  await line(page).press('Enter')
  await expect(plan).toContainText('run 5 came so')
  // Planned is not turned.
  expect((await day(page, 'sanna')).bike.currentSetupId).toBe(before.bike.currentSetupId)
  await plan.click()
  await expect(line(page)).toHaveValue('rear reb faster 1')
  await line(page).press('Enter')
  await expect(page.getByText(/On the bike: Rear rebound 7 → 8 clicks/)).toBeVisible()
  await expect(plan).toHaveCount(0)
  // One that is dropped can be taken up again.
  await row(page, 'Runa')
    .getByRole('button', { name: /^Drop the plan/ })
    .click()
  await expect(row(page, 'Runa')).not.toContainText('If worse')
  await expect(page.getByText('Dropped: if worse, rear reb faster 1.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await expect(row(page, 'Runa')).toContainText('If worse: rear reb faster 1')
})

test('what is typed while the line before is still on its way is neither lost nor done twice', async ({
  page,
}) => {
  await open(page)
  const before = (await day(page, 'sanna')).runs.length
  // A slow server: the answer to every save takes its time.
  await page.route('**/api/v1/{runs,tent-riders}/**', async (route) => {
    await new Promise((r) => setTimeout(r, 1500))
    await route.continue()
  })
  await line(page).fill('2 in 8')
  await line(page).press('Enter')
  await line(page).press('Enter')
  await line(page).fill('2 worse')
  await line(page).press('Enter')
  // It waits for its turn where it was typed, and goes when it is done.
  await expect(line(page)).toHaveValue('2 worse')
  await expect(line(page)).toHaveValue('')
  await expect
    .poll(async () => {
      const { runs, feels } = await day(page, 'sanna')
      const feel = feels.find((f) => f.runId === runs.at(-1)!.id)
      return [runs.length - before, feel?.rating, feel?.verdicts.map((v) => v.value)]
    })
    .toEqual([1, 8, [-1]])
})

test('what worked for one is offered to who says the same, translated to the other bike, and no name without consent', async ({
  page,
}) => {
  await open(page)
  const offered = entry(page).getByText(/^Worked for/)
  await line(page).fill('1 shock reb faster 1')
  await line(page).press('Enter')
  await expect(row(page, 'Mika')).toContainText('LSC 8, 1 firmer')
  await expect(row(page, 'Mika')).not.toContainText('rebound 6, 1 slower')
  // Mika said of run 4 that it gets worse; now it is better, and that was not said again.
  await line(page).fill('1 in 7.5 better')
  await line(page).press('Enter')
  await expect(page.getByText('Mika is in: run 5 is logged.')).toBeVisible()
  await line(page).fill('6 in 6 hw')
  await line(page).press('Enter')
  await expect(page.getByText('Runa is in: run 4 is logged.')).toBeVisible()
  await expect(offered).toContainText(
    'Worked for Mika, who said “harsh, gets worse”, rear, too: Rear rebound 4 → 5 clicks, 1 click faster',
  )
  await entry(page).getByRole('button', { name: 'Turn it' }).click()
  await expect(page.getByText(/On the bike: Rear rebound 4 → 5 clicks/)).toBeVisible()
  await expect(offered).toBeHidden()
  const runa = await day(page, 'runa')
  const now = runa.setups.find((s) => s.id === runa.bike.currentSetupId)!
  expect(now.reason.text).toBe('worked for another rider: harsh, gets worse')
  // Where the card of that minute asks for the very same turn, it is the card's, too, and kept with it.
  const { proposals } = runa
  const card = proposals.find((p) => p.id === now.reason.proposalId)
  const isTheSame = card?.proposal.moves.every((m) =>
    now.positions.some((p) => p.adjusterId === m.adjusterId && p.value === m.to),
  )
  expect(now.reason.source).toBe(isTheSame && card!.proposal.moves.length > 0 ? 'proposal' : 'own-idea')
  // Whoever has not agreed is another rider.
  const mika = (await tent(page)).riders.find((r) => r.id === dayOf('mika'))!
  await page.request.put(`${server.base}/api/v1/tent-riders/${mika.id}`, { data: { ...mika, named: false } })
  await page.getByRole('button', { name: 'Undo' }).last().click()
  await expect(offered).toContainText('Worked for another rider, who')
})

test('before the first run: pressures in one go, dials against what is kept, nothing turned, nothing said that was not read', async ({
  page,
}) => {
  await open(page)
  const before = await day(page, 'wren')
  await page.keyboard.press('m')
  const dialog = page.getByRole('dialog')
  const round = dialog.getByLabel(/^Pressures in one go/)
  const heard = dialog.getByRole('list', { name: 'In the order of the gauge' })
  await round.fill('- - - 5 8')
  await expect(dialog.getByRole('alert')).toContainText('Number 4, 5, is outside')
  await expect(dialog.getByRole('button', { name: 'Take them' })).toBeDisabled()
  await round.fill('- - - 61')
  await expect(heard).toContainText('4 Wren, fork 61 psi, 3 psi firmer than kept')
  await round.press('Enter')
  // Wren has not ridden yet: the check begins there.
  await expect(dialog.getByRole('button', { name: /4 Wren/ })).toHaveAttribute('aria-pressed', 'true')
  await expect(dialog.getByLabel('front Pressure stands at')).toHaveValue('61')
  await dialog.getByRole('button', { name: 'front Rebound: as kept' }).click()
  await dialog.getByLabel('rear Rebound stands at').fill('77')
  await dialog.getByLabel('rear Rebound stands at').press('Tab')
  await expect(dialog.getByText(/Position 77 is outside/)).toBeVisible()
  await dialog.getByLabel('rear Rebound stands at').fill('4')
  await dialog.getByLabel('rear Rebound stands at').press('Tab')
  await expect(dialog.getByText('2 clicks slower than kept')).toBeVisible()
  await dialog.getByRole('button', { name: 'Keep 3 readings of 1 bike' }).click()
  await expect(
    page.getByText('Read on 1 bike; nothing is turned. Run 1 is ridden as it stands.'),
  ).toBeVisible()
  const after = await day(page, 'wren')
  const now = after.setups.find((s) => s.id === after.bike.currentSetupId)!
  expect(now.reason.source).toBe('reading')
  const at = (what: string) => now.positions.find((p) => p.adjusterId === idOf(`wren ${what}`))!
  expect([at('fork psi').value, at('fork rebound').value, at('shock rebound').value]).toEqual([61, 5, 4])
  for (const what of ['fork psi', 'fork rebound', 'shock rebound'])
    expect(at(what).known, what).toMatchObject({ how: 'read', at: expect.stringMatching(/^20/) })
  // What nobody looked at is known as it was before.
  const was = before.setups.at(-1)!.positions.find((p) => p.adjusterId === idOf('wren shock psi'))!
  expect(at('shock psi')).toEqual(was)
  await expect(row(page, 'Wren')).toContainText('all as it started')
  for (const other of ['mika', 'sanna', 'nuri', 'obi', 'runa'])
    expect(
      (await day(page, other)).setups.some((s) => s.reason.text.startsWith('Morning')),
      other,
    ).toBe(false)
})

test('a gauge that reads high: in one go, typed beside a part or ticked, every number is what it shows', async ({
  page,
}) => {
  await open(page)
  await page.keyboard.press('m')
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Read with').selectOption({ label: 'black pump' })
  await expect(dialog.getByText('That gauge reads 4 psi high; it is taken off.')).toBeVisible()
  await dialog.getByRole('button', { name: /4 Wren/ }).click()
  await expect(dialog.getByText('62 psi on that gauge')).toBeVisible()
  const round = dialog.getByLabel(/^Pressures in one go/)
  await round.fill('- - - 61')
  await round.press('Enter')
  await expect(dialog.getByLabel('front Pressure stands at')).toHaveValue('61')
  await expect(dialog.getByText('1 psi softer than kept').last()).toBeVisible()
  // 132 is kept: that is 136 on this gauge.
  const rear = dialog.getByLabel('rear Pressure stands at')
  const ticked = dialog.getByRole('button', { name: 'rear Pressure: as kept' })
  await ticked.click()
  await expect(rear).toHaveValue('136')
  await rear.fill('132')
  await rear.press('Tab')
  await expect(ticked).toHaveAttribute('aria-pressed', 'false')
  await rear.fill('136')
  await rear.press('Tab')
  await expect(ticked).toHaveAttribute('aria-pressed', 'true')
  await dialog.getByRole('button', { name: 'Keep 2 readings of 1 bike' }).click()
  await expect(dialog).toBeHidden()
  const after = await day(page, 'wren')
  const now = after.setups.find((s) => s.id === after.bike.currentSetupId)!
  const at = (what: string) => now.positions.find((p) => p.adjusterId === idOf(`wren ${what}`))!
  expect([at('fork psi').value, at('shock psi').value]).toEqual([57, 132])
  for (const what of ['fork psi', 'shock psi'])
    expect(at(what).known, what).toMatchObject({ how: 'read', gaugeId: idOf('black pump') })
})

test('the weather is noted once for all, on each rider’s day too; what nobody read is not made up', async ({
  page,
  context,
}) => {
  const beside = await context.newPage()
  await beside.goto(`${server.base}/days/${idOf('day tent wren')}`)
  const line = beside.getByRole('list', { name: 'Runs and changes, in their order' })
  await expect(line.getByRole('listitem').first()).toBeVisible()
  await open(page)
  await page.keyboard.press('w')
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Note it' }).click()
  await expect(dialog.getByText('Note at least one of air, height, ground and track.')).toBeVisible()
  await dialog.getByRole('textbox', { name: 'Air' }).fill('29')
  await dialog.getByRole('button', { name: 'looser' }).click()
  await dialog.getByRole('button', { name: 'Note it' }).click()
  await expect.poll(async () => (await tent(page)).hours.length).toBe(5)
  const last = (await tent(page)).hours.at(-1)!
  expect([last.airTempC, last.altitudeM, last.surface, last.track]).toEqual([29, null, null, ['looser']])
  await expect(page.getByRole('img', { name: /29 °C · looser/ })).toBeVisible()
  await expect(line.getByText('29 °C · looser')).toBeVisible()
  // Nobody has ridden since: no run says so of itself.
  expect((await day(page, 'wren')).runs.map((r) => r.airTempC)).not.toContain(29)
})

test('on a slow line a run is of who came in, with all that was said, though somebody else is looked at by then', async ({
  page,
}) => {
  await open(page)
  const before = (await day(page, 'mika')).runs
  await page.route('**/api/v1/runs/*', async (route) => {
    if (route.request().method() === 'PUT') await new Promise((r) => setTimeout(r, 2500))
    await route.continue().catch(() => undefined)
  })
  const { number } = (await tent(page)).riders.find((r) => r.id === dayOf('mika'))!
  await keys(page, `${number} in 6.5 rki better`)
  await expect.poll(() => rows(page).allInnerTexts()).toContainEqual(expect.stringMatching(/Mika[^]*6\.5/))
  await row(page, 'Nuri').click()
  await expect(page.getByText(/Mika is in: run \d+ is logged/)).toBeVisible()
  await expect(page.getByText(/no earlier run that counts/)).toHaveCount(0)
  const said = async () => {
    const { runs, feels } = await day(page, 'mika')
    const run = runs[before.length] as (typeof runs)[number] | undefined
    return feels.find((f) => f.runId === run?.id)
  }
  await expect.poll(said).toMatchObject({
    rating: 6.5,
    marks: [{ word: 'kicks', end: 'rear' }],
    verdicts: [{ againstRunId: before.findLast((r) => r.kind === 'counted')!.id, value: 1 }],
  })
  expect((await day(page, 'nuri')).runs.every((r) => before.every((b) => b.id !== r.id))).toBe(true)
})

test('what is taken back is of the bike it was done on, whoever is looked at by then', async ({ page }) => {
  await open(page)
  const bikes = async () =>
    Promise.all(['runa', 'mika'].map(async (r) => (await day(page, r)).bike.currentSetupId))
  const [, mika] = await bikes()
  const turned = page.getByText(/On the bike: Rear rebound 4 → 3 clicks/)
  const undo = page.getByRole('button', { name: 'Undo', exact: true })
  await keys(page, '6 rear reb slower 1')
  await expect(turned).toBeVisible()
  await expect(undo).toBeVisible()
  const [runa] = await bikes()
  await row(page, 'Mika').click()
  // It goes with the day it speaks of, long before it would go by itself.
  await expect(undo).toHaveCount(0, { timeout: 5000 })
  // An answer that comes when somebody else is looked at has no way back that would act on them.
  await page.route('**/api/v1/setups/*', async (route) => {
    await new Promise((r) => setTimeout(r, 2000))
    await route.continue().catch(() => undefined)
  })
  await keys(page, '6 undo')
  await page.waitForTimeout(300)
  await row(page, 'Mika').click()
  await expect(page.getByText(/^Taken back: Rear rebound/)).toBeVisible()
  await expect(undo).toHaveCount(0, { timeout: 5000 })
  await keys(page, '6 rear reb slower 1')
  await page.waitForTimeout(300)
  await row(page, 'Mika').click()
  await expect(turned).toBeVisible()
  await expect(undo).toHaveCount(0, { timeout: 5000 })
  expect((await bikes())[0]).not.toBe(runa)
  expect((await bikes())[1]).toBe(mika)
})

test('what was planned on a rider’s own day waits in the tent too, and is dropped there on that day', async ({
  page,
}) => {
  const { day: mika } = await day(page, 'mika')
  const plan = { id: idOf('own plan'), at: new Date().toISOString(), text: 'if worse, fork reb faster 1' }
  const kept = { ...plan, afterRunId: (await day(page, 'mika')).runs.at(-1)!.id, closedAt: null }
  const put = await page.request.put(`${server.base}/api/v1/days/${mika.id}`, {
    data: { ...mika, plans: [kept] },
  })
  expect(put.ok(), await put.text()).toBe(true)
  await open(page)
  const own = row(page, 'Mika').getByRole('button', { name: 'If worse: fork reb faster 1', exact: true })
  await expect(own).toBeVisible()
  await row(page, 'Mika')
    .getByRole('button', { name: /^Drop the plan/ })
    .click()
  await expect(own).toHaveCount(0)
  await expect.poll(async () => (await day(page, 'mika')).day.plans[0].closedAt).not.toBeNull()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(own).toBeVisible()
  await expect.poll(async () => (await day(page, 'mika')).day.plans).toEqual([kept])
})

test('two coaches see one tent: what one does stands on the other’s screen, and each keeps the rider they look at', async ({
  page,
  context,
}) => {
  await open(page)
  const second = await context.newPage()
  await open(second)
  await row(second, 'Obi').click()
  await keys(page, '2 out')
  await expect(row(second, 'Sanna')).toContainText('out since')
  await expect(row(second, 'Obi').getByRole('button', { name: /^Obi/ })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await line(second).fill('1 shock reb slower 1')
  await line(second).press('Enter')
  await expect(row(page, 'Mika')).toContainText('rebound 5, 2 slower')
})

test('on a wall it is looked at by everybody: live, without a way to touch it, without reasons', async ({
  page,
  context,
}) => {
  await page.goto(`${server.base}/tent/${tentId}?wall=1`)
  await expect(rows(page)).toHaveCount(6)
  await expect(page.getByText('One warm-up run, then the baseline')).toBeVisible()
  await expect(line(page)).toHaveCount(0)
  for (const gone of ['fork lsc firmer 1', 'rode it twice', '“kicks” on run 4'])
    expect(await page.locator('.board').innerHTML()).not.toContain(gone)
  const before = await tent(page)
  for (const key of ['i', 'o', 's', 'w', '2']) await page.keyboard.press(key)
  await expect(page.getByRole('dialog')).toHaveCount(0)
  expect(await tent(page)).toEqual(before)
  const coach = await context.newPage()
  await open(coach)
  await keys(coach, '2 out')
  await expect(rows(page).filter({ hasText: 'Sanna' })).toContainText('out since')
})

test('a new tent takes in the days that were made before it, and begins one for who has none', async ({
  page,
}) => {
  await page.goto(server.base)
  await page.getByRole('button', { name: 'New tent' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Save the tent' }).click()
  await expect(dialog.getByText('Give it a name.')).toBeVisible()
  await dialog.getByLabel('Name').fill('Second tent')
  await dialog.getByLabel('Trail').selectOption({ label: 'Quarry Loop, lower half, Fernhollow' })
  await dialog.getByRole('button', { name: 'Add a stretch' }).click()
  await dialog.getByLabel('from').fill('12:00')
  await dialog.getByLabel('to', { exact: true }).fill('09:00')
  await dialog.getByRole('button', { name: 'Save the tent' }).click()
  await expect(dialog.getByText('A stretch of the schedule ends after it begins.')).toBeVisible()
  await dialog.getByLabel('to', { exact: true }).fill('13:00')
  await dialog.getByRole('button', { name: 'Save the tent' }).click()
  await page.waitForURL(/\/tent\//)
  const riders = page.getByRole('dialog', { name: 'Riders in this tent' })
  await expect(riders.getByText(/Days of this date on Quarry Loop, lower half: /)).toBeVisible()
  await riders.getByRole('button', { name: 'Mika, 200 mm race bike' }).click()
  await expect(riders.getByRole('list', { name: 'Riders' }).getByRole('listitem')).toHaveCount(1)
  await riders.getByLabel('A rider who has no day yet').selectOption({ label: 'Joren, 130 mm bike' })
  await riders.getByRole('button', { name: 'Begin a day here' }).click()
  await expect(riders.getByRole('list', { name: 'Riders' }).getByRole('listitem')).toHaveCount(2)
  await page.keyboard.press('Escape')
  await expect(row(page, 'Joren')).toContainText('One warm-up run, then the baseline')
  // A day is in one tent: Mika has left the other one.
  expect((await tent(page)).riders.map((r) => r.id)).not.toContain(dayOf('mika'))
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('the same is a list, and a rider comes in with two taps', async ({ page }) => {
    await open(page)
    await expect(page.getByRole('img')).toHaveCount(0)
    await row(page, 'Mika').getByRole('button', { name: /^Mika/ }).tap()
    await expect(entry(page).getByText('Mika')).toBeVisible()
    await entry(page)
      .getByRole('button', { name: /^Comes in/ })
      .tap()
    await expect(page.getByText('Mika is in: run 5 is logged.')).toBeVisible()
    for (const b of await entry(page).getByRole('button').all()) {
      const box = await b.boundingBox()
      expect(box!.height).toBeGreaterThanOrEqual(44)
    }
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
    ).toBeLessThanOrEqual(0)
  })
})
