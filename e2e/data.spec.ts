import { spawnSync } from 'node:child_process'
import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  truncateSync,
  writeFileSync,
} from 'node:fs'
import { join } from 'node:path'
import { expect, test, type APIRequestContext } from '@playwright/test'
import Papa from 'papaparse'
import { v7 as uuid } from 'uuid'
import { makeRider } from '../server/test/story.ts'
import { startDemo, startDemoProcess, startServer, type RunningServer } from './server.ts'

/** A program of the server run to its end on a data folder. */
function once(program: 'index' | 'restore' | 'check', dataDir: string, ...words: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [`dist/server/${program}.js`, ...words], {
    env: { ...process.env, WILD_SPRING_DATA: dataDir, WILD_SPRING_PORT: '0' },
    encoding: 'utf8',
    timeout: 30_000,
  })
  return { status, said: stdout, complained: stderr }
}
/** The whole world as the server tells it. */
async function world(request: APIRequestContext, base: string) {
  const get = async (path: string): Promise<unknown> => (await request.get(`${base}/api/v1${path}`)).json()
  const days = (await get('/days')) as { id: string }[]
  return {
    garage: await get('/garage'),
    days,
    bundles: await Promise.all(days.map((d) => get(`/days/${d.id}`))),
  }
}
const addRider = (request: APIRequestContext, server: RunningServer, name: string) => {
  const rider = { ...makeRider(), id: uuid(), name }
  return request.put(`${server.base}/api/v1/riders/${rider.id}`, { data: rider })
}

test('a safe copy is made, what came after is put out of sight by it, and nothing else is different', async ({
  page,
}) => {
  const server = await startDemo()
  const before = await world(page.request, server.base)
  // Opened just while another copy is put in place: it says so, and asks again by itself.
  const detail = 'A safe copy is being put in place; ask again in a moment.'
  const busy = { type: 'about:blank', title: 'Busy', status: 503, detail, code: 'storage.exchanged' }
  await page.route('**/api/v1/data', (r) => r.fulfill({ status: 503, json: busy }), { times: 1 })
  await page.goto(`${server.base}/data`)
  await expect(page.getByRole('status').getByText(detail)).toBeVisible()
  await page.getByRole('button', { name: 'Make one now' }).click()
  await expect(page.getByText(/is made, opened and checked\.$/)).toBeVisible()
  const copies = page.getByRole('list', { name: 'Safe copies' })
  await expect(copies.getByText('made by hand')).toHaveCount(1)

  await test.step('a day was ridden since, and another window looks on', async () => {
    await addRider(page.request, server, 'Came Later')
    const other = await page.context().newPage()
    await other.goto(`${server.base}/garage`)
    await expect(other.getByText('Came Later').first()).toBeVisible()
    await copies
      .getByRole('button', { name: /^Put the copy of/ })
      .first()
      .click()
    await expect(page.getByText('What was entered since goes out of sight.')).toBeVisible()
    await page.getByRole('button', { name: 'Put it back now' }).click()
    // Told at once, without being asked.
    await expect(other.getByText('Came Later')).toHaveCount(0)
    await other.close()
  })
  await expect(copies.getByText('before another was put back')).toBeVisible()
  expect(await world(page.request, server.base)).toEqual(before)
  expect(readdirSync(join(server.dataDir, 'set-aside'))).toHaveLength(1)
  await server.stop()
})

test('a second process on the same data is refused, and does nothing to the first', async ({ page }) => {
  const server = await startDemoProcess()
  const waiting = join(server.dataDir, 'incoming', 'upload-of-the-first')
  writeFileSync(waiting, 'bytes on their way')
  const second = once('index', server.dataDir)
  expect(second.status).toBe(1)
  expect(second.complained).toMatch(/^Wild Spring already runs on the data in .*\.\n$/)
  const restore = once('restore', server.dataDir, join(server.dataDir, 'wild-spring.sqlite'))
  expect(restore.complained).toContain('already runs on the data')
  expect(readFileSync(waiting, 'utf8')).toBe('bytes on their way')
  expect((await addRider(page.request, server, 'Still served')).status()).toBe(200)
  await server.stop('SIGKILL')
  // A killed process leaves no lock behind, and what it had confirmed is there.
  const again = await startServer(server.dataDir)
  expect(JSON.stringify(await world(page.request, again.base))).toContain('Still served')
  await again.stop()
})

