import { expect, test, type BrowserContext, type Page } from '@playwright/test'
import type { DayBundle } from '../contract/endpoints.ts'
import type { GivenPadLink } from '../contract/pad.ts'
import type { TentBundle } from '../contract/tent.ts'
import { idOf } from '../demo/ids.ts'
import { Hands } from './hands.ts'
import { holdWrites } from './held.ts'
import { startDemoProcess, startProcess, type ServerProcess } from './server.ts'

let server: ServerProcess
test.beforeEach(async () => void (server = await startDemoProcess()))
test.afterEach(async () => server?.stop())

const tentId = idOf('tent practice')
const dayOf = (rider: string) => idOf(`day tent ${rider}`)
const read = async <T>(path: string) => (await (await fetch(`${server.base}/api/v1${path}`)).json()) as T
const tent = () => read<TentBundle>(`/tents/${tentId}`)
const day = (rider: string) => read<DayBundle>(`/days/${dayOf(rider)}`)
async function linkOf(rider: string): Promise<string> {
  const answer = await fetch(`${server.base}/api/v1/tent-riders/${dayOf(rider)}/pad`, {
    method: 'PUT',
    body: '{}',
    headers: { 'content-type': 'application/json' },
  })
  return `${server.base}/pad/${((await answer.json()) as GivenPadLink).token}`
}
const phoneSize = { viewport: { width: 390, height: 844 }, hasTouch: true, permissions: ['microphone'] }
const key = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' })

test('a rider says how it was in six taps, blind, and the tent has it at once', async ({
  browser,
  page: laptop,
}) => {
  await laptop.goto(`${server.base}/tent/${tentId}?rider=1`)
  await laptop.getByText('Rear rebound, 2 clicks faster').waitFor()
  const context = await browser.newContext(phoneSize)
  const page = await context.newPage()
  const asked: string[] = []
  page.on(
    'request',
    (r) => r.url().includes('/api/') && asked.push(`${r.method()} ${new URL(r.url()).pathname}`),
  )
  await page.goto(await linkOf('mika'))
  const hands = new Hands(page)
  await expect(page.getByText('Run 4')).toBeVisible()
  await hands.tap(key(page, 'Worse'), 64)
  await hands.tap(key(page, 'Next'), 64)
  await hands.tap(key(page, 'Front'), 64)
  await hands.tap(key(page, 'Next'), 64)
  await hands.tap(key(page, 'dives'), 64)
  await hands.tap(key(page, 'Send'), 64)
  expect(hands.taps).toBeLessThanOrEqual(6)
  await expect(page.getByText('The tent has it')).toBeVisible()
  // It asked for what it is shown and for nothing else.
  expect([...new Set(asked.map((a) => a.replace(/[0-9a-f-]{36}/, ':id')))].sort()).toEqual([
    'GET /api/v1/pad',
    'PUT /api/v1/pad/reports/:id',
  ])
  const b = await day('mika')
  const last = b.runs.at(-1)!
  const feel = b.feels.find((f) => f.runId === last.id)!
  expect(feel.rating).toBe(6.5)
  expect(feel.marks.map((m) => `${m.word} ${m.end}`)).toContain('dives front')
  expect(feel.verdicts).toContainEqual({ againstRunId: b.runs.at(-2)!.id, value: -1 })
  expect((await tent()).reports).toMatchObject([{ takenFor: last.id }])
  await expect(laptop.getByRole('group', { name: 'The rider’s phone' })).toHaveCount(0)
  await context.close()
})

