import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { idOf } from '../demo/ids.ts'
import { handFile } from './handFile.ts'
import { startDemo, type RunningServer } from './server.ts'

let server: RunningServer
test.beforeAll(async () => {
  server = await startDemo()
})
test.afterAll(async () => server?.stop())

/** 600,000 rows of seven columns, about 40 MB: ten minutes at 1000 Hz. */
function longFile(): string {
  const path = join(mkdtempSync(join(tmpdir(), 'wild-spring-long-')), 'long ride.csv')
  const lines = ['time_ms,front_mm,rear_shaft_mm,bar_g,speed_km/h,temperature_c,spare']
  for (let i = 0; i < 600_000; i++) {
    const t = i / 1000
    const hit = Math.max(0, Math.sin(t * 4)) ** 6
    const front = 32 + 60 * hit + 3 * Math.sin(t * 60)
    const rear = 16 + 24 * hit + Math.sin(t * 55)
    lines.push(
      `${i.toFixed(2)},${front.toFixed(4)},${rear.toFixed(4)},${(1 + 0.4 * Math.sin(t * 90)).toFixed(5)},${(24 + Math.sin(t / 9)).toFixed(4)},21.4375,0.000000001`,
    )
  }
  writeFileSync(path, lines.join('\n') + '\n')
  return path
}
async function openRun(page: Page, day: string, run: number) {
  await page.goto(`${server.base}/days/${idOf(`day ${day}`)}`)
  await page.getByRole('button', { name: new RegExp(`^Run ${run},`) }).click()
}
const dialog = (page: Page) => page.getByRole('dialog').last()

test('a 40 MB file goes from choosing to section figures, with progress, and can be cancelled', async ({
  page,
}) => {
  await openRun(page, 'settled', 1)
  await page.getByRole('button', { name: 'Add a sensor file' }).click()
  const file = longFile()
  const choose = () => dialog(page).locator('input[type=file]').setInputFiles(file)
  await choose()
  const put = dialog(page).getByRole('button', { name: 'Put it on run 1' })
  await expect(dialog(page).getByText('10:00 min at 1000 Hz')).toBeVisible({ timeout: 60_000 })

  await put.click()
  await expect(dialog(page).getByRole('status')).toContainText(/, \d+ %/)
  await dialog(page).getByRole('button', { name: 'Cancel' }).click()
  await expect(dialog(page).getByRole('alert')).toContainText(/[Cc]ancelled/)

  await put.click()
  const seen = new Set<string>()
  for (let i = 0; i < 400 && (await dialog(page).getByRole('status').count()) > 0; i++) {
    const text = await dialog(page)
      .getByRole('status')
      .textContent({ timeout: 1000 })
      .catch(() => null)
    if (text) seen.add(text.trim())
    await page.waitForTimeout(30)
  }
  expect(seen.size, [...seen].join(' | ')).toBeGreaterThan(2)
  await expect(page.getByText('long ride.csv: 10:00 min at 1000 Hz, on run 1.')).toBeVisible({
    timeout: 60_000,
  })
  await page.getByRole('link', { name: 'What the suspension did' }).click()
  await expect(page.getByRole('img', { name: /Depth of front and rear over time/ })).toBeVisible()
  for (const name of ['Rollers', 'Stone steps', 'Larch roots', 'Two berms'])
    await expect(page.getByText(name, { exact: true }).first()).toBeVisible()
  await expect(page.getByText('How slow, how fast it moves')).toBeVisible()
})

