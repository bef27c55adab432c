import { spawn } from 'node:child_process'
import { cpSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import type { DayBundle, DaySummary } from '../contract/endpoints.ts'
import type { GivenPadLink } from '../contract/pad.ts'
import type { TentBundle } from '../contract/tent.ts'
import { idOf } from '../demo/ids.ts'
import { startDemoProcess, startProcess, type ServerProcess } from './server.ts'

test.use({ serviceWorkers: 'allow' })

let server: ServerProcess
test.beforeEach(async () => void (server = await startDemoProcess()))
test.afterEach(async () => server?.stop())

const tentId = idOf('tent practice')
const read = async <T>(path: string) => (await (await fetch(`${server.base}/api/v1${path}`)).json()) as T
const day = (rider: string) => read<DayBundle>(`/days/${idOf(`day tent ${rider}`)}`)
/** The page is on this device whole. */
const isKept = (page: Page) =>
  page.evaluate(async () => {
    await navigator.serviceWorker.ready
    while (!navigator.serviceWorker.controller) await new Promise((r) => setTimeout(r, 50))
  })
/** What was read last is written within a second. */
const settle = (page: Page) => page.waitForTimeout(1600)
async function back(): Promise<void> {
  const { port } = new URL(server.base)
  server = await startProcess(server.dataDir, { env: { WILD_SPRING_PORT: port } })
}
const out = (page: Page) => page.getByText(/^The server cannot be reached since \d\d:\d\d/)
const line = (page: Page) => page.getByRole('textbox', { name: /^Rider’s number/ })
async function type(page: Page, text: string) {
  await line(page).fill(text)
  await line(page).press('Enter')
  await expect(line(page)).toHaveValue('')
}

test('opened once, the tent works on without its server: reload, turn, log and say, twice closed; all arrives once, in order', async ({
  page,
  context,
}) => {
  const url = `${server.base}/tent/${tentId}?rider=6`
  await page.goto(url)
  await isKept(page)
  await page.getByText('Settled. Leave it alone.').waitFor()
  const before = await day('runa')
  await settle(page)
  await server.stop('SIGKILL')

  await page.reload()
  await expect(out(page)).toBeVisible()
  // The adviser is on the device, too.
  await expect(page.getByText('Settled. Leave it alone.')).toBeVisible()
  await type(page, '6 rear reb slower 1')
  await expect(page.getByText(/1 entry waits|2 entries wait|entries wait/)).toBeVisible()
  await type(page, '6 in 7 gd')
  await expect(page.getByText(/is in: run 4 is logged/)).toBeVisible()
  await type(page, '6 out')
  await page.close()

  // The battery died; two windows later.
  const again = await context.newPage()
  await again.goto(url)
  await expect(again.getByText(/\d entries wait on this device/)).toBeVisible()
  const runa = again.getByRole('listitem').filter({ has: again.getByRole('button', { name: /^Runa/ }) })
  await expect(runa).toContainText('rebound 3, 2 slower')
  await type(again, '6 rear reb slower 1')
  await again.reload()
  await expect(runa).toContainText('rebound 2, 3 slower')
  await back()
  await expect(again.getByText(/entries wait|entry waits|cannot be reached/)).toBeHidden({ timeout: 60_000 })

  await expect.poll(async () => (await day('runa')).setups.length).toBe(before.setups.length + 2)
  const after = await day('runa')
  expect(after.runs).toHaveLength(before.runs.length + 1)
  const dial = idOf('runa shock rebound')
  const at = (id: string | null) =>
    after.setups.find((s) => s.id === id)!.positions.find((p) => p.adjusterId === dial)!.value
  expect(at(after.runs.at(-1)!.setupId)).toBe(3)
  expect(at(after.bike.currentSetupId)).toBe(2)
  expect(after.feels.find((f) => f.runId === after.runs.at(-1)!.id)).toMatchObject({ rating: 7 })
  const tent = await read<TentBundle>(`/tents/${tentId}`)
  expect(tent.riders.find((r) => r.id === idOf('day tent runa'))!.whereabouts).toBe('out')
})

test('garage, handbook and a day that is begun out there are there without the server; the day is at the server afterwards', async ({
  page,
}) => {
  await page.goto(`${server.base}/garage`)
  await isKept(page)
  await page.getByText('55 mm air shock').first().waitFor()
  await page.goto(server.base)
  await page.getByText('Next: Rear: when does it kick?').waitFor()
  await settle(page)
  const days = (await read<DaySummary[]>('/days')).length
  await server.stop('SIGKILL')

  await page.goto(`${server.base}/handbook`)
  await expect(page.getByText('Dials', { exact: true }).first()).toBeVisible()
  await page.goto(`${server.base}/garage`)
  await expect(page.getByText('55 mm air shock').first()).toBeVisible()
  await page.goto(server.base)
  await expect(page.getByText('Next: Rear: when does it kick?')).toBeVisible()
  await page
    .getByRole('button', { name: /^New day|^New trail day/ })
    .first()
    .click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Start|Begin|To the trail|Make/ })
    .first()
    .click()
  await expect(page).toHaveURL(/\/days\//)
  await expect(page.getByRole('heading', { name: /baseline|warm-up|First/i }).first()).toBeVisible()
  const id = new URL(page.url()).pathname.split('/')[2]
  await page.reload()
  await expect(out(page)).toBeVisible()
  await expect(page.getByRole('heading', { name: /baseline|warm-up|First/i }).first()).toBeVisible()
  await back()
  await expect(page.getByText(/entries wait|entry waits|cannot be reached/)).toBeHidden({ timeout: 60_000 })
  await expect.poll(async () => (await read<DaySummary[]>('/days')).length).toBe(days + 1)
  expect((await read<DayBundle>(`/days/${id}`)).day.id).toBe(id)
})