test('wrecked data is said at the start, and brought back record by record', async ({ page }) => {
  const server = await startDemo()
  const { dataDir } = server
  const before = await world(page.request, server.base)
  const copy = (await (await page.request.put(`${server.base}/api/v1/data/copy`)).json()) as { name: string }
  await server.stop()
  const file = join(dataDir, 'wild-spring.sqlite')
  // Stopped, the one file holds all: nothing of worth lies beside it.
  const beside = `${file}-wal`
  expect(existsSync(beside) ? readFileSync(beside).length : 0).toBe(0)
  expect(once('check', dataDir).said).toMatch(/is sound: \d+ riders/)

  truncateSync(file, 200_000)
  const refused = once('index', dataDir)
  expect(refused.status).toBe(1)
  expect(refused.complained).toMatch(/is damaged.*npm run restore/)
  expect(once('check', dataDir).status).toBe(1)

  expect(once('restore', dataDir).said).toContain(copy.name)
  expect(once('restore', dataDir, copy.name).said).toContain('is in place.')
  const again = await startServer(dataDir)
  expect(await world(page.request, again.base)).toEqual(before)
  await again.stop()
})

test('one byte that is no letter costs one record, and the page says which', async ({ page }) => {
  const server = await startDemo()
  const { dataDir } = server
  const before = await world(page.request, server.base)
  await server.stop()
  const file = join(dataDir, 'wild-spring.sqlite')
  const bytes = readFileSync(file)
  const at = bytes.indexOf('Believes nothing that was not felt twice.')
  expect(at).toBeGreaterThan(0)
  bytes[at + 8] = 0xff
  writeFileSync(file, bytes)
  const again = await startServer(dataDir)
  expect(again.said()).toContain('1 damaged record was mended or left out')
  const after = await world(page.request, again.base)
  const plain = (w: unknown) =>
    JSON.stringify(w)
      .replaceAll(/"version":\d+/g, '')
      .replaceAll('Believes\ufffd', 'Believes ')
  expect(plain(after)).toBe(plain(before))
  await page.goto(`${again.base}/data`)
  await expect(page.getByText('letters that were none are marked in it')).toBeVisible()
  await again.stop()
})

test('a rider is forgotten: what goes is said, the name is typed, and no byte is left', async ({ page }) => {
  const server = await startDemo()
  const { dataDir } = server
  const nameless = { name: 'Zyphra Quill', note: 'Zyphra rides at dusk' }
  const rider = { ...makeRider(), id: uuid(), ...nameless }
  await page.request.put(`${server.base}/api/v1/riders/${rider.id}`, { data: rider })
  await page.goto(`${server.base}/data`)
  await page.getByRole('button', { name: 'Make one now' }).click()
  await expect(page.getByText(/is made, opened and checked\.$/)).toBeVisible()
  const isThere = () =>
    readdirSync(dataDir, { recursive: true, encoding: 'utf8' })
      .filter((name) => statSync(join(dataDir, name)).isFile())
      .filter((name) => readFileSync(join(dataDir, name)).includes('Zyphra'))
  expect(isThere().length).toBeGreaterThan(1)

  await page.getByLabel('Who', { exact: true }).selectOption('Ilka')
  await expect(page.getByText(/^With Ilka go 1 bike, 2 forks and shocks, \d+ setups, \d+ days/)).toBeVisible()
  await page.getByLabel('Who', { exact: true }).selectOption('Zyphra Quill')
  await expect(page.getByText(/^With Zyphra Quill go 0 bikes/)).toBeVisible()
  const erase = page.getByRole('button', { name: 'Erase for good' })
  await page.getByLabel('Type Zyphra Quill to go on').fill('Zyphra')
  await expect(erase).toBeDisabled()
  await page.getByLabel('Type Zyphra Quill to go on').fill('Zyphra Quill')
  await erase.click()
  await expect(page.getByText('Zyphra Quill is erased, with all that was theirs.')).toBeVisible()
  expect(isThere()).toEqual([])
  await expect(page.getByRole('list', { name: 'Safe copies' }).getByText('made by hand')).toHaveCount(1)
  await server.stop()
  expect(isThere()).toEqual([])
})

