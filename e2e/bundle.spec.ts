import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type APIRequestContext, type Page } from '@playwright/test'
import { v7 as uuid } from 'uuid'
import { Garage, type DayBundle, type DaySummary } from '#contract/endpoints'
import { makeRider } from '../server/test/story.ts'
import { startDemo, startProcess, startServer } from './server.ts'

const get = async (request: APIRequestContext, base: string, path: string): Promise<unknown> =>
  (await request.get(`${base}/api/v1${path}`)).json()

/** All that a server tells of its world. */
async function world(request: APIRequestContext, base: string) {
  const days = (await get(request, base, '/days')) as DaySummary[]
  const tents = (await get(request, base, '/tents')) as { id: string }[]
  return {
    garage: await get(request, base, '/garage'),
    days: await Promise.all(days.map((d) => get(request, base, `/days/${d.id}`))),
    tents: await Promise.all(tents.map((t) => get(request, base, `/tents/${t.id}`))),
    shelf: await get(request, base, '/shelf'),
  }
}
/** Writes a bundle on the page and keeps what the browser fetched. */
async function takeAlong(page: Page, base: string, choose: (page: Page) => Promise<void>): Promise<string> {
  await page.goto(`${base}/data`)
  await choose(page)
  const fetched = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Write the bundle' }).click()
  const path = join(mkdtempSync(join(tmpdir(), 'bundle ')), 'fetched.zip')
  await (await fetched).saveAs(path)
  return path
}
async function bringIn(page: Page, base: string, path: string) {
  await page.goto(`${base}/data`)
  await page.getByLabel('Choose a bundle, or drop it here').setInputFiles(path)
  await page.getByRole('button', { name: 'Bring it in' }).click()
  await expect(page.getByText(/^Brought in: .* new records?\b.*It can be taken back below\.$/)).toBeVisible()
}
const tickAll = async (page: Page) => {
  for (const what of ['Weights of riders', 'Spoken notes', 'What was noted about the inside'])
    await page.getByLabel(what).check()
}
/** The script that docs/file-formats.md gives to whoever wants to read a bundle. */
const script = () =>
  [...readFileSync('docs/file-formats.md', 'utf8').matchAll(/```python\n([\s\S]*?)```/g)]
    .map((m) => m[1])
    .find((code) => code.includes('zipfile'))!
const hasPython = spawnSync('python3', ['--version']).status === 0

test('everything moves to an empty house by bundle, one rider on to a third, and nothing is another', async ({
  page,
}) => {
  const [home, second, third] = [await startDemo(), await startServer(), await startServer()]
  const before = await world(page.request, home.base)
  const all = await takeAlong(page, home.base, tickAll)

  await test.step('record by record it is the same world', async () => {
    await bringIn(page, second.base, all)
    expect(await world(page.request, second.base)).toEqual(before)
  })
  await test.step('whoever has only the document can read it', () => {
    test.skip(!hasPython, 'no python3 on this machine')
    const path = join(mkdtempSync(join(tmpdir(), 'script ')), 'read.py')
    writeFileSync(path, script())
    const { status, stdout, stderr } = spawnSync('python3', [path, all], { encoding: 'utf8', maxBuffer: 1e8 })
    expect(stderr).toBe('')
    expect(status).toBe(0)
    const counted = (before.days as DayBundle[]).flatMap((d) => d.runs).filter((r) => r.kind === 'counted')
    const lines = stdout.trimEnd().split('\n')
    expect(lines.filter((l) => /^\d{4}-\d\d-\d\d .*main-pressure/.test(l))).toHaveLength(counted.length)
  })
  await test.step('one rider goes on, without a weight, and without the others', async () => {
    const one = await takeAlong(page, second.base, async (p) => {
      await p.getByLabel('What of it').selectOption('rider')
      await p.getByLabel('Which').selectOption({ label: 'Ilka' })
    })
    await bringIn(page, third.base, one)
    const garage = Garage.parse(await get(page.request, third.base, '/garage'))
    expect(garage.riders.map((r) => [r.name, r.bodyMassKg, r.kitMassKg])).toEqual([['Ilka', null, null]])
    const own = (before.days as DayBundle[]).filter((d) => d.rider.name === 'Ilka').map((d) => d.day.id)
    const days = (await get(page.request, third.base, '/days')) as DaySummary[]
    expect(days.map((d) => d.id).sort()).toEqual(own.sort())
    await page.goto(`${third.base}/days/${days[0].id}`)
    await expect(page.getByText('Ilka').first()).toBeVisible()
    await expect(page.getByText(/went wrong/)).toHaveCount(0)
  })
  await test.step('taken back, the third house is empty again', async () => {
    await page.goto(`${third.base}/data`)
    await page.getByRole('button', { name: /^Take back what was brought in/ }).click()
    await page.getByRole('button', { name: 'Take it back now' }).click()
    await expect(page.getByText('Taken back: everything is as it was before.')).toBeVisible()
    const { garage, days } = await world(page.request, third.base)
    expect(Object.values(garage as Garage).flat()).toEqual([])
    expect(days).toEqual([])
  })
  for (const s of [home, second, third]) await s.stop()
})

