import { expect, test, type Locator, type Page } from '@playwright/test'
import type { DayBundle } from '../contract/endpoints.ts'
import { largeSize } from '../demo/large.ts'
import { Hands, spacing } from './hands.ts'
import { holdWrites } from './held.ts'
import { inDemo, proposed } from './screens.ts'
import { startDemo, startServer, type RunningServer } from './server.ts'

const widths = [
  [1280, 800],
  [390, 844],
  [320, 700],
] as const

/** Everything the page says to the console, or breaks on, while a walk goes. */
function complaints(page: Page): string[] {
  const heard: string[] = []
  page.on('pageerror', (e) => heard.push(e.message))
  page.on('console', (m) => {
    // Said by the test's own browser, which keeps no page (playwright.config.ts).
    if (m.text() === 'Service Worker registration blocked by Playwright') return
    if (m.type() === 'warning' || m.type() === 'error') heard.push(m.text())
  })
  return heard
}

test.describe('the first five minutes', () => {
  // Each has a server of its own: whichever hand is free takes the next.
  test.describe.configure({ mode: 'parallel' })
  let server: RunningServer
  test.beforeEach(async () => void (server = await startServer()))
  test.afterEach(async () => server?.stop())

  for (const [width, height] of widths)
    test(`a new rider is on a day, with nothing invented, at ${width} px`, async ({ browser }) => {
      const context = await browser.newContext({ viewport: { width, height }, hasTouch: width < 700 })
      const page = await context.newPage()
      const heard = complaints(page)
      const hands = new Hands(page)
      const button = (name: string | RegExp) => page.getByRole('button', { name })
      /** A press on what may lie below the fold: looked for, and counted all the same. */
      const press = async (name: string | RegExp) => {
        await button(name).click()
        hands.taps++
      }
      await page.goto(server.base)
      await hands.tap(page.getByRole('link', { name: /Set up my bike/ }))
      await page.getByLabel('Name').click()
      await hands.type('Mara')
      await page.getByLabel('Weight, without kit').click()
      hands.taps += 2
      await hands.type('64')
      await press('Next')
      await press(/^I don’t know/)
      await press(/^trail/)
      await press(/^I don’t know/)
      for (const part of ['Air valve', 'Red knob', 'Blue knob']) await press(part)
      await press('Next')
      // One red and one blue on a shock.
      for (const part of ['Air valve', 'Red knob', 'Blue knob']) await press(part)
      await press('Next')
      await press('Later')
      await expect(page.getByRole('heading', { name: 'Where to start' })).toBeFocused()
      await press(/^I’ve set Fork pressure/)
      await press('Ride it')
      await expect(page.getByLabel('Bike and rider')).toBeVisible()
      await page.getByLabel('Trail, as one section').click()
      hands.taps++
      await hands.type('Home loop')
      await press('Start the day')
      await expect(page.getByRole('heading', { name: 'One warm-up run, then the baseline' })).toBeVisible()
      expect(hands.taps, 'taps').toBeLessThanOrEqual(25)
      expect(hands.keys, 'keys').toBeLessThanOrEqual(30)

      const garage = await (await page.request.get(`${server.base}/api/v1/garage`)).json()
      const [bike] = garage.bikes
      expect(bike.assumed).toEqual(['rearWheelTravelMm'])
      expect(garage.riders[0]).toMatchObject({ kitMassKg: null })
      const [setup] = garage.currentSetups
      // On the bike is what was said to be set, and nothing else; the rest is wanted.
      expect(setup.positions.map((p: { known: { how: string } }) => p.known.how)).toEqual(['set'])
      expect(garage.wantedSetups).toHaveLength(1)
      await page.goto(`${server.base}/garage`)
      await expect(page.getByText(/travel.*assumed/).first()).toBeVisible()
      expect(heard).toEqual([])
      await context.close()
    })

  test('an answer is kept through a reload, Back goes a question back, a fault brings the field', async ({
    page,
  }) => {
    await page.goto(`${server.base}/start`)
    await page.getByRole('button', { name: 'Next' }).click()
    await expect(page.getByRole('alert')).toHaveText('Say what the rider is called.')
    await expect(page.getByLabel('Name')).toBeFocused()
    await page.getByLabel('Name').fill('Mara')
    await page.getByLabel('Weight, without kit').fill('6')
    await page.getByRole('button', { name: 'Next' }).click()
    await expect(page.getByRole('alert')).toHaveText('Body weight must be at least 20 kg.')
    await expect(page.getByLabel('Weight, without kit')).toBeFocused()
    await page.getByLabel('Weight, without kit').fill('64')
    await page.getByRole('button', { name: 'Next' }).click()
    await page.getByRole('button', { name: /^Shoes/ }).click()
    await page.reload()
    await expect(page.getByRole('button', { name: /^Shoes/ })).toHaveAttribute('aria-pressed', 'true')
    await page.goBack()
    await expect(page.getByLabel('Name')).toHaveValue('Mara')
    await expect(page.getByLabel('Weight, without kit')).toHaveValue('64')
  })

  test('the invented rider is one tap away, and another each time', async ({ page }) => {
    const heard = complaints(page)
    await page.goto(server.base)
    await page.getByRole('button', { name: /Try it with an invented rider/ }).click()
    await expect(page.getByRole('button', { name: /^Ilka \(invented\)/ })).toBeVisible()
    await expect(page.getByRole('button', { name: /^Run 5,/ })).toBeVisible()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    expect(heard).toEqual([])
  })
})