test('a hand-made file: a track brings its way, sections are placed by hand, and taken back', async ({
  page,
}) => {
  await openRun(page, 'half-way', 1)
  await page.getByRole('button', { name: 'Add a sensor file' }).click()
  await dialog(page)
    .locator('input[type=file]')
    .setInputFiles({ name: 'ride.txt', mimeType: 'text/plain', buffer: handFile({ sinking: 1 }) })
  await dialog(page).getByRole('button', { name: 'Put it on run 1' }).click()
  await page.getByRole('link', { name: 'What the suspension did' }).click()
  const guess = page.getByText(/Sections are placed by their share of the trail’s length/)
  await expect(guess).toBeVisible()

  await test.step('a track that is no track is refused', async () => {
    await page.getByRole('button', { name: 'Add a track or file' }).click()
    const input = dialog(page).locator('input[type=file]')
    await input.setInputFiles({ name: 'way.gpx', mimeType: 'text/xml', buffer: Buffer.from('<gpx></gpx>') })
    await dialog(page).getByRole('button', { name: 'Join it' }).click()
    await expect(dialog(page).getByRole('alert')).toContainText('holds no track with at least two points')
  })
  await test.step('a track joins by the second it is said to begin at', async () => {
    const points = Array.from(
      { length: 41 },
      (_, i) =>
        `<trkpt lat="${(-47.5 + 3e-5 * i + 6e-5 * Math.max(0, i - 20)).toFixed(6)}" lon="-122.3"><time>2031-05-02T10:00:${String(i).padStart(2, '0')}Z</time></trkpt>`,
    )
    const gpx = `<gpx version="1.1"><trk><trkseg>${points.join('')}</trkseg></trk></gpx>`
    const input = dialog(page).locator('input[type=file]')
    await input.setInputFiles({ name: 'way.gpx', mimeType: 'text/xml', buffer: Buffer.from(gpx) })
    await dialog(page).getByLabel('It begins at').fill('0')
    await dialog(page).getByRole('button', { name: 'Join it' }).click()
    await expect(page.getByText('way.gpx is joined to the recording.')).toBeVisible()
    await expect(guess).toHaveCount(0)
  })
  await test.step('sections go where a person says', async () => {
    await page.getByRole('button', { name: 'Place sections' }).click()
    await page.getByLabel('Chicane ends', { exact: true }).fill('0')
    await page.getByLabel('Chicane ends', { exact: true }).blur()
    await expect(page.getByText('Chicane must end after it begins.')).toBeVisible()
    await page.getByRole('button', { name: 'Set the end of Chicane on the trace' }).click()
    await expect(page.getByText('Tap the trace where Chicane ends.')).toBeVisible()
    const trace = page.getByRole('img', { name: /Depth of front and rear over time/ })
    const box = (await trace.boundingBox())!
    await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * 0.5)
    const ends = page.getByLabel('Chicane ends', { exact: true })
    await expect(ends).not.toHaveValue('0')
    const at = Number(await ends.inputValue())
    expect(at).toBeGreaterThan(8)
    expect(at).toBeLessThan(16)
    // What follows begins where it ends, and was too early before.
    await page.getByLabel('Braking bumps ends', { exact: true }).fill(String(at + 6))
    await page.getByLabel('Braking bumps ends', { exact: true }).blur()
    await page.getByRole('button', { name: 'Count by these' }).click()
    await expect(page.getByRole('heading', { name: 'Where the sections lie' })).toHaveCount(0)
    const day = await (await page.request.get(`${server.base}/api/v1/days/${idOf('day half-way')}`)).json()
    const recording = day.recordings.find((r: { fileName: string }) => r.fileName === 'ride.txt')
    expect(recording.analysis.sectionsBy).toBe('marks')
    expect(recording.analysis.sections[0].endS).toBeCloseTo(at, 1)
  })
  const recordingNow = async () => {
    const day = await (await page.request.get(`${server.base}/api/v1/days/${idOf('day half-way')}`)).json()
    return day.recordings.find((r: { fileName: string }) => r.fileName === 'ride.txt')
  }
  await test.step('the trail keeps the places of the sections', async () => {
    await page.getByRole('button', { name: 'Place sections' }).click()
    // The figures are made again, and told, before the answer comes: what was open must neither begin anew nor stay.
    const trails = '**/api/v1/trails/*'
    await page.route(trails, async (route) => {
      const answer = await route.fetch()
      await expect.poll(async () => (await recordingNow()).figures).toBe('current')
      await page.waitForTimeout(1500)
      await route.fulfill({ response: answer })
    })
    await page.getByRole('button', { name: 'Keep these places with the trail' }).click()
    await expect(page.getByText('Kept with the trail: runs with positions find their sections')).toBeVisible()
    await page.unroute(trails)
    await expect(page.getByRole('heading', { name: 'Where the sections lie' })).toHaveCount(0)
    const day = await (await page.request.get(`${server.base}/api/v1/days/${idOf('day half-way')}`)).json()
    expect(day.trail.gates.length).toBeGreaterThan(3)
  })
  await test.step('a line said of this run stands above them, in metres from there', async () => {
    await page.getByRole('button', { name: 'Place sections' }).click()
    await page.getByLabel('or at the first hit over').fill('101')
    await page.getByLabel('or at the first hit over').blur()
    await page.getByRole('button', { name: 'Take that hit' }).click()
    await expect(page.getByText('Nothing in this run goes 101 % deep.')).toBeVisible()
    await page.getByLabel('or at the first hit over').fill('40')
    await page.getByLabel('or at the first hit over').blur()
    await page.getByRole('button', { name: 'Take that hit' }).click()
    const line = Number(await page.getByLabel('Or: the trail begins at').inputValue())
    expect(line).toBeGreaterThan(0)
    await page.getByRole('button', { name: 'Count in metres from there' }).click()
    await expect(page.getByRole('heading', { name: 'Where the sections lie' })).toHaveCount(0)
    const r = await recordingNow()
    expect(r).toMatchObject({ lineS: line, spans: [], analysis: { sectionsBy: 'distance' } })
    expect(r.analysis.sections[0].startS).toBeCloseTo(line, 1)
    // The track is shorter than the trail, and the page says so.
    await expect(page.getByText(/Only \d+ m were ridden from the line on/)).toBeVisible()
  })
  await test.step('without the line its sections are found by the places', async () => {
    // What is in doubt is not offered to be kept.
    await page.getByRole('button', { name: 'Place sections' }).click()
    await expect(page.getByRole('button', { name: 'Keep these places with the trail' })).toHaveCount(0)
    await page.getByRole('button', { name: 'Place them again' }).click()
    await expect(page.getByRole('heading', { name: 'Where the sections lie' })).toHaveCount(0)
    expect((await recordingNow()).analysis.sectionsBy).toBe('places')
  })
  await test.step('and the track can be taken off again', async () => {
    await page.getByRole('button', { name: '2 files' }).click()
    await dialog(page).getByRole('button', { name: 'Remove' }).click()
    await expect(dialog(page).getByText('way.gpx')).toHaveCount(0)
  })
})