test('a rider’s phone that was opened once opens again without the tent, and what was said then arrives', async ({
  browser,
}) => {
  const answer = await fetch(`${server.base}/api/v1/tent-riders/${idOf('day tent wren')}/pad`, {
    method: 'PUT',
    body: '{}',
    headers: { 'content-type': 'application/json' },
  })
  const link = `${server.base}/pad/${((await answer.json()) as GivenPadLink).token}`
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' })
  const page = await context.newPage()
  await page.goto(link)
  await page.getByText('Wren').waitFor()
  await isKept(page)
  await server.stop('SIGKILL')
  await page.close()
  const again = await context.newPage()
  await again.goto(link)
  await expect(again.getByText('Wren')).toBeVisible()
  await again.getByRole('button', { name: 'Next' }).click()
  await again.getByRole('button', { name: 'kicks' }).click()
  await again.getByRole('button', { name: 'Send' }).click()
  await expect(again.getByText('Kept on this phone')).toBeVisible()
  await back()
  await expect(again.getByText('The tent has it')).toBeVisible({ timeout: 60_000 })
  const { reports } = await read<TentBundle>(`/tents/${tentId}`)
  expect(reports.map((r) => r.report.words.map((w) => w.word))).toEqual([['kicks']])
  await context.close()
})

test('a newer page waits until somebody takes it', async ({ page }) => {
  // A release of its own: the same files, one of them changed.
  const release = join('test-results', `release-${process.pid}`)
  cpSync('dist', release, { recursive: true })
  await server.stop()
  const run = () =>
    new Promise<{ base: string; stop: () => void }>((resolve) => {
      const child = spawn(process.execPath, [join(release, 'server/index.js')], {
        env: {
          ...process.env,
          WILD_SPRING_DATA: server.dataDir,
          WILD_SPRING_PORT: new URL(server.base).port,
        },
      })
      child.stdout.on('data', (d: Buffer) => {
        const hit = /http:\/\/\S+/.exec(d.toString())
        if (hit) resolve({ base: hit[0], stop: () => void child.kill() })
      })
    })
  const served = await run()
  try {
    await page.goto(served.base)
    await isKept(page)
    await expect(page.getByText('A newer Wild Spring is here')).toHaveCount(0)
    const edit = (file: string, from: string, to: string) => {
      const path = join(release, 'web', file)
      writeFileSync(path, readFileSync(path, 'utf8').replace(from, to))
      for (const packed of ['.gz', '.br']) rmSync(path + packed, { force: true })
    }
    const was = /\{url:"\/index\.html",revision:"(\w+)"\}/.exec(
      readFileSync(join(release, 'web/worker.js'), 'utf8'),
    )![1]
    edit(
      'index.html',
      '<title>Wild Spring</title>',
      '<title>Newer Spring</title><meta name="newer" content="1" />',
    )
    edit('worker.js', was, 'a-newer-page')
    await page.reload()
    // Still the page that was here, with an offer.
    await expect(page.getByText('A newer Wild Spring is here')).toBeVisible()
    expect(await page.locator('meta[name=newer]').count()).toBe(0)
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(page.locator('meta[name=newer]')).toHaveCount(1)
    await expect(page.getByText('A newer Wild Spring is here')).toHaveCount(0)
  } finally {
    served.stop()
    rmSync(release, { recursive: true, force: true })
  }
})
