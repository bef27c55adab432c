import { expect, test, type Locator, type Page } from '@playwright/test'
import { benchTasks } from '../core/practice/bench/tasks.ts'
import { wordRules } from '../core/causes/words.ts'
import { drillOf } from '../core/practice/drills.ts'
import { hiddenRider } from '../core/practice/hiddenRider.ts'
import { followsAdviser } from '../core/practice/players/adviser.ts'
import { playOut } from '../core/practice/players/play.ts'
import { disciplinedTester } from '../core/practice/players/tester.ts'
import { ridersOf } from '../core/practice/coach/riders.ts'
import { practiceDay, type PracticeAct } from '../core/practice/day.ts'
import { recordedRide } from '../core/practice/recorded.ts'
import { hiddenWords } from '../core/practice/review/hidden.ts'
import { lostInAll } from '../core/practice/review/losses.ts'
import { reviewOf } from '../core/practice/review/review.ts'
import { faults } from './faults.ts'
import { startServer, type RunningServer } from './server.ts'

let server: RunningServer
test.beforeEach(async () => void (server = await startServer()))
test.afterEach(async () => server?.stop())
test.use({ contextOptions: { reducedMotion: 'reduce' } })

const says = (page: Page, run: number) => page.getByRole('heading', { name: `Run ${run}, the rider says` })
const rideKey = (page: Page, run: number) =>
  page.getByRole('button', { name: `Ride run ${run}`, exact: true })
const rating = async (page: Page) => page.locator('.rating b').innerText()
/** With the keyboard alone: Tab until it is there. */
async function tabTo(page: Page, target: Locator) {
  for (let i = 0; i < 80; i++) {
    if (await target.evaluate((x) => x === document.activeElement)) return
    await page.keyboard.press('Tab')
  }
  throw new Error('Tab never came to it')
}

test('who knows nothing finishes the first lesson from the empty start, with the keyboard alone; nothing of it is kept', async ({
  page,
}) => {
  const written: string[] = []
  page.on('request', (r) => r.method() !== 'GET' && written.push(`${r.method()} ${r.url()}`))
  await page.goto(server.base)
  await page.getByRole('heading', { name: 'Begin' }).waitFor()
  await tabTo(page, page.getByRole('link', { name: /First lesson/ }))
  await page.keyboard.press('Enter')
  const step = page.locator('.lesson')
  const rail = page.getByRole('slider', { name: /rear Rebound/ })
  let runs = 0
  for (let i = 0; i < 14; i++) {
    const words = await step.innerText()
    if (/Stop here/.test(words)) break
    if (/Turn rear rebound|Turn it back/.test(words)) {
      await tabTo(page, rail)
      for (let n = 0; n < 2; n++) await page.keyboard.press(/slower/.test(words) ? 'ArrowLeft' : 'ArrowRight')
      await page.keyboard.press('Enter')
      await expect(step).toContainText('Ride it')
    } else {
      await page.keyboard.press('r')
      await says(page, ++runs).waitFor()
    }
  }
  await expect(step).toContainText('Stop here')
  await tabTo(page, page.getByRole('button', { name: /We’re happy/ }))
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^You found it in (two|three|four) runs$/)
  await expect(page.getByText('Stopped in time')).toBeVisible()
  expect(runs).toBeLessThanOrEqual(5)

  // Nothing of it stands among what is real, here or on the server.
  expect(written).toEqual([])
  await page.goto(server.base)
  await expect(page.getByRole('heading', { name: 'Begin' })).toBeVisible()
  const days = await (await page.request.get(`${server.base}/api/v1/days`)).json()
  expect(days).toEqual([])
})