test('sections are copied from another run by likeness, and the worst moments are stepped through', async ({
  page,
}) => {
  const to = idOf('half-way run 5')
  await page.goto(`${server.base}/days/${idOf('day half-way')}/trace/${to}`)
  await expect(page.getByRole('img', { name: /Depth of front and rear over time/ })).toBeVisible()
  await page.getByRole('button', { name: 'The next one' }).click()
  await expect(page.getByText(/^1 of 40: (front|rear), [\d.]+ m\/s in$/)).toBeVisible()
  await page.getByLabel('Events to step through').selectOption('train')
  await page.getByRole('button', { name: 'The next one' }).click()
  await expect(page.getByText(/^1 of \d+: (front|rear), valleys/)).toBeVisible()

  await page.getByRole('button', { name: 'Place sections' }).click()
  const begins = page.getByLabel('Root web begins', { exact: true })
  const before = Number(await begins.inputValue())
  await begins.fill('1')
  await page.getByLabel('As they lie in').selectOption({ index: 0 })
  const copy = page.getByRole('button', { name: 'Copy by likeness' })
  await expect(copy).toBeEnabled()
  await copy.click()
  expect(Math.abs(Number(await begins.inputValue()) - before)).toBeLessThan(1.5)
})

test('a file that cannot be made out asks how it is written, and is read by what is said', async ({
  page,
}) => {
  const day = await (await page.request.get(`${server.base}/api/v1/days/${idOf('day settled')}`)).json()
  const bare = day.runs.findIndex(
    (r: { id: string }, i: number) =>
      i > 0 && !day.recordings.some((x: { runId: string }) => x.runId === r.id),
  )
  const number = bare + 1
  expect(number).toBeGreaterThan(1)
  await openRun(page, 'settled', number)
  await page.getByRole('button', { name: 'Add a sensor file' }).click()
  const rows = Array.from({ length: 2000 }, (_, i) => {
    const depth = (30 + 20 * Math.max(0, Math.sin(i / 40)) ** 4 + (i % 7)).toFixed(1)
    return `05.08.31 14:05:${(10 + i / 200).toFixed(3)};${depth.replace('.', ',')} mm;${i % 90 === 3 ? '"wet; fast"' : ''};${(Number(depth) / 3).toFixed(2).replace('.', ',')}`
  })
  const text = ['logged by hand', 'Zeit;Gabel (fork);note;shock [mm]', ...rows].join('\n')
  await dialog(page)
    .locator('input[type=file]')
    .setInputFiles({ name: 'by hand.txt', mimeType: 'text/plain', buffer: Buffer.from(text) })
  const put = dialog(page).getByRole('button', { name: `Put it on run ${number}` })
  await expect(dialog(page).getByRole('alert')).toContainText('as day and month or as month and day')
  await expect(put).toBeDisabled()
  await dialog(page).getByLabel('Dates are written').selectOption('dmy')
  await expect(dialog(page).getByText('0:10 min at 200 Hz')).toBeVisible()
  await expect(put).toBeEnabled()

  await test.step('what was seen is told, and can be said otherwise', async () => {
    const seen = dialog(page).getByText(/^ASCII, semicolon, decimal comma, 12,3, numbers from line 3 on/)
    await seen.click()
    await dialog(page).getByLabel('Separated by').selectOption({ label: 'bar' })
    await expect(put).toHaveCount(0)
    await expect(dialog(page).getByRole('alert')).not.toBeEmpty()
    await dialog(page).getByLabel('Separated by').selectOption({ label: 'semicolon' })
    await expect(dialog(page).getByLabel('What Gabel (fork) is')).toHaveValue('front-travel')
  })
  await test.step('raw readings have no calibration until somebody types one', async () => {
    await dialog(page).getByLabel('Unit of Gabel (fork)').selectOption('raw')
    await expect(dialog(page).getByRole('alert')).toContainText('need a calibration')
    await expect(dialog(page).getByLabel('Reading, fully extended')).toHaveValue('')
    await dialog(page).getByLabel('Unit of Gabel (fork)').selectOption('mm')
    await expect(dialog(page).getByLabel('Reading, fully extended')).toHaveCount(0)
  })
})

