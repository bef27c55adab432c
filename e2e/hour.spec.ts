import { expect, test, type Page } from '@playwright/test'
import type { DayBundle } from '../contract/endpoints.ts'
import type { GivenPadLink } from '../contract/pad.ts'
import type { TentBundle } from '../contract/tent.ts'
import { idOf } from '../demo/ids.ts'
import { startDemoProcess, startProcess, type ServerProcess } from './server.ts'

/** One hour of practice, pressed together: the hands are those of the hour, the clock is not. */
let server: ServerProcess
test.beforeEach(async () => void (server = await startDemoProcess()))
test.afterEach(async () => server?.stop())

const riders = ['mika', 'sanna', 'nuri', 'wren', 'obi', 'runa'] as const
type Who = (typeof riders)[number]
const tentId = idOf('tent practice')
const dayId = (who: Who) => idOf(`day tent ${who}`)
const read = async <T>(path: string) => (await (await fetch(`${server.base}/api/v1${path}`)).json()) as T
const tent = () => read<TentBundle>(`/tents/${tentId}`)
const day = (who: Who) => read<DayBundle>(`/days/${dayId(who)}`)
const row = (page: Page, name: string) =>
  page
    .getByRole('list', { name: 'Riders by need' })
    .getByRole('listitem')
    .filter({ hasText: new RegExp(`^\\s*${name} \\d`) })