/** Plays what a scripted player did, through the page. */
async function playThrough(page: Page, drill: string, seed: number, runs: number) {
  const rider = hiddenRider(drillOf(drill)!, seed)
  const acts = playOut(rider, disciplinedTester(rider), runs)
  await page.goto(`${server.base}/practice/${drill}/${seed}`)
  let run = 0
  for (const act of acts) {
    if (act.do === 'ride') {
      await rideKey(page, ++run).click()
      await says(page, run).waitFor()
    } else if (act.do === 'turn') {
      for (const [id, to] of Object.entries(act.to)) {
        const d = rider.dials.find((x) => x.adjuster.id === id)!
        const name = { pressure: 'Pressure', spacer: 'Spacers', click: '' }[d.adjuster.kind as 'click']
        const role = name || (d.adjuster.role === 'rebound' ? 'Rebound' : 'Low-speed compression')
        const rail = page.getByRole('slider', { name: new RegExp(`^${d.end} ${role},`) })
        await rail.focus()
        // Digits, in the part's own count.
        await page.keyboard.type(String(to))
        await rail.press('Enter')
        await expect(rail).toHaveAttribute('aria-valuenow', String(to))
      }
    }
  }
  await page.getByRole('button', { name: /We’re happy/ }).click()
  const settled = acts.at(-1)?.do === 'settle' ? acts : [...acts, { do: 'settle' } as const]
  return { rider, acts: settled }
}

for (const [drill, seed] of [
  ['one-fault', 3],
  ['kicks', 2],
  ['noisy-rider', 5],
  ['noon-heat', 2],
] as const)
  test(`a drill is played through the page and judged as the rules say: ${drill}`, async ({ page }) => {
    const { rider, acts } = await playThrough(page, drill, seed, 4)
    const review = reviewOf(rider, acts)
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(review.headline)
    const rows = page.locator('.runs > ul > li')
    await expect(rows).toHaveCount(review.remarks.length + 1)
    for (const [i, m] of review.remarks.entries()) await expect(rows.nth(i)).toContainText(m.says)
    await expect(rows.last()).toContainText(review.ending.says)
    for (const words of hiddenWords(rider, practiceDay(rider, acts).runs.length))
      await expect(page.locator('.told > p').nth(1)).toContainText(words)
  })

test('what is hidden stands nowhere before the end: not on the page, not in its address', async ({
  page,
}) => {
  await page.goto(`${server.base}/practice/something-behind/4`)
  await rideKey(page, 1).click()
  await says(page, 1).waitFor()
  const rider = hiddenRider(drillOf('something-behind')!, 4)
  const shown = (await page.locator('body').innerText()) + page.url()
  for (const words of hiddenWords(rider, 1)) expect(shown).not.toContain(words)
  expect(shown).not.toMatch(/too (low|high|slow|fast|soft|firm)/)
  await expect(page.locator('.ghost, .best')).toHaveCount(0)
})

test('the adviser is asked only when it is wanted, and can be followed', async ({ page }) => {
  await page.goto(`${server.base}/practice/kicks/1`)
  await rideKey(page, 1).click()
  await says(page, 1).waitFor()
  await expect(page.getByText('The adviser would')).toHaveCount(0)
  await page.getByRole('button', { name: 'What would the adviser do?' }).click()
  await page.getByText('The adviser would').waitFor()
  const act = page.getByRole('button', { name: /^(Ask it|Read it|Turn it like that)$/ })
  // Questions and readings first, then a turn: a rail has moved.
  for (let i = 0; i < 5; i++) {
    const name = await act.innerText()
    await act.click()
    if (name === 'Turn it like that') break
    await expect(page.locator('.advice')).toHaveAttribute('aria-busy', 'false')
  }
  await expect(page.locator('.dayline .tag')).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo the last turn' }).click()
  await expect(page.locator('.dayline .tag')).toHaveCount(0)
})