test('killed while a copy is made, nothing is left of it, and the data is whole', async ({ page }) => {
  const server = await startDemoProcess()
  const { dataDir } = server
  const before = await world(page.request, server.base)
  void page.request.put(`${server.base}/api/v1/data/copy`).catch(() => undefined)
  const folder = join(dataDir, 'safe-copies')
  await expect.poll(() => existsSync(folder) && readdirSync(folder).length).toBeTruthy()
  await server.stop('SIGKILL')
  mkdirSync(folder, { recursive: true })
  writeFileSync(join(folder, 'wild-spring-20310502T120000Z-daily.sqlite.part'), 'half a copy')
  const again = await startServer(dataDir)
  expect(readdirSync(folder).filter((n) => n.includes('.part'))).toEqual([])
  expect(await world(page.request, again.base)).toEqual(before)
  await again.stop()
})

test('what is kept goes out as files that a spreadsheet opens: all of it, and a day by itself', async ({
  page,
}) => {
  const server = await startDemo()
  const { bundles } = (await world(page.request, server.base)) as {
    bundles: { day: { id: string }; runs: { note: string }[]; trail: { name: string } }[]
  }
  const rowsOf = async (press: () => Promise<unknown>) => {
    const [download] = await Promise.all([page.waitForEvent('download'), press()])
    const csv = readFileSync(await download.path(), 'utf8')
    const { data, errors } = Papa.parse<Record<string, string>>(csv.replace('\uFEFF', ''), {
      header: true,
      skipEmptyLines: true,
    })
    expect(errors).toEqual([])
    return data
  }
  await page.goto(`${server.base}/data`)
  const runs = await rowsOf(() => page.getByRole('link', { name: 'Runs, CSV' }).click())
  expect(runs).toHaveLength(bundles.reduce((n, b) => n + b.runs.length, 0))
  expect(new Set(runs.map((r) => r.trail))).toEqual(
    new Set(bundles.filter((b) => b.runs.length).map((b) => b.trail.name)),
  )
  const setups = await rowsOf(() => page.getByRole('link', { name: 'Setups, CSV' }).click())
  expect(setups.filter((r) => r.state === 'on the bike now').length).toBeGreaterThan(4)

  const one = bundles.find((b) => b.runs.length > 3)!
  await page.goto(`${server.base}/days/${one.day.id}`)
  await page.getByRole('button', { name: 'About this day' }).click()
  const ofDay = await rowsOf(() => page.getByRole('link', { name: 'runs.csv' }).click())
  expect(ofDay.map((r) => r.run)).toEqual(one.runs.map((_, i) => String(i + 1)))
  await server.stop()
})

test('a name is taken away, and what was ridden stays; the page says which version it is and what it stands on', async ({
  page,
}) => {
  const server = await startDemo()
  const before = (await world(page.request, server.base)).days as { riderName?: string; runs?: number }[]
  await page.goto(`${server.base}/data`)
  await page.getByLabel('Who', { exact: true }).selectOption({ label: 'Ilka' })
  await page.getByRole('button', { name: 'The days stay, without a name' }).click()
  const erase = page.getByRole('button', { name: 'Take the name away for good' })
  await expect(erase).toBeDisabled()
  await page.getByLabel('Type Ilka to go on').fill('Ilka')
  await erase.click()
  await expect(page.getByText('Ilka is no name here any more; what was ridden stays.')).toBeVisible()
  const after = (await world(page.request, server.base)).days as typeof before
  const called = (d: { riderName?: string }) =>
    d.riderName === 'Ilka' ? 'Rider without a name' : d.riderName
  expect(after.map((d) => [d.riderName, d.runs])).toEqual(before.map((d) => [called(d), d.runs]))
  await page.goto(`${server.base}/`)
  await expect(page.getByText('Rider without a name').first()).toBeVisible()
  await expect(page.getByText('Ilka', { exact: false })).toHaveCount(0)

  await page.goto(`${server.base}/data`)
  await expect(page.getByText(/^Version \d+\.\d+\.\d+, MIT licence\.$/)).toBeVisible()
  await page.getByText('What it stands on, and under which licences').click()
  await expect(page.getByText(/^\d+ works: MIT \d+/)).toBeVisible()
  const list = (await (await page.request.get(`${server.base}/licences.json`)).json()) as {
    name: string
    licence: string
    text: string
  }[]
  const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as { dependencies: object }
  expect(list.map((l) => l.name)).toEqual(
    expect.arrayContaining(['@iconify-json/lucide', ...Object.keys(dependencies)]),
  )
  expect(list.filter((l) => l.licence === '')).toEqual([])
  await server.stop()
})