test('a ring that stands far short of what a sensor says: no depth of it is believed, alone or against another run', async ({
  page,
}) => {
  const api = `${server.base}/api/v1`
  const [dayId, one, other] = [idOf('day half-way'), idOf('half-way run 2'), idOf('half-way run 5')]
  const read = async () => (await page.request.get(`${api}/days/${dayId}`)).json()
  const before = await read()
  const run = before.runs.find((r: { id: string }) => r.id === other)
  const figuresOf = (id: string) =>
    before.recordings.find((r: { runId: string }) => r.runId === id).analysis.whole.front
  expect(figuresOf(other).depthMaxPct).toBeGreaterThan(60)
  const compare = `${server.base}/days/${dayId}/compare?a=${one}&b=${other}`
  const rows = page.getByRole('row', { name: /ride height/ })
  const showAll = () => page.getByLabel(/show all/).check()
  await page.goto(compare)
  await showAll()
  const told = await rows.count()
  await expect(rows.first()).toBeVisible()
  await expect(page.getByText(/sensor went to/)).toHaveCount(0)

  const put = await page.request.put(`${api}/runs/${other}`, { data: { ...run, ringFrontMm: 70 } })
  expect(put.status()).toBe(200)
  const words = /The front sensor went to \d+ % of travel and the ring only to \d+ %/
  await page.goto(compare)
  await expect(page.getByText(words)).toContainText(/^Run 5: /)
  await showAll()
  // Those of the rear stay: one for the whole run, one for each part of the trail.
  await expect(rows).toHaveCount(told / 2)
  await page.goto(`${server.base}/days/${dayId}/trace/${other}`)
  await expect(page.getByText(words)).toBeVisible()
  const ride = page
    .getByRole('region', { name: 'Figures of this run' })
    .getByRole('row', { name: /ride height/ })
  await expect(ride.getByRole('cell').first()).toContainText('not believed')
  await expect(ride.getByRole('cell').last()).not.toContainText('not believed')
  await expect(page.getByRole('region', { name: 'What stands out' })).not.toContainText(/Front rides|Balance/)
  const bands = page.getByRole('region', { name: 'Time at depth' })
  await expect(bands).toContainText('Front: left out where its zero has moved.')
  const atDepth = await bands.getByRole('img').count()
  // Speeds are right, whatever the zero.
  await bands.getByRole('button', { name: 'speed' }).click()
  const atSpeed = page.getByRole('region', { name: 'Time at shaft speed' }).getByRole('img')
  await expect(atSpeed).toHaveCount(2 * atDepth)
  expect(atDepth).toBeGreaterThan(0)
})