test('the sensors are read when somebody wants to look: every ride of the day, the creeping one as wrongly as it shows', async ({
  page,
}) => {
  await page.goto(`${server.base}/practice/creeping-sensor/2`)
  for (const run of [1, 2]) {
    await rideKey(page, run).click()
    await says(page, run).waitFor()
  }
  const figures = page.locator('.figures')
  await expect(figures).toHaveCount(0)
  await page.getByRole('button', { name: 'What do the sensors say?' }).click()
  const rider = hiddenRider(drillOf('creeping-sensor')!, 2)
  const heightOf = (r: typeof rider, run: number) =>
    recordedRide(r, r.start, run).analysis!.whole.front!.rideHeightPct.toFixed(1)
  const height = (run: number) => heightOf(rider, run)
  const cell = figures
    .getByRole('row', { name: /ride height/ })
    .getByRole('cell')
    .first()
  await expect(cell).toHaveText(`${height(2)} was ${height(1)}`)
  expect(Number(height(2)) - Number(height(1))).toBeGreaterThan(3)

  // They were on the bike at every ride: after a reload they are read again, and looked away from at once.
  await page.reload()
  await expect(cell).toHaveText(`${height(2)} was ${height(1)}`)
  await page.getByRole('button', { name: 'Without sensor figures' }).click()
  await expect(figures).toHaveCount(0)
  // Another rider is another bike.
  await page.getByRole('button', { name: 'What do the sensors say?' }).click()
  await page.goto(`${server.base}/practice/creeping-sensor/3`)
  await rideKey(page, 1).click()
  await expect(figures.getByRole('row', { name: /ride height/ })).toContainText(
    heightOf(hiddenRider(drillOf('creeping-sensor')!, 3), 1),
    { timeout: 20_000 },
  )
})

test('a ride of practice is looked at like any other: its trace, what stands out, and what its sensor gets wrong', async ({
  page,
}) => {
  // A phone held across, then turned.
  const [across, upright] = [
    { width: 844, height: 390 },
    { width: 390, height: 844 },
  ]
  await page.setViewportSize(across)
  const address = `${server.base}/practice/creeping-sensor/2`
  await page.goto(`${address}?trace=1`)
  // Nothing was ridden yet: there is no trace of it.
  await rideKey(page, 1).waitFor()
  for (const run of [1, 2]) {
    await rideKey(page, run).click()
    await says(page, run).waitFor()
  }
  await page.getByRole('button', { name: 'What do the sensors say?' }).click()
  await page.goto(address)
  await page.getByRole('link', { name: 'See the trace of run 2' }).click()
  const trace = page.getByRole('img', { name: 'Depth of front and rear over time, run 2' })
  await trace.waitFor()
  const out = page.getByRole('region', { name: 'What stands out' })
  const rider = hiddenRider(drillOf('creeping-sensor')!, 2)
  const shown = recordedRide(rider, rider.start, 2).analysis!.whole.front!
  await expect(page.getByText(/The front sensor went to \d+ % of travel and the ring only to/)).toBeVisible()
  // It says "deep", and is not believed; nor is anything that rests on it.
  expect(shown.rideHeightPct).toBeGreaterThan(25)
  await expect(out).toContainText('Nothing that can be believed')
  await expect(page.getByRole('row', { name: /ride height/ })).toContainText(shown.rideHeightPct.toFixed(1))

  // Turned, it stands there as if it had been opened so: names of the parts of the trail fit, too.
  await page.setViewportSize(upright)
  const picture = async () => {
    await page.mouse.move(0, 0)
    return (await trace.screenshot()).toString('base64')
  }
  let turned = ''
  await expect.poll(async () => turned === (turned = await picture()), { intervals: [400] }).toBe(true)
  await page.reload()
  await trace.waitFor()
  await expect.poll(picture).toBe(turned)

  await page.getByRole('link', { name: 'Run 1' }).click()
  await page.getByRole('img', { name: /run 1$/ }).waitFor()
  await expect(page.getByText(/sensor went to/)).toHaveCount(0)
  await page.getByRole('link', { name: 'Back to practice' }).click()
  await says(page, 2).waitFor()
  expect(page.url()).toBe(address)
})