test('what was removed still takes room, until somebody who is told what goes frees it', async ({ page }) => {
  const server = await startDemo()
  const api = `${server.base}/api/v1`
  const get = async <T>(path: string) => (await (await page.request.get(`${api}${path}`)).json()) as T
  const days = await get<{ id: string }[]>('/days')
  type Bundle = { recordings: { id: string; runId: string }[] }
  const all = await Promise.all(days.map((d) => get<Bundle>(`/days/${d.id}`)))
  const [recording, stays] = all.flatMap((d) => d.recordings)
  await page.goto(`${server.base}/data`)
  await expect(page.getByRole('list', { name: 'What the data file is made of' })).toBeVisible()
  await expect(page.getByText(/removed recording/)).toHaveCount(0)
  await page.request.delete(`${api}/recordings/${recording.id}`)
  await page.reload()
  await expect(page.getByText(/^1 removed recording still takes/)).toBeVisible()
  await page.getByRole('button', { name: /^Free .* …$/ }).click()
  const sure = page.getByRole('group', { name: 'Free room in the data file' })
  await expect(sure).toContainText('gone for good')
  await sure.getByRole('button', { name: 'Keep all as it is' }).click()
  expect((await page.request.put(`${api}/recordings/${recording.id}/restore`)).status()).toBe(200)
  await page.request.delete(`${api}/recordings/${recording.id}`)
  await page.reload()
  const before = statSync(join(server.dataDir, 'wild-spring.sqlite')).size
  await page.getByRole('button', { name: /^Free .* …$/ }).click()
  await sure.getByRole('button', { name: /^Free / }).click()
  await expect(page.getByText(/^The data file is .* smaller\.$/)).toBeVisible()
  await expect(page.getByText(/removed recording/)).toHaveCount(0)
  expect(statSync(join(server.dataDir, 'wild-spring.sqlite')).size).toBeLessThan(before)
  expect((await page.request.get(`${api}/recordings/${recording.id}/original`)).status()).toBe(404)
  expect((await page.request.get(`${api}/recordings/${stays.id}/original`)).status()).toBe(200)
})

test('data that can only be read is said at the start, in one sentence', async () => {
  const server = await startServer()
  await server.stop()
  const { dataDir } = server
  chmodSync(join(dataDir, 'wild-spring.sqlite'), 0o444)
  const isRoot = process.getuid?.() === 0
  // Who may do everything is nobody for a moment.
  const asNobody = isRoot ? { uid: 65534, gid: 65534 } : {}
  for (const folderMode of [0o555, 0o777]) {
    chmodSync(dataDir, folderMode)
    const { status, stderr } = spawnSync(process.execPath, ['dist/server/index.js'], {
      env: { ...process.env, WILD_SPRING_DATA: dataDir, WILD_SPRING_PORT: '0' },
      encoding: 'utf8',
      timeout: 30_000,
      ...asNobody,
    })
    expect(status).toBe(1)
    expect(stderr).toMatch(/can be read but not written|cannot be written/)
    expect(stderr.trim().split('\n')).toHaveLength(1)
  }
})