test.describe('fast hands', () => {
  test.describe.configure({ mode: 'parallel' })
  let server: RunningServer
  test.beforeEach(async () => void (server = await startDemo()))
  test.afterEach(async () => server?.stop())
  const bundle = async (page: Page) =>
    (await (
      await page.request.get(`${server.base}/api/v1${new URL(page.url()).pathname}`)
    ).json()) as DayBundle
  /** Of every run of the day, in their order. */
  const ratings = async (page: Page) => {
    const { runs, feels } = await bundle(page)
    return runs.map((run) => feels.find((f) => f.runId === run.id)?.rating ?? null)
  }
  const onDay = async (page: Page) => {
    await page.goto(server.base + inDemo.day.address)
    await proposed(page)
  }

  test.describe('on a phone', () => {
    test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
    test('a run and its feel take six taps without a swipe, on keys for gloves', async ({ page }) => {
      await onDay(page)
      const hands = new Hands(page)
      await hands.tap(page.getByRole('button', { name: 'Log run 6' }))
      await expect(page.getByRole('heading', { name: 'Run 6, how it felt' })).toBeVisible()
      const rating = page.getByRole('group', { name: 'Rating' })
      await hands.tap(rating.getByRole('button', { name: '7', exact: true }), 56)
      await hands.tap(rating.getByRole('button', { name: 'and a half' }), 56)
      await hands.tap(page.getByRole('button', { name: 'Root web, rear' }))
      await hands.tap(page.getByRole('button', { name: 'kicks', exact: true }))
      await hands.tap(
        page.getByRole('navigation', { name: 'Parts of the day' }).getByRole('button', { name: 'Next' }),
      )
      expect(hands.taps).toBe(6)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
      const feelOfLast = async () => {
        const path = new URL(page.url()).pathname
        const day = await (await page.request.get(`${server.base}/api/v1${path}`)).json()
        const last = day.runs.at(-1).id
        return day.feels.find((f: { runId: string }) => f.runId === last)
      }
      await expect
        .poll(feelOfLast)
        .toMatchObject({ rating: 7.5, marks: [{ word: 'kicks', end: 'rear', strength: 2 }] })
    })
    for (const width of [390, 320])
      test(`targets are large and apart at ${width} px`, async ({ page }) => {
        await page.setViewportSize({ width, height: 844 })
        await onDay(page)
        await page.getByRole('button', { name: 'Log run 6' }).click()
        await page.getByRole('button', { name: 'kicks', exact: true }).click()
        const groups: [string, number][] = [
          ['Rating', 55.5],
          ['What was not usual about this run', 44],
          ['Said of this run', 44],
          ['Words for the feel', 44],
          ['Worse or better', 44],
        ]
        for (const [name, least] of groups) {
          const { gap, side } = await spacing(page.getByRole('group', { name }).first())
          expect(side, name).toBeGreaterThanOrEqual(least)
          expect(gap, name).toBeGreaterThanOrEqual(7.5)
        }
        await page.getByRole('button', { name: 'Bike', exact: true }).click()
        for (const rail of await page.locator('.rail').all()) {
          const { gap, side } = await spacing(rail)
          expect(side).toBeGreaterThanOrEqual(44)
          expect(gap).toBeGreaterThanOrEqual(7.5)
        }
      })
    test('what was not usual is added in place', async ({ page }) => {
      await onDay(page)
      await page.getByRole('button', { name: 'Log run 6' }).click()
      await page.getByRole('button', { name: 'crashed …' }).click()
      await page.getByRole('button', { name: 'puncture' }).click()
      await expect(page.getByRole('button', { name: 'doesn’t count: puncture' })).toBeVisible()
      await page.getByRole('button', { name: 'ring …' }).click()
      await page.getByLabel('Rear ring, deepest').fill('80')
      await page.getByLabel('Rear ring, deepest').blur()
      await expect(page.getByText('The rear ring lies between 0 and 55 mm')).toBeVisible()
      await page.getByLabel('Rear ring, deepest').fill('48')
      await page.getByLabel('Rear ring, deepest').blur()
      await expect
        .poll(async () => {
          const path = new URL(page.url()).pathname
          return (await (await page.request.get(`${server.base}/api/v1${path}`)).json()).runs.at(-1)
        })
        .toMatchObject({ kind: 'void', voidReason: 'puncture', ringRearMm: 48, ringFrontMm: null })
    })
    test('a run logged elsewhere waits: the next tap lands on the run that was looked at', async ({
      page,
      context,
    }) => {
      await onDay(page)
      const tent = await context.newPage()
      await tent.goto(page.url())
      await page.getByRole('button', { name: 'Feel', exact: true }).click()
      await expect(page.getByRole('heading', { name: 'Run 5, how it felt' })).toBeVisible()
      await tent.getByRole('button', { name: 'Log run 6' }).click()
      const offer = page.getByRole('button', { name: 'Run 6 was logged elsewhere: look at it' })
      await expect(offer).toBeVisible()
      await page
        .getByRole('group', { name: 'Rating' })
        .getByRole('button', { name: '4', exact: true })
        .click()
      const feels = async () => {
        const path = new URL(page.url()).pathname
        const day = await (await page.request.get(`${server.base}/api/v1${path}`)).json()
        const ratingOf = (run: { id: string }) =>
          day.feels.find((f: { runId: string }) => f.runId === run.id)?.rating ?? null
        return day.runs.slice(4).map(ratingOf)
      }
      await expect.poll(feels).toEqual([4, null])
      await offer.click()
      await expect(page.getByRole('heading', { name: 'Run 6, how it felt' })).toBeVisible()
      await expect(offer).toHaveCount(0)
    })
    test('two taps of a glove log one run', async ({ page }) => {
      await onDay(page)
      await page.getByRole('button', { name: 'Log run 6' }).dblclick()
      await expect(page.getByRole('heading', { name: 'Run 6, how it felt' })).toBeVisible()
      await page.waitForTimeout(500)
      await expect(page.getByRole('button', { name: 'Log run 7' })).toBeVisible()
    })
  })

  for (const width of [1280, 390])
    test(`on a slow line the next tap is of the run that was just logged, and no answer that comes late turns the page back, at ${width} px`, async ({
      page,
    }) => {
      await page.setViewportSize({ width, height: 800 })
      await onDay(page)
      const before = await ratings(page)
      const line = await holdWrites(page, '**/api/v1/runs/*')
      const title = (n: number) => page.getByRole('heading', { name: `Run ${n}, how it felt` })
      await page.getByRole('button', { name: 'Log run 6' }).click()
      await page
        .getByRole('group', { name: 'Rating' })
        .getByRole('button', { name: '4', exact: true })
        .click()
      await expect(title(6)).toBeVisible()
      await expect(page.getByRole('button', { name: /was logged elsewhere/ })).toHaveCount(0)
      expect((await ratings(page)).length).toBe(before.length)
      line.letGo()
      await expect.poll(() => ratings(page)).toEqual([...before, 4])
      // Something of it is changed, and another run looked at before the answer is there.
      line.again()
      await page.getByRole('button', { name: 'nervous', exact: true }).click()
      if (width < 700) await page.getByRole('button', { name: 'Day', exact: true }).click()
      await page.getByRole('button', { name: /^Run 4,/ }).click()
      await expect(title(4)).toBeVisible()
      line.letGo()
      const mind = async () => (await bundle(page)).runs.at(-1)!.mind
      await expect.poll(mind).toBe('nervous')
      await expect(title(4)).toBeVisible()
    })

  for (const width of [1280, 390])
    test(`nothing moves under the hand while the run is judged anew, at ${width} px`, async ({ page }) => {
      await onDay(page)
      await page.getByRole('button', { name: 'Log run 6' }).click()
      await page.setViewportSize({ width, height: 800 })
      await expect(page.getByRole('heading', { name: 'Run 6, how it felt' })).toBeVisible()
      const card = page.locator('section.next')
      await expect(card).toHaveAttribute('aria-busy', 'false')
      const rating = page.getByRole('group', { name: 'Rating' })
      const strip = page.getByRole('group', { name: 'The test section, part by part' })
      /** Tapped, judged, and still where it was. */
      const stays = async (name: string, target: Locator) => {
        await target.scrollIntoViewIfNeeded()
        const before = (await target.boundingBox())!.y
        const text = await card.textContent()
        await target.click()
        if (name !== 'place') await expect.poll(() => card.textContent()).not.toBe(text)
        await expect(card).toHaveAttribute('aria-busy', 'false')
        expect((await target.boundingBox())!.y, name).toBeCloseTo(before, 0)
      }
      // As good as before on these settings: no gauge is asked for first.
      await stays('rating', rating.getByRole('button', { name: '7', exact: true }))
      await stays('place', strip.getByRole('button', { name: 'Root web, rear' }))
      await stays('word', page.getByRole('button', { name: 'kicks', exact: true }))
      await stays('other word', page.getByRole('button', { name: 'bounces on', exact: true }))
    })

  test('back to an earlier run: what it would turn is seen first, and one key leads to the best', async ({
    page,
  }) => {
    await onDay(page)
    const onBike = async () => {
      const path = new URL(page.url()).pathname
      const day = await (await page.request.get(`${server.base}/api/v1${path}`)).json()
      const now = day.setups.filter((s: { dayId: string }) => s.dayId === day.day.id).at(-1)
      return { setups: day.setups.length as number, from: now.reason.text as string }
    }
    const before = await onBike()
    await page.getByRole('button', { name: /^Run 2,/ }).click()
    await page.getByRole('button', { name: 'Back to run 2', exact: true }).click()
    const dialog = page.getByRole('dialog')
    await expect(
      dialog.getByText(/^Front low-speed compression 10 → 12 clicks, 2 clicks softer/),
    ).toBeVisible()
    // Looked at is not turned.
    expect(await onBike()).toEqual(before)
    await dialog.getByRole('button', { name: 'Done, it is on' }).click()
    await expect(page.getByText(/^On the bike: Front low-speed compression/)).toBeVisible()
    await expect.poll(onBike).toEqual({ setups: before.setups + 1, from: 'Back to run 2' })
    await expect(page.getByRole('button', { name: 'Back to run 2', exact: true })).toHaveCount(0)
    await page.getByRole('button', { name: 'Back to run 4, the best rated' }).click()
    await expect(dialog.getByText('Back to run 4:')).toBeVisible()
    await dialog.getByLabel('Change', { exact: true }).fill('back to run 9')
    await expect(dialog.getByText('There is no run 9 today; they go from 1 to 5.')).toBeVisible()
    await expect(dialog.getByRole('button', { name: 'Done, it is on' })).toBeDisabled()
  })

  test('on paper a day is its runs, what was turned and said, without bars and buttons', async ({ page }) => {
    await onDay(page)
    await page.emulateMedia({ media: 'print' })
    const rows = page.getByRole('region', { name: 'The day on paper' }).getByRole('row')
    await expect(rows).toHaveCount(6)
    await expect(rows.nth(4)).toContainText('Front LSC 12 → 10, 2 clicks firmer')
    await expect(rows.nth(4)).toContainText('7.5')
    await expect(rows.nth(5)).toContainText('kicks (rear, Root web)')
    await expect(page.getByRole('heading', { name: 'Ilka, 150 mm trail bike' })).toBeVisible()
    // What is left of the keys is the position of a lever.
    expect(await page.locator('button:visible').allInnerTexts()).toEqual(['Open'])
    await expect(page.getByRole('banner')).toBeHidden()
    await page.goto(`${server.base}/handbook/dials/low-speed-rebound`)
    await expect(page.getByRole('heading', { name: 'Low-speed rebound' })).toBeVisible()
    await expect(page.locator('button:visible')).toHaveCount(0)
  })

  test('Back closes a dialog and not the day; the keyboard is back where it was', async ({ page }) => {
    await page.goto(server.base)
    await page.getByRole('link', { name: /Next: Rear: when does it kick/ }).click()
    await proposed(page)
    const about = page.getByRole('button', { name: 'About this day' })
    await about.focus()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('dialog')).toBeVisible()
    await page.goBack()
    await expect(page.getByRole('dialog')).toHaveCount(0)
    await expect(page.getByRole('heading', { name: 'The day so far' })).toBeVisible()
    await expect(about).toBeFocused()
    // Closed by hand, it costs no dead step.
    await page.keyboard.press('Enter')
    await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click()
    await expect(page.getByRole('dialog')).toHaveCount(0)
    await page.goBack()
    await expect(page.getByRole('heading', { name: 'Where was I, and what next' })).toBeVisible()
  })

  test('what is typed survives Escape, and never goes into nothing', async ({ page }) => {
    await onDay(page)
    const line = page.getByRole('textbox', { name: 'Change' })
    for (let i = 0; i < 6; i++) {
      await page.keyboard.press('c')
      await expect(line).toBeFocused()
      await page.keyboard.type('fork +2')
      await expect(line).toHaveValue('fork +2')
      await page.keyboard.press('Escape')
      await expect(page.getByRole('dialog')).toHaveCount(0)
    }
    await page.keyboard.press('c')
    await expect(line).toHaveValue('fork +2')
    await page.getByRole('button', { name: /^Front pressure 78 → 80 psi/ }).click()
    await line.press('Enter')
    await expect(page.getByText(/^On the bike: Front pressure 78 → 80 psi/)).toBeVisible()
  })

  test('by keyboard: a run, its rating, a rail, and every stop is seen', async ({ page }) => {
    await onDay(page)
    await page.keyboard.press('r')
    await expect(page.getByRole('heading', { name: 'Run 6, how it felt' })).toBeVisible()
    await page.keyboard.press('f')
    await page.keyboard.press('8')
    await page.keyboard.press('.')
    await expect(page.getByText('8½ of 10')).toBeVisible()
    // From the top of the page to a rail.
    await page.locator('#main').focus()
    let tabs = 0
    const unseen: string[] = []
    let onRail = false
    for (; tabs < 40 && !onRail; tabs++) {
      await page.keyboard.press('Tab')
      const at = await page.evaluate(() => {
        const x = document.activeElement as HTMLElement
        const s = getComputedStyle(x)
        return {
          rail: x.getAttribute('role') === 'slider',
          seen: s.outlineStyle !== 'none' && parseFloat(s.outlineWidth) >= 2,
          name: x.getAttribute('aria-label') ?? x.textContent?.trim().slice(0, 40) ?? '',
        }
      })
      if (!at.seen) unseen.push(at.name)
      onRail = at.rail
    }
    expect(unseen).toEqual([])
    expect(onRail).toBe(true)
    const rail = page.getByRole('slider').first()
    await rail.focus()
    const before = await rail.getAttribute('aria-valuetext')
    await page.keyboard.press('Home')
    await expect(rail).not.toHaveAttribute('aria-valuetext', before!)
    await page.keyboard.press('Escape')
    await expect(rail).toHaveAttribute('aria-valuetext', before!)
    await page.keyboard.press('ArrowRight')
    await page.keyboard.press('Enter')
    await expect(page.getByText(/^On the bike: Front pressure/)).toBeVisible()
  })

  test('the run and the part that are looked at live in the address', async ({ page }) => {
    await onDay(page)
    await page.getByRole('button', { name: /^Run 2,/ }).click()
    await expect(page).toHaveURL(/run=2/)
    await page.reload()
    await expect(page.getByRole('heading', { name: 'Run 2, how it felt' })).toBeVisible()
    await expect(page).toHaveTitle(/^Ilka, 150 mm trail bike, Quarry Loop.* · Wild Spring$/)
  })

  test('Enter on a choice of a form never saves it', async ({ page }) => {
    await onDay(page)
    await page.getByRole('button', { name: 'Run details' }).click()
    const tired = page.getByRole('dialog').getByRole('radio', { name: 'tired' })
    await tired.focus()
    await page.keyboard.press('Enter')
    await page.waitForTimeout(300)
    await expect(page.getByRole('dialog')).toBeVisible()
  })

  test('zoomed to twice the size and with wide text nothing is lost sideways', async ({ page }) => {
    await page.setViewportSize({ width: 640, height: 400 })
    await onDay(page)
    await page.addStyleTag({
      content:
        '* { letter-spacing: 0.12em !important; word-spacing: 0.16em !important; line-height: 1.5 !important }',
    })
    await expect
      .poll(() => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth))
      .toBeLessThanOrEqual(0)
  })
})