test('a day of practice comes back with a reload, and its address makes the same rider elsewhere', async ({
  page,
  browser,
}) => {
  const address = `${server.base}/practice/two-faults/17`
  await page.goto(address)
  for (const run of [1, 2]) {
    await rideKey(page, run).click()
    await says(page, run).waitFor()
  }
  await page.getByRole('button', { name: 'Read sag, rear' }).click()
  await expect(page.getByText(/% of the stroke, target 30 %/)).toBeVisible()
  const second = await rating(page)
  await page.reload()
  await says(page, 2).waitFor()
  expect(await rating(page)).toBe(second)
  await expect(page.getByText(/% of the stroke, target 30 %/)).toBeVisible()

  const other = await (await browser.newContext()).newPage()
  await other.goto(address)
  await rideKey(other, 1).click()
  await says(other, 1).waitFor()
  await rideKey(other, 2).click()
  await says(other, 2).waitFor()
  expect(await rating(other)).toBe(second)
  await other.close()
})

test('an address that names no rider says so, and offers the drills', async ({ page }) => {
  for (const [path, words] of [
    ['/practice/no-such-drill/1', /There is no such drill/],
    ['/practice/kicks/0', /whole number from 1 to/],
    ['/practice/kicks/1e9', /whole number from 1 to/],
  ] as const) {
    await page.goto(server.base + path)
    await expect(page.getByRole('alert')).toHaveText(words)
    await expect(page.getByRole('link', { name: /First lesson/ })).toBeVisible()
  }
  await page.goto(`${server.base}/practice/kicks`)
  await expect(page).toHaveURL(/\/practice\/kicks\/1$/)
})

test('something chosen and not said to be on is not ridden over', async ({ page }) => {
  await page.goto(`${server.base}/practice/kicks/1`)
  await page.getByRole('slider', { name: /^rear Rebound/ }).press('ArrowLeft')
  await rideKey(page, 1).click()
  await expect(page.getByText(/say that it is on, or cancel it/)).toBeVisible()
  await expect(says(page, 1)).toHaveCount(0)
})

test('the tasks of the bench are worked through, right and wrong, by keyboard; a reload keeps what was given', async ({
  page,
}) => {
  const tasks = benchTasks(4)
  await page.goto(`${server.base}/practice`)
  await page.getByRole('link', { name: /Ring, count, stopwatch/ }).click()
  await expect(page).toHaveURL(/\/practice\/bench\/1$/)
  await page.goto(`${server.base}/practice/bench/4`)
  for (const [i, t] of tasks.entries()) {
    await expect(page.getByRole('heading', { name: t.title, exact: true })).toBeVisible()
    await expect(page.locator('.task')).not.toContainText(t.because)
    // Every third one wrong.
    const wrong = i % 3 === 2
    if (t.kind === 'number') {
      const field = page.getByLabel(/^Answer/)
      await field.press('Enter')
      await expect(page.getByRole('alert')).toHaveText('Enter a number.')
      // As it is typed in half of the world.
      await field.fill(String(wrong ? t.answer + 50 : t.answer).replace('.', ','))
      await field.press('Enter')
    } else {
      const choice = wrong ? t.choices.find((c) => c !== t.answer)! : t.answer
      await page.getByRole('button', { name: choice, exact: true }).press('Enter')
    }
    await expect(page.getByRole('status').first()).toContainText(wrong ? 'Not quite' : 'So it is')
    await expect(page.locator('.task')).toContainText(t.because)
    await page.keyboard.press('Enter')
  }
  await expect(page.getByText(/^you said/)).toHaveCount(3)
  await page.reload()
  await expect(page.getByText(/^you said/)).toHaveCount(3)
  await expect(page.getByText(/^right:/)).toHaveCount(7)
})