test('what differs is shown on both sides, and only what was chosen is taken', async ({ page }) => {
  const server = await startDemo()
  const path = await takeAlong(page, server.base, tickAll)
  const garage = async () => Garage.parse(await get(page.request, server.base, '/garage'))
  const [ilka, other] = (await garage()).riders
  for (const r of [ilka, other])
    await page.request.put(`${server.base}/api/v1/riders/${r.id}`, {
      data: { ...r, note: `new of ${r.name}` },
    })
  await page.goto(`${server.base}/data`)
  await page.getByLabel('Choose a bundle, or drop it here').setInputFiles(path)
  await expect(page.getByText('2 records')).toBeVisible()
  await expect(page.getByText('As you chose, nothing would change')).toBeVisible()
  await page
    .getByRole('group', { name: `rider ${other.name}` })
    .getByRole('button', { name: 'Take theirs' })
    .click()
  await page.getByRole('button', { name: 'Bring it in' }).click()
  await expect(page.getByText(/^Brought in: 1 replaced/)).toBeVisible()
  const notes = Object.fromEntries((await garage()).riders.map((r) => [r.id, r.note]))
  expect([notes[ilka.id], notes[other.id]]).toEqual([`new of ${ilka.name}`, other.note])
  await server.stop()
})

test('a file that is no bundle is refused where it was chosen, and the next can be tried', async ({
  page,
}) => {
  const server = await startDemo()
  const before = await world(page.request, server.base)
  const path = await takeAlong(page, server.base, tickAll)
  const cut = join(tmpdir(), `cut-${uuid()}.zip`)
  const bytes = readFileSync(path)
  writeFileSync(cut, bytes.subarray(0, bytes.length / 2))
  const choose = page.getByLabel('Choose a bundle, or drop it here')
  await choose.setInputFiles(cut)
  await expect(page.getByRole('alert').getByText('cut short on its way')).toBeVisible()
  await choose.setInputFiles(path)
  await expect(page.getByText('Everything in it is here already.')).toBeVisible()
  await page.getByRole('button', { name: 'Leave all as it is' }).click()
  await expect(choose).toBeVisible()
  expect(await world(page.request, server.base)).toEqual(before)
  const left = () => readdirSync(join(server.dataDir, 'incoming')).filter((n) => !n.startsWith('bundle-'))
  expect(left()).toEqual([])
  // Looked at, and the page left: nothing of it lies about.
  await choose.setInputFiles(path)
  await expect(page.getByText('Everything in it is here already.')).toBeVisible()
  expect(left()).not.toEqual([])
  await page.getByRole('link', { name: 'Garage' }).first().click()
  await expect.poll(left).toEqual([])
  await server.stop()
})

test('killed while a bundle is brought in, all of it is there or nothing', async ({ page }) => {
  const home = await startDemo()
  const whole = await world(page.request, home.base)
  const path = await takeAlong(page, home.base, tickAll)
  await home.stop()
  const bytes = readFileSync(path)
  const outcomes = []
  for (const afterMs of [0, 40, 120, 400]) {
    const target = await startProcess()
    const api = `${target.base}/api/v1`
    const rider = makeRider({ name: 'Was here before' })
    await page.request.put(`${api}/riders/${rider.id}`, { data: rider })
    const before = await world(page.request, target.base)
    const id = uuid()
    await page.request.put(`${api}/data/arrivals/${id}`, {
      data: bytes,
      headers: { 'content-type': 'application/zip' },
    })
    expect((await page.request.put(`${api}/data/arrivals/${id}/look`)).status()).toBe(200)
    const taking = page.request
      .put(`${api}/data/arrivals/${id}/take`, { data: { differing: 'ours', except: [], taken: [] } })
      .then((r) => r.status())
      .catch(() => 0)
    await page.waitForTimeout(afterMs)
    await target.stop('SIGKILL')
    const answered = await taking
    const again = await startServer(target.dataDir)
    const after = await world(page.request, again.base)
    const isWhole = after.days.length === whole.days.length
    outcomes.push(isWhole)
    if (isWhole) expect(after.days).toEqual(whole.days)
    else expect(after).toEqual(before)
    // What was confirmed is there.
    if (answered === 200) expect(isWhole).toBe(true)
    expect(readdirSync(join(target.dataDir, 'incoming'))).toEqual([])
    await again.stop()
  }
  expect(outcomes).toHaveLength(4)
})