test('what the tent says otherwise is put to a person with both, and the phone can be right', async ({
  browser,
  page: laptop,
}) => {
  const b = await day('sanna')
  const [before, last] = b.runs.slice(-2)
  const held = b.feels.find((f) => f.runId === last.id)!
  await fetch(`${server.base}/api/v1/runs/${last.id}/feel`, {
    method: 'PUT',
    body: JSON.stringify({ ...held, verdicts: [{ againstRunId: before.id, value: 1 }] }),
    headers: { 'content-type': 'application/json' },
  })
  await laptop.goto(`${server.base}/tent/${tentId}?rider=2`)
  await laptop.getByText('all as it started').first().waitFor()
  const context = await browser.newContext(phoneSize)
  const page = await context.newPage()
  await page.goto(await linkOf('sanna'))
  await key(page, 'Worse').click()
  await key(page, 'Worse').click()
  await expect(key(page, 'Much worse')).toHaveAttribute('aria-pressed', 'true')
  await key(page, 'Next').click()
  await key(page, 'Next').click()
  await key(page, 'Send').click()
  await expect(page.getByText('The tent has it')).toBeVisible()
  await expect(laptop.getByText('The tent has better for run 4.')).toBeVisible()
  expect((await day('sanna')).feels.find((f) => f.runId === last.id)!.verdicts[0].value).toBe(1)
  await laptop.getByRole('button', { name: 'The phone is right' }).click()
  await expect(laptop.getByRole('group', { name: 'The rider’s phone' })).toBeHidden()
  // The page shows a choice before the server has it.
  await expect
    .poll(async () => (await day('sanna')).feels.find((f) => f.runId === last.id))
    .toMatchObject({ rating: held.rating, verdicts: [{ againstRunId: before.id, value: -2 }] })
  await context.close()
})

test('said without a network, the page closed and opened, the server restarted: it arrives once, in order, with its time', async ({
  browser,
}) => {
  const context = await browser.newContext(phoneSize)
  const page = await context.newPage()
  const link = await linkOf('runa')
  await page.goto(link)
  await page.getByText('Runa').waitFor()
  await server.stop('SIGKILL')
  const say = async (word: string) => {
    await key(page, 'another').click()
    await key(page, /^A newer one/).click()
    await key(page, 'Worse').click()
    await key(page, 'Next').click()
    await key(page, 'Next').click()
    await key(page, word).click()
    await key(page, 'Send').click()
    await expect(page.getByRole('heading', { name: 'Kept on this phone' })).toBeVisible()
    await key(page, 'Say another run').click()
  }
  await say('kicks')
  await say('bottoms')
  await expect(page.getByText(/^2 reports wait on this phone since \d\d:\d\d/)).toBeVisible()
  const { port } = new URL(server.base)
  server = await startProcess(server.dataDir, { env: { WILD_SPRING_PORT: port } })
  // Closed in the meantime; opened again it goes by itself.
  await page.close()
  const again = await context.newPage()
  await again.goto(link)
  await expect(again.getByText(/report waits|reports wait/)).toBeHidden()
  await expect
    .poll(async () => (await tent()).reports.map((r) => r.report.words[0].word))
    .toEqual(['kicks', 'bottoms'])
  const { reports } = await tent()
  for (const r of reports) expect(Math.abs(Date.parse(r.saidAt) - Date.parse(r.report.at))).toBeLessThan(5000)
  await context.close()
})

test('a link that has ended keeps what was said, hands it over as a file, and the tent takes it', async ({
  browser,
  page: laptop,
}) => {
  const context = await browser.newContext({ ...phoneSize, acceptDownloads: true })
  const page = await context.newPage()
  await page.goto(await linkOf('obi'))
  await page.getByText('Obi').waitFor()
  await linkOf('obi')
  await key(page, 'Worse').click()
  await key(page, 'Next').click()
  await key(page, 'Next').click()
  await key(page, 'wallows').click()
  await key(page, 'Send').click()
  await expect(page.getByRole('heading', { name: 'Kept on this phone' })).toBeVisible()
  await expect(page.getByText('A new link takes it along; or hand it over.')).toBeVisible()
  await key(page, 'Hand over').click()
  await expect(page.getByRole('img', { name: 'What waits on this phone' })).toBeVisible()
  const picture = await page.getByRole('img', { name: 'What waits on this phone' }).screenshot()
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save it as a file' }).click()
  const file = await (await download).path()
  await laptop.goto(`${server.base}/tent/${tentId}`)
  await laptop.getByRole('button', { name: 'Phones' }).click()
  const take = laptop.getByLabel('A phone without signal')
  await take.setInputFiles({ name: 'note.txt', mimeType: 'text/plain', buffer: Buffer.from('hello') })
  await expect(laptop.getByText(/^That is not what a rider’s phone hands over/)).toBeVisible()
  // A photograph of the picture, then the file: the same report, taken once.
  await take.setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: picture })
  await expect(laptop.getByText('Obi: 1 report taken.')).toBeVisible()
  const again = laptop.waitForResponse((r) => r.request().method() === 'PUT' && r.url().includes('/reports/'))
  // Its ending was lost on the way.
  await take.setInputFiles(file)
  expect((await again).status()).toBe(200)
  expect((await tent()).reports.map((r) => r.report.words[0].word)).toEqual(['wallows'])
  await context.close()
})