test('who counts before it is believed finds a count that was wrong, and nothing is said to have been turned', async ({
  page,
}) => {
  await page.goto(`${server.base}/practice/lost-count/2`)
  const written = hiddenRider(drillOf('lost-count')!, 2).written.rr
  const rail = page.getByRole('slider', { name: /rear rebound/i })
  await expect(rail).toHaveAttribute('aria-valuenow', String(written))
  // Before anything was ridden: to look costs no run.
  await page.getByText('Count to the stop, or put the gauge on').click()
  await page.getByRole('button', { name: 'Rear rebound', exact: true }).click()
  await expect(page.getByRole('status').filter({ hasText: `written was ${written} clicks` })).toBeVisible()
  await expect(page.locator('.dayline .tag')).toHaveText(
    new RegExp(`Rear rebound read: .*written was ${written}`),
  )
  await expect(rail).not.toHaveAttribute('aria-valuenow', String(written))
  await page.getByRole('button', { name: 'Front rebound', exact: true }).click()
  await expect(page.getByRole('status').filter({ hasText: 'as written' })).toHaveCount(1)
  await rideKey(page, 1).click()
  await says(page, 1).waitFor()
  await page.getByRole('button', { name: /stop here/ }).click()
  await expect(
    page.getByText(/rear rebound \d clicks too (fast|slow), and not where the card says/),
  ).toBeVisible()
  await expect(page.getByText('Looked before it was believed: rear rebound')).toBeVisible()
})

test('the feel is noted by hand: heard as people talk, kept as it was noted, and the end says what was misheard', async ({
  page,
}) => {
  // A rider whose first run has one word for it.
  const kicks = drillOf('kicks')!
  const seed = Array.from({ length: 60 }, (_, k) => k + 1).find((n) => {
    const r = hiddenRider(kicks, n)
    return r.tell(r.start, 1).marks.length === 1
  })!
  const rider = hiddenRider(kicks, seed)
  const told = rider.tell(rider.start, 1)
  const { label, aliases } = wordRules[told.marks[0].word]
  const wrong = wordRules['pedal-bob'].label
  await page.goto(`${server.base}/practice/kicks/${seed}`)
  const own = page.getByRole('button', { name: 'I’ll note the feel myself' })
  await own.click()
  await rideKey(page, 1).click()
  await says(page, 1).waitFor()
  const talk = await page.locator('.says q').innerText()
  expect(aliases).toContain(talk)
  expect(talk).not.toBe(label)
  const strip = page.getByRole('region', { name: 'Run 1, how it felt' })
  const rate = (n: number) =>
    strip
      .getByRole('group', { name: 'Rating' })
      .getByRole('button', { name: String(n), exact: true })
      .click()
  // Nothing is on the strip that nobody noted, and no question hangs on a word that nobody noted.
  await expect(strip.getByRole('button', { pressed: true })).toHaveCount(0)
  await rate(Math.floor(told.rating))
  if (told.rating % 1) await strip.getByRole('button', { name: 'and a half' }).click()
  // The wrong word for it, then a look at the other run after it.
  await strip.getByRole('button', { name: wrong, exact: true }).click()
  await page.reload()
  await expect(strip.getByRole('group', { name: 'Said of this run' })).toContainText(wrong)
  await expect(page.locator('.says .rating')).toContainText(String(told.rating))
  // The second run as anybody's: told as the strip has it.
  await page.getByRole('button', { name: 'Have the feel noted' }).click()
  await rideKey(page, 2).click()
  await says(page, 2).waitFor()
  await expect(page.getByRole('region', { name: 'Run 2, how it felt' })).toHaveCount(0)
  await page.getByRole('button', { name: /stop here/ }).click()
  await expect(
    page.getByText(new RegExp(`The rider’s words were “${label}”.*; noted was “${wrong}”`)),
  ).toBeVisible()
})