const line = (page: Page) => page.getByRole('textbox', { name: /^Rider’s number/ })
async function type(page: Page, text: string) {
  await line(page).fill(text)
  await line(page).press('Enter')
  await expect(line(page), text).toHaveValue('')
}
async function linkOf(who: Who): Promise<string> {
  const answer = await fetch(`${server.base}/api/v1/tent-riders/${dayId(who)}/pad`, {
    method: 'PUT',
    body: '{}',
    headers: { 'content-type': 'application/json' },
  })
  return `${server.base}/pad/${((await answer.json()) as GivenPadLink).token}`
}
const key = (page: Page, name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' })
/** Three screens of a phone. */
async function says(page: Page, { newer, against, word }: { newer: boolean; against: string; word: string }) {
  if (newer) {
    await key(page, 'another').click()
    await key(page, /^A newer one/).click()
  }
  await key(page, against).click()
  await key(page, 'Next').click()
  await key(page, 'Next').click()
  await key(page, word).click()
  await key(page, 'Send').click()
}
/** What is kept of a rider, as a person would tell it. */
async function facts(who: Who) {
  const b = await day(who)
  const now = b.setups.find((s) => s.id === b.bike.currentSetupId)!
  const last = b.runs.at(-1)
  const feel = b.feels.find((f) => f.runId === last?.id)
  const t = await tent()
  return {
    runs: b.runs.length,
    rating: feel?.rating ?? null,
    words: (feel?.marks ?? []).map((m) => `${m.word} ${m.end}`).sort(),
    verdict: feel?.verdicts.at(0)?.value ?? null,
    where: t.riders.find((r) => r.id === dayId(who))!.whereabouts,
    stands: (what: string) => now.positions.find((p) => p.adjusterId === idOf(`${who} ${what}`))?.value,
    how: (what: string) => now.positions.find((p) => p.adjusterId === idOf(`${who} ${what}`))?.known.how,
    notes: t.notes
      .filter((n) => n.dayId === dayId(who))
      .map((n) => `${n.kind}: ${n.text}${n.closedAt ? ' (closed)' : ''}`),
  }
}
async function back(): Promise<void> {
  const { port } = new URL(server.base)
  server = await startProcess(server.dataDir, { env: { WILD_SPRING_PORT: port } })
}
const waits = (page: Page) => page.getByText(/entries wait|entry waits|cannot be reached/)

test('an hour of practice: laptop, tablet, wall and two phones, the server killed twice, one phone offline throughout; every screen tells what was done', async ({
  browser,
  page: laptop,
}) => {
  const url = `${server.base}/tent/${tentId}`
  const phoneSize = { viewport: { width: 390, height: 844 }, hasTouch: true }
  const contexts = await Promise.all([
    browser.newContext({ viewport: { width: 1024, height: 768 } }),
    browser.newContext({ viewport: { width: 1280, height: 800 } }),
    browser.newContext(phoneSize),
    browser.newContext(phoneSize),
  ])
  const [tablet, wall, phoneMika, phoneRuna] = await Promise.all(contexts.map((c) => c.newPage()))
  await laptop.goto(url)
  await tablet.goto(url)
  await wall.goto(`${url}?wall=1`)
  for (const screen of [laptop, tablet, wall])
    await expect(row(screen, 'Sanna').getByText('all as it started')).toBeVisible()
  await phoneMika.goto(await linkOf('mika'))
  await phoneRuna.goto(await linkOf('runa'))
  await phoneRuna.getByText('Runa').waitFor()
  await contexts[3].setOffline(true)
  const began = Object.fromEntries(await Promise.all(riders.map(async (r) => [r, await facts(r)] as const)))

  // The first quarter: all is well.
  await type(laptop, '1 shock reb faster 1')
  await type(tablet, '3 in 7 better')
  await type(laptop, '1 if worse, shock reb slower 1')
  await type(tablet, '2 out')
  await says(phoneRuna, { newer: true, against: 'Worse', word: 'kicks' })
  await expect(phoneRuna.getByRole('heading', { name: 'Kept on this phone' })).toBeVisible()
  await type(laptop, '1 out')

  // The server dies; nobody stops.
  await expect.poll(async () => (await facts('mika')).where).toBe('out')
  await server.stop('SIGKILL')
  await type(tablet, '5 leave alone, the sun is out')
  await type(laptop, '1 in 6')
  await type(tablet, '6 read shock reb 6')
  await type(laptop, '4 in')
  await expect(waits(laptop).first()).toBeVisible()
  await back()
  for (const screen of [laptop, tablet]) await expect(waits(screen)).toHaveCount(0, { timeout: 60_000 })

  // Mika says on the phone how run 5 was.
  await expect.poll(async () => (await facts('mika')).runs).toBe(began.mika.runs + 1)
  await phoneMika.reload()
  await expect(phoneMika.getByText('Run 5')).toBeVisible()
  await says(phoneMika, { newer: false, against: 'Worse', word: 'kicks' })
  await expect(phoneMika.getByText('The tent has it')).toBeVisible()
  const planned = row(laptop, 'Mika').getByRole('button', { name: /^(?!Drop).*If worse: shock reb slower 1/ })
  await expect(planned).toContainText('run 5 came so')
  await key(phoneRuna, 'Say another run').click()
  await says(phoneRuna, { newer: true, against: 'Better', word: 'grips' })
  await expect(phoneRuna.getByRole('heading', { name: 'Kept on this phone' })).toBeVisible()

  // It dies again, in the middle of a turn.
  await type(tablet, '3 fork lsc firmer 1')
  await server.stop('SIGKILL')
  await planned.click()
  await expect(line(laptop)).toHaveValue('shock reb slower 1')
  await line(laptop).press('Enter')
  await expect(line(laptop)).toHaveValue('')
  await type(tablet, '2 in 8 better gr')
  await type(laptop, '6 no time')
  await back()
  for (const screen of [laptop, tablet]) await expect(waits(screen)).toHaveCount(0, { timeout: 60_000 })
  // The phone that was away all the time comes back.
  await contexts[3].setOffline(false)
  await phoneRuna.evaluate(() => window.dispatchEvent(new Event('online')))
  await expect
    .poll(async () => (await tent()).reports.filter((r) => r.dayId === dayId('runa')).length)
    .toBe(2)
  await type(laptop, '6 here')

  // What is kept, against what was done.
  const ends = async () =>
    Object.fromEntries(await Promise.all(riders.map(async (r) => [r, await facts(r)] as const)))
  await expect.poll(async () => (await facts('runa')).where).toBe('here')
  const end = await ends()
  expect(end.mika).toMatchObject({ runs: 5, rating: 6, words: ['kicks rear'], verdict: -1, where: 'here' })
  // One faster, then by the plan one slower: as it was before.
  expect(end.mika.stands('shock rebound')).toBe(began.mika.stands('shock rebound'))
  expect((await day('mika')).setups).toHaveLength(5)
  expect(end.mika.notes).toEqual(['plan: if worse, shock reb slower 1 (closed)'])
  expect(end.sanna).toMatchObject({ runs: 5, rating: 8, words: ['grips both'], verdict: 1, where: 'here' })
  expect(end.nuri).toMatchObject({ runs: 4, rating: 7, words: [], verdict: 1, where: 'here' })
  expect(end.nuri.stands('fork lsc')).toBe(began.nuri.stands('fork lsc')! - 1)
  expect(end.nuri.notes).toEqual(['later: fork lsc firmer 1'])
  expect(end.wren).toMatchObject({ runs: 1, rating: null, words: [], where: 'here' })
  expect(end.obi).toMatchObject({ runs: 4, rating: 8, where: 'settled' })
  expect(end.obi.notes).toContain('left-alone: the sun is out')
  expect(end.runa).toMatchObject({ runs: 3, where: 'here' })
  expect([end.runa.stands('shock rebound'), end.runa.how('shock rebound')]).toEqual([6, 'read'])
  expect(end.runa.notes).toEqual(['plan: if worse, rear reb faster 1', 'no-time: '])
  const { reports } = await tent()
  expect(
    reports.map((r) => [
      riders.find((w) => dayId(w) === r.dayId),
      r.report.words[0].word,
      r.takenFor !== null,
    ]),
  ).toEqual([
    ['runa', 'kicks', false],
    ['mika', 'kicks', true],
    ['runa', 'grips', false],
  ])

  // And every screen tells the same.
  const told: Record<Who, (string | RegExp)[]> = {
    mika: [/here, \d+ min|here since/, 'LSC 8, 1 firmer'],
    sanna: [/here, \d+ min|here since/, 'all as it started'],
    nuri: ['rebound 7, 1 slower', 'and 1 other', 'front LSC 8 → 7, 1 click firmer'],
    wren: [/here, \d+ min/, 'all as it started'],
    obi: [/settled \d\d:\d\d/, 'air 91, 2 psi firmer'],
    runa: [/here, \d+ min/, 'rebound 6, 1 slower'],
  }
  const lanes: Record<Who, RegExp[]> = {
    mika: [/run 5[^.]*\b6\b/i],
    sanna: [/run 5[^.]*\b8\b/i],
    nuri: [/run 4[^.]*\b7\b/i],
    wren: [/run 1/i],
    obi: [/run 4[^.]*\b8\b/i],
    runa: [/run 3[^.]*\b6\.5\b/i],
  }
  for (const [name, screen] of Object.entries({ laptop, tablet, wall }))
    for (const who of riders) {
      const here = row(screen, who[0].toUpperCase() + who.slice(1))
      for (const text of told[who]) await expect(here, `${who} on the ${name}`).toContainText(text)
      for (const text of lanes[who])
        await expect(
          here.getByRole('img', { name: /^run 1|^nothing/ }),
          `${who} on the ${name}`,
        ).toHaveAttribute('aria-label', text)
    }
  await expect(row(laptop, 'Mika').getByRole('button', { name: /If worse/ })).toHaveCount(0)
  for (const screen of [laptop, tablet])
    await expect(row(screen, 'Runa').getByRole('img', { name: 'the phone says something' })).toBeVisible()
  await expect(row(wall, 'Runa').getByRole('img', { name: 'the phone says something' })).toHaveCount(0)
  await phoneMika.reload()
  await expect(phoneMika.getByText('The run after 5')).toBeVisible()
  await Promise.all(contexts.map((c) => c.close()))
})