test.describe('finding it again, among 40 riders and 200 days', () => {
  let server: RunningServer
  test.beforeAll(async () => void (server = await startDemo([], 'large')))
  test.afterAll(async () => server?.stop())
  const tall = (page: Page) =>
    page.evaluate(() => document.documentElement.scrollHeight / document.documentElement.clientHeight)

  for (const [width, height] of widths.slice(0, 2))
    test(`Today and the garage are at most three screens tall at ${width} px`, async ({ browser }) => {
      const page = await (await browser.newContext({ viewport: { width, height } })).newPage()
      const heard = complaints(page)
      await page.goto(server.base)
      const rows = page
        .getByRole('heading', { name: 'Today', exact: true })
        .locator('..')
        .getByRole('listitem')
      await expect(rows).toHaveCount(largeSize.today)
      await expect(page.getByText(/^Next: …/)).toHaveCount(0)
      expect(await tall(page)).toBeLessThanOrEqual(3)
      await page.goto(`${server.base}/garage`)
      await expect(page.getByRole('button', { name: /^Arvid/ })).toBeVisible()
      expect(await tall(page)).toBeLessThanOrEqual(3)
      for (const part of ['Trails', 'Workshop', 'Removed']) {
        await page.getByRole('button', { name: part, exact: true }).click()
        expect(await tall(page)).toBeLessThanOrEqual(3)
      }
      expect(heard).toEqual([])
      await page.context().close()
    })

  test('any bike is three taps away, or six keys', async ({ page }) => {
    await page.setViewportSize({ width: 390, height: 844 })
    await page.goto(server.base)
    await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Garage' }).click()
    await page.getByRole('button', { name: /^Ylva/ }).click()
    await expect(page.getByRole('heading', { name: 'Ylva’s trail bike' })).toBeVisible()
    await page.setViewportSize({ width: 1280, height: 800 })
    await page.keyboard.press('Control+k')
    await expect(page.getByRole('combobox')).toBeFocused()
    await page.keyboard.type('zeno')
    await expect(page.getByRole('option').first()).toContainText('Zeno')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('heading', { name: 'Zeno’s trail bike' })).toBeVisible()
  })

  test('the search finds riders, bikes, trails, days, words and commands', async ({ page }) => {
    await page.goto(server.base)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await page.keyboard.press('/')
    const box = page.getByRole('combobox')
    for (const [typed, kind] of [
      ['gesa', 'Rider'],
      ['hanne second', 'Bike'],
      ['sheepfold gates', 'Trail'],
      ['heron birk', 'Day'],
      ['packing', 'Handbook'],
      ['new trail', 'Command'],
    ] as const) {
      await box.fill(typed)
      await expect(page.getByRole('option').first()).toContainText(kind)
    }
    await box.fill('zzzzz')
    await expect(page.getByText('Nothing of that name here.')).toBeVisible()
    await box.fill('packing')
    await page.keyboard.press('Enter')
    await expect(page).toHaveURL(/handbook\/(feels\/harsh-gets-worse|works\/packing|words\/packing)/)
  })

  test('the handbook finds a word with a slip in it, and every page has an address of its own', async ({
    page,
  }) => {
    await page.goto(`${server.base}/handbook`)
    const find = page.getByRole('searchbox', { name: 'Find in the handbook' })
    await find.fill('pakcing')
    const list = page.getByRole('navigation', { name: 'Handbook' })
    await list.getByRole('link', { name: 'harsh, gets worse' }).click()
    await expect(page).toHaveURL(/\/handbook\/feels\/harsh-gets-worse$/)
    await expect(page.getByRole('heading', { name: '“harsh, gets worse”' })).toBeVisible()
    await expect(page.getByText('Rebound one or two clicks faster.')).toBeVisible()
    await expect(page.getByText(/A wrong rebound setting can throw a rider/)).toBeVisible()
    await find.fill('zzzz')
    await expect(page.getByText('Nothing of that name here.')).toBeVisible()
    // A word of the A–Z is brought into view and marked.
    await page.goto(`${server.base}/handbook/words/platform`)
    const platform = page.locator('[aria-current=true]')
    await expect(platform).toContainText('Platform')
    await expect(platform).toBeInViewport()
    await platform.getByRole('link').click()
    await expect(page.getByRole('heading', { name: 'Low-speed compression' })).toBeVisible()
    // Old addresses of the one long page, and those that never were.
    await page.goto(`${server.base}/handbook#school-posture`)
    await expect(page).toHaveURL(/\/handbook\/differ\/posture$/)
    await expect(page.getByRole('heading', { name: 'Sag seated, or standing?' })).toBeVisible()
    await page.goto(`${server.base}/handbook/feels/nonsense`)
    await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible()
  })

  test('earlier days are found by typing, by month and a page at a time', async ({ page }) => {
    await page.goto(server.base)
    const find = page.getByLabel('Find a day by rider, bike, trail or month')
    await find.fill('birk')
    const earlier = page.getByRole('region', { name: 'Earlier days' })
    await expect(earlier.getByRole('link').first()).toContainText('Birk')
    for (const row of await earlier.getByRole('link').all()) await expect(row).toContainText('Birk')
    await find.fill('')
    await earlier.getByRole('button', { name: 'settled', exact: true }).click()
    await expect(earlier.getByRole('link')).toHaveCount(12)
    await earlier.getByRole('button', { name: /^Show 12 older/ }).click()
    await expect(earlier.getByRole('link')).toHaveCount(24)
  })

  test('twelve sections with long names hold, and the next run of a day of thirty is in reach', async ({
    page,
  }) => {
    await page.goto(server.base)
    await page.getByRole('link', { name: /29 counted of 30 runs/ }).click()
    await expect(page.getByRole('heading', { name: 'The day so far' })).toBeVisible()
    await expect(page.getByText('next', { exact: true })).toBeInViewport()
    await expect(page.getByRole('button', { name: 'Log run 31' })).toBeInViewport()
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
    ).toBeLessThanOrEqual(0)
    // The rider and the bike are never cut off.
    const who = page.getByRole('button', { name: /who else rides this day/ })
    expect(
      await who.evaluate((x) =>
        [...x.querySelectorAll('b, span')].every(
          (y) => y.scrollWidth <= y.clientWidth + 1 || getComputedStyle(y).overflow === 'visible',
        ),
      ),
    ).toBe(true)
    await who.click()
    await expect(page.getByRole('dialog').getByRole('link')).toHaveCount(largeSize.today)
  })

  test('a trail among many is picked by typing', async ({ page }) => {
    await page.goto(server.base)
    await page.getByRole('button', { name: 'New trail day' }).click()
    const bike = page.getByLabel('Bike and rider')
    await bike.click()
    await bike.fill('zeno')
    const found = page.getByRole('listbox').getByRole('option')
    await expect(found).toHaveCount(1)
    await found.click()
    await expect(bike).toHaveValue(/Zeno/)
  })
})