test('three at once: what is done with one takes time from the others, and the end tells of each', async ({
  page,
}) => {
  await page.goto(`${server.base}/practice`)
  await page.getByRole('link', { name: /Three at once/ }).click()
  const lane = (n: number) =>
    page
      .getByRole('list', { name: 'Riders in the tent' })
      .getByRole('button')
      .nth(n - 1)
  const clock = page.getByRole('timer')
  await expect(clock).toContainText('09:00')
  const riders = ridersOf(1)
  // The first goes out as he stands; the next who is here is turned to.
  await page.getByRole('button', { name: 'Send out for run 1' }).click()
  await expect(lane(1)).toContainText('out, back at 09:12')
  await expect(lane(2)).toHaveAttribute('aria-pressed', 'true')
  await page
    .getByRole('button', { name: /Read sag/ })
    .first()
    .click()
  await expect(clock).toContainText('09:05 track open for 70 min')
  await page.getByRole('button', { name: 'Send out for run 1' }).click()
  await page.getByRole('button', { name: 'Send out for run 1' }).click()
  await expect(lane(3)).toContainText('out, back at 09:18')
  // Nobody is here: nothing can be turned on a bike that is out.
  await expect(page.getByRole('heading', { name: 'Rider 3 is out' })).toBeVisible()
  await expect(page.getByRole('button', { name: /Send out/ })).toHaveCount(0)
  await expect(page.locator('.bike').getByRole('button')).toHaveCount(0)
  await page.getByRole('button', { name: 'Wait for the next to come back' }).click()
  await expect(clock).toContainText('09:12')
  await says(page, 1).waitFor()
  const told = riders[0].tell(riders[0].start, 1)
  expect(await rating(page)).toBe(String(told.rating))
  await expect(lane(1)).toContainText(String(told.rating))

  // It is kept through a reload, and is of nobody's book.
  await page.reload()
  await expect(clock).toContainText('09:12')
  expect(await (await page.request.get(`${server.base}/api/v1/days`)).json()).toEqual([])

  for (let i = 0; i < 60; i++) {
    const wait = page.getByRole('button', { name: 'Wait for the next to come back' })
    const end = page.getByRole('button', { name: 'The same three again' })
    const send = page.getByRole('button', { name: /Send out for run/ })
    await expect(wait.or(end).or(send).first()).toBeVisible()
    if (await end.isVisible()) break
    if (await send.isVisible()) {
      const before = await clock.innerText()
      await send.click()
      await expect(clock).not.toHaveText(before)
    } else await wait.click()
  }
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/ride(s)? home on what suits them/)
  for (const r of riders)
    for (const words of hiddenWords(r, 6))
      await expect(page.getByText(words.split(',')[0]).first()).toBeVisible()
  await test.step('beside each rider stands what the others would have lost in as many runs', async () => {
    for (const [i, r] of riders.entries()) {
      const section = page.getByRole('region', { name: new RegExp(`^${i + 1}: `) })
      const runs = Number(/(\d+) runs?, stood/.exec(await section.innerText())![1])
      // Nothing was turned by hand; a leak turns by itself.
      const rides = Array.from({ length: runs }, (): PracticeAct => ({
        do: 'ride',
        ringMm: { front: 0, rear: 0 },
      }))
      const you = practiceDay(r, rides).runs.reduce((sum, x) => sum + r.lossAt(x.positions, x.number), 0)
      const lost = (acts: PracticeAct[]) => lostInAll(r, acts, runs).toFixed(1)
      const adviser = lost(playOut(r, followsAdviser(false), runs))
      const tester = lost(playOut(r, disciplinedTester(r), runs))
      await expect(
        section.getByText(`you ${you.toFixed(1)}, the adviser ${adviser}, one thing at a time ${tester}.`),
      ).toBeVisible()
      await expect(section.locator('canvas').last()).toBeVisible()
    }
    await expect(page.getByRole('button', { name: 'Don’t wait' })).toHaveCount(0)
    expect(await faults(page)).toEqual([])
  })
  await page.getByRole('button', { name: 'The same three again' }).click()
  await expect(clock).toContainText('09:00')
})