test('what waits under a link that has ended goes out by the next link of the same rider, once', async ({
  browser,
}) => {
  const context = await browser.newContext(phoneSize)
  const page = await context.newPage()
  await page.goto(await linkOf('obi'))
  await page.getByText('Obi').waitFor()
  const next = await linkOf('obi')
  await key(page, 'Worse').click()
  await key(page, 'Next').click()
  await key(page, 'Next').click()
  await key(page, 'wallows').click()
  await key(page, 'Send').click()
  await expect(page.getByRole('heading', { name: 'Kept on this phone' })).toBeVisible()
  expect((await tent()).reports).toEqual([])
  await page.goto(next)
  await expect
    .poll(async () => (await tent()).reports.map((r) => r.report.words.map((w) => w.word)))
    .toEqual([['wallows']])
  await expect(page.getByText(/report waits/)).toBeHidden()
  await context.close()
})

test('a spoken note is kept with what was said, and played in the tent', async ({
  browser,
  page: laptop,
}) => {
  const context = await browser.newContext(phoneSize)
  await withVoice(context)
  const page = await context.newPage()
  await page.goto(await linkOf('nuri'))
  await key(page, 'another').click()
  await key(page, /^A newer one/).click()
  await key(page, 'Next').click()
  await key(page, 'Next').click()
  await expect(key(page, 'Say one thing')).toBeDisabled()
  await key(page, 'Say it').click()
  await key(page, 'Listening … stop').click()
  await expect(key(page, 'Spoken; take it back')).toBeVisible()
  await key(page, 'Send').click()
  await expect(page.getByText('The tent has it')).toBeVisible()
  await expect.poll(async () => (await tent()).reports.length).toBe(1)
  const { voiceId } = (await tent()).reports[0].report
  await expect
    .poll(async () => (await fetch(`${server.base}/api/v1/voices/${voiceId}`)).headers.get('content-type'))
    .toBe('audio/webm')
  await laptop.goto(`${server.base}/tent/${tentId}?rider=3`)
  await expect(laptop.locator('audio')).toHaveAttribute('src', new RegExp(String(voiceId)))
  await context.close()
})

test('sent while it still listens, what was spoken so far goes along', async ({ browser }) => {
  const context = await browser.newContext(phoneSize)
  await withVoice(context)
  const page = await context.newPage()
  await page.goto(await linkOf('nuri'))
  await key(page, 'Next').click()
  await key(page, 'Next').click()
  await key(page, 'kicks').click()
  await key(page, 'Say it').click()
  await expect(key(page, 'Listening … stop')).toBeVisible()
  await key(page, 'Send').click()
  await expect(page.getByText('The tent has it')).toBeVisible()
  await expect.poll(async () => (await tent()).reports.length).toBe(1)
  const { voiceId } = (await tent()).reports[0].report
  expect(voiceId).not.toBeNull()
  await expect.poll(async () => (await fetch(`${server.base}/api/v1/voices/${voiceId}`)).status).toBe(200)
  await context.close()
})

test('what was begun outlives a phone that forgets the page, and no look at the tent meanwhile wipes it', async ({
  browser,
}) => {
  const context = await browser.newContext(phoneSize)
  const page = await context.newPage()
  await page.goto(await linkOf('mika'))
  await key(page, 'Next').click()
  const front = key(page, 'Front')
  await front.click()
  // The rider looks at something else and comes back: the page looks what the tent has.
  const looked = page.waitForResponse((r) => r.url().endsWith('/api/v1/pad'))
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')))
  await looked
  await page.waitForTimeout(300)
  await expect(front).toHaveAttribute('aria-pressed', 'true')
  await page.reload()
  await expect(front).toHaveAttribute('aria-pressed', 'true')
  await key(page, 'Next').click()
  await key(page, 'dives').click()
  await page.reload()
  await expect(key(page, 'dives')).toHaveAttribute('aria-pressed', 'true')
  await key(page, 'Send').click()
  await expect(page.getByText('The tent has it')).toBeVisible()
  await expect.poll(async () => (await tent()).reports.length).toBe(1)
  const { report } = (await tent()).reports[0]
  expect(report.words).toMatchObject([{ word: 'dives', end: 'front' }])
  // Sent is sent: nothing of it is there the next time.
  await page.reload()
  await expect(page.getByText('The run after 4')).toBeVisible()
  expect(await page.evaluate(() => Object.keys(localStorage).filter((k) => k.includes('said')))).toEqual([])
  await context.close()
})

test('what waits on the phone is not asked for again, and Send tapped twice with a voice is one report', async ({
  browser,
}) => {
  const context = await browser.newContext(phoneSize)
  await withVoice(context)
  const page = await context.newPage()
  await page.goto(await linkOf('mika'))
  const line = await holdWrites(page, '**/api/v1/pad/reports/*')
  await key(page, 'Worse').click()
  await key(page, 'Next').click()
  await key(page, 'Next').click()
  await key(page, 'Say it').click()
  await expect(key(page, 'Listening … stop')).toBeVisible()
  await key(page, 'Send').evaluate((b: HTMLElement) => (b.click(), b.click()))
  await expect(page.getByRole('heading', { name: 'Kept on this phone' })).toBeVisible()
  // It looks at the tent, which has nothing of it yet.
  const looked = page.waitForResponse((r) => r.url().endsWith('/api/v1/pad'))
  await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')))
  await looked
  await key(page, 'Say another run').click()
  await expect(page.getByText('The run after 4')).toBeVisible()
  expect((await tent()).reports).toHaveLength(0)
  line.letGo()
  // Nothing is left that could still go out.
  await expect(page.getByText(/reports? waits?/)).toHaveCount(0)
  await expect.poll(async () => (await tent()).reports.length).toBeGreaterThan(0)
  expect((await tent()).reports).toHaveLength(1)
  await context.close()
})

for (const size of [phoneSize.viewport, { width: 320, height: 568 }])
  test(`a glove that taps on where Send was begins no other report, ${size.width} × ${size.height}`, async ({
    browser,
  }) => {
    const context = await browser.newContext({ ...phoneSize, viewport: size })
    const page = await context.newPage()
    await page.goto(await linkOf('sanna'))
    // Out of reach of the tent there is more to say, and the key lies lower.
    const line = await holdWrites(page, '**/api/v1/pad/reports/*')
    await key(page, 'Worse').click()
    // The longest that is said afterwards.
    await key(page, 'Crashed or stopped').click()
    await key(page, 'Next').click()
    await key(page, 'Next').click()
    const { x, y, width, height } = (await key(page, 'Send').boundingBox())!
    for (const share of [0.1, 0.5, 0.9]) await page.touchscreen.tap(x + share * width, y + height / 2)
    await expect(page.getByText('After a crash')).toBeVisible()
    await page.touchscreen.tap(x + width / 2, y + height * 0.2)
    await page.touchscreen.tap(x + width / 2, y + height * 0.8)
    await expect(page.getByText('After a crash')).toBeVisible()
    await expect(page.getByText('1 report waits')).toBeVisible()
    await key(page, 'Say another run').click()
    await expect(page.getByText('After a crash')).toHaveCount(0)
    line.letGo()
    await context.close()
  })

/** A microphone that hums, as the browser hands it to a page. */
async function withVoice(context: BrowserContext): Promise<void> {
  await context.addInitScript(() => {
    navigator.mediaDevices.getUserMedia = async () => {
      const audio = new AudioContext()
      const hum = audio.createOscillator()
      const out = audio.createMediaStreamDestination()
      hum.connect(out)
      hum.start()
      return out.stream
    }
  })
}
