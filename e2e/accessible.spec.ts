import { expect, type Page } from '@playwright/test'
import type { GivenPadLink } from '../contract/pad.ts'
import { idOf } from '../demo/ids.ts'
import { faults } from './faults.ts'
import { test } from './oneWindow.ts'
import { inDemo, proposed } from './screens.ts'
import { startDemo, type RunningServer } from './server.ts'

// They only look.
test.describe.configure({ mode: 'parallel' })
let server: RunningServer
test.beforeAll(async () => {
  server = await startDemo()
})
test.afterAll(async () => server?.stop())

/** No page is wider than the window, but for what scrolls inside it. */
async function overflow(page: Page): Promise<number> {
  return page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
}

test('a rider’s phone, all three screens: nothing hinders', async ({ page }) => {
  const link = await fetch(`${server.base}/api/v1/tent-riders/${idOf('day tent obi')}/pad`, {
    method: 'PUT',
    body: '{}',
    headers: { 'content-type': 'application/json' },
  })
  await page.goto(`${server.base}/pad/${((await link.json()) as GivenPadLink).token}`)
  const press = (name: string) => page.getByRole('button', { name, exact: true }).click()
  for (const [heading, act] of [
    ['Against the run before', () => press('Worse')],
    ['Where?', async () => (await press('Next'), press('Front'))],
    ['What did it do?', async () => (await press('Next'), press('kicks'))],
  ] as const) {
    await act()
    await page.getByRole('heading', { name: heading }).waitFor()
    expect(await faults(page)).toEqual([])
    expect(await overflow(page)).toBeLessThanOrEqual(0)
  }
})

for (const [name, { address, ready }] of Object.entries(inDemo)) {
  test(`nothing is wrong with the screen "${name}", at three sizes, by day and dusk`, async ({ page }) => {
    await page.goto(server.base + address)
    await ready(page)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    expect(await page.title()).toMatch(/^.+ · Wild Spring$/)
    expect(await faults(page)).toEqual([])
    // A chart follows its width a moment later.
    await expect.poll(() => overflow(page)).toBeLessThanOrEqual(0)
    // A tablet, upright and on its side: the bar keeps to two rows or three.
    for (const width of [1024, 760]) {
      await page.setViewportSize({ width, height: 700 })
      await expect.poll(() => overflow(page), `${width} px`).toBeLessThanOrEqual(0)
      const bar = await page.locator('header.bar').boundingBox()
      expect(bar!.height, `${width} px`).toBeLessThan(160)
    }
  })
}

test('nothing is wrong with three riders at once', async ({ page }) => {
  await page.goto(`${server.base}/practice/coach/1`)
  await page.getByRole('button', { name: 'Send out for run 1' }).click()
  await page.getByText(/out, back at/).waitFor()
  await page.getByText('Count to the stop').click()
  expect(await faults(page)).toEqual([])
})

test('nothing is wrong with a day of practice and its end', async ({ page }) => {
  await page.goto(`${server.base}/practice/kicks/1`)
  await page.getByRole('button', { name: 'I’ll note the feel myself' }).click()
  await page.getByRole('button', { name: 'Ride run 1' }).click()
  await page.getByRole('heading', { name: 'Run 1, the rider says' }).waitFor()
  await page.getByRole('button', { name: 'What would the adviser do?' }).click()
  await page.getByText('The adviser would').waitFor()
  await page.getByRole('button', { name: 'What do the sensors say?' }).click()
  await page.getByRole('link', { name: 'See the trace of run 1' }).waitFor()
  expect(await faults(page)).toEqual([])
  await expect.poll(() => overflow(page)).toBeLessThanOrEqual(0)
  await page.getByRole('link', { name: 'See the trace of run 1' }).click()
  await page.getByRole('img', { name: /^Depth of front and rear/ }).waitFor()
  expect(await faults(page)).toEqual([])
  await expect.poll(() => overflow(page)).toBeLessThanOrEqual(0)
  await page.getByRole('link', { name: 'Back to practice' }).click()
  await page.getByRole('button', { name: /We’re happy/ }).click()
  await page.getByRole('button', { name: 'Don’t wait' }).click()
  await page.getByText('The rules behind these words').click()
  expect(await faults(page)).toEqual([])
  await expect.poll(() => overflow(page)).toBeLessThanOrEqual(0)
})

test('the figure of bracketing says whether the best was passed', async ({ page }) => {
  await page.goto(`${server.base}/handbook/works/bracketing`)
  const tells = page.locator('.figure .tells')
  const dial = page.getByRole('slider', { name: /^Rebound/ })
  const ride = page.getByRole('button', { name: 'Ride it' })
  await page.getByLabel('Opens with the numbers of').selectOption({ label: 'an invented bike' })
  await expect(dial).toHaveValue('3')
  await dial.fill('0')
  await ride.click()
  await expect(tells).toHaveText(/Ride it where it stands/)
  await dial.fill('2')
  await ride.click()
  await expect(tells).toHaveText(/Best rating so far at 2, and nothing was ridden further open/)
  for (const at of ['7', '12', '14']) {
    await dial.fill(at)
    await ride.click()
  }
  await expect(tells).toHaveText(/^Too far on both sides: the best lies between 2 and 12, near 7/)
  expect(await faults(page)).toEqual([])
  await page.getByRole('button', { name: 'Another dial' }).click()
  await expect(tells).toHaveText(/Ride it where it stands/)
})

const steps = [
  'who',
  'prepare',
  'start',
  'equalise',
  'sag-rear',
  'sag-both',
  'rebound',
  'end-of-stroke',
  'save',
]
for (const step of steps) {
  test(`nothing is wrong with the bench, ${step}`, async ({ page }) => {
    await page.goto(`${server.base}/bench/${idOf('joren bike')}?step=${step}`)
    await expect(page.getByRole('list', { name: 'Steps of the bench' })).toBeVisible()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    expect(await faults(page)).toEqual([])
  })
}

/** Dialogs by how they are opened on a page. */
const dialogs: Record<string, { at: string; open: (page: Page) => Promise<unknown> }> = {
  'new trail day': { at: '/', open: (p) => p.getByRole('button', { name: 'New trail day' }).click() },
  'the search': { at: '/', open: (p) => p.getByRole('button', { name: 'Search everything' }).click() },
  units: { at: '/', open: (p) => p.getByRole('button', { name: 'Units', exact: true }).click() },
  keys: { at: '/', open: (p) => p.keyboard.press('?') },
  'a rider': { at: '/garage', open: (p) => p.getByRole('button', { name: 'New rider' }).click() },
  'a bike': { at: '/garage', open: (p) => p.getByRole('button', { name: 'New bike' }).click() },
  'current settings': {
    at: '/garage',
    open: (p) => p.getByRole('button', { name: 'Record current settings' }).first().click(),
  },
  'a trail': { at: '/garage?part=trails', open: (p) => p.getByRole('button', { name: 'New trail' }).click() },
  'the command line': { at: inDemo.day.address, open: (p) => p.keyboard.press('c') },
  'run details': {
    at: inDemo.day.address,
    open: (p) => p.getByRole('button', { name: 'Run details' }).click(),
  },
  'about the day': {
    at: inDemo.day.address,
    open: (p) => p.getByRole('button', { name: 'About this day' }).click(),
  },
  'how it was': {
    at: inDemo.day.address,
    open: (p) => p.getByRole('button', { name: /^How it (is now|was)$/ }).click(),
  },
  'who rides': {
    at: inDemo.day.address,
    open: (p) => p.getByRole('button', { name: /who else rides this day/ }).click(),
  },
  'a sensor file': {
    at: inDemo.day.address,
    open: async (p) => {
      await p.getByRole('button', { name: /^Run 1,/ }).click()
      await p.getByRole('button', { name: 'Add a sensor file' }).click()
    },
  },
}
/** Dialogs over a chosen setup. */
for (const [name, key] of Object.entries({
  'turns to make': /^Put it on the bike/,
  'what it is kept as': 'Name and purpose',
  'a setup card': 'Card to take along',
  'carrying over': 'Carry over to …',
  'a profile': 'Keep the difference',
}))
  dialogs[name] = {
    at: inDemo.setups.address,
    open: async (p) => {
      await p.getByRole('button', { name: /^Wet roots, October/ }).click()
      await p.getByRole('button', { name: key }).click()
    },
  }
/** Dialogs of a tent. */
for (const [name, key] of Object.entries({
  'riders of a tent': 'Riders',
  'the weather of a tent': /^Weather/,
  'about a tent': 'About',
}))
  dialogs[name] = {
    at: inDemo.tent.address,
    open: (p) => p.getByRole('button', { name: key, exact: true }).click(),
  }
dialogs['what is recommended'] = {
  at: `/setups/${idOf('ilka bike')}`,
  open: (p) => p.getByRole('button', { name: 'What is recommended' }).click(),
}
dialogs['other ground'] = {
  at: inDemo.setups.address,
  open: (p) => p.getByRole('button', { name: 'For other ground …' }).click(),
}
dialogs['a spring on the shelf'] = {
  at: '/garage?part=workshop',
  open: (p) => p.getByRole('button', { name: 'Spring', exact: true }).click(),
}
dialogs['a card brought in'] = {
  at: inDemo.setups.address,
  open: (p) => p.getByRole('button', { name: 'Bring in a card' }).click(),
}
// The page under them has a look of its own above.
for (const at of new Set(Object.values(dialogs).map((d) => d.at))) {
  const here = Object.entries(dialogs).filter(([, d]) => d.at === at)
  test(`nothing is wrong with ${here.map(([name]) => `“${name}”`).join(', ')}`, async ({ page }) => {
    await page.goto(server.base + at)
    if (at === inDemo.day.address) await proposed(page)
    else await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    const dialog = page.getByRole('dialog')
    for (const [name, { open }] of here)
      await test.step(name, async () => {
        await page.setViewportSize({ width: 1280, height: 800 })
        await open(page)
        await expect(dialog).toBeVisible()
        await expect(dialog.getByRole('heading', { level: 2 })).toBeVisible()
        expect(await faults(page, '[role=dialog]'), name).toEqual([])
        await page.keyboard.press('Escape')
        await expect(dialog).toHaveCount(0)
      })
  })
}

test('Escape closes a dialog that lost the keyboard, and only the one on top', async ({ page }) => {
  await page.goto(server.base + inDemo.garage.address)
  await inDemo.garage.ready(page)
  const dialog = page.getByRole('dialog')
  const lose = () => page.evaluate(() => (document.activeElement as HTMLElement).blur())
  await page.getByRole('button', { name: 'Record current settings' }).first().click()
  await expect(dialog).toHaveCount(1)
  await lose()
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await page.getByRole('button', { name: 'New bike' }).click()
  await dialog.getByRole('button', { name: 'New fork' }).click()
  await expect(dialog).toHaveCount(2)
  await lose()
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(1)
  await expect(dialog).toHaveAccessibleName(/New bike/)
})

test('what is wrong is found: by day, at dusk, on a phone, and in a dialog', async ({ page }) => {
  await page.goto(server.base + inDemo.garage.address)
  await inDemo.garage.ready(page)
  await page.evaluate(() => {
    document.querySelector('main')!.insertAdjacentHTML(
      'beforeend',
      `<p style="color:#aaa;background:#fff">grey</p>
       <p class="num" style="color:#6b6b6b;background:#fff">pale number</p>
       <p id="dusk">dusk</p>
       <div role="dialog" aria-label="of the test"><input id="nameless"></div>
       <style>[data-bs-theme=dark] #dusk { color: #333; background: #000 }</style>`,
    )
  })
  const all = (await faults(page)).join('\n')
  expect(all).toMatch(/^color-contrast \(1280, light\): .*grey/m)
  expect(all).toMatch(/^color-contrast-enhanced \(1280, light\): .*pale number/m)
  expect(all).toMatch(/^color-contrast \(390, dark\): .*dusk/m)
  expect(all).toMatch(/^label \(320, light\): .*nameless/m)
  expect((await faults(page, '[role=dialog]')).map((f) => f.split(' ')[0])).toEqual(['label', 'label'])
})

for (const [page_, slider, says] of [
  ['spring-and-damper', /^Spring/, /Damping ratio 0\.\d+/],
  ['packing', /km\/h$/, /A hit every \d+ ms/],
  ['low-and-high-speed', /^High-speed/, /square edge \(1\.6 m\/s\) \d+ % softer|as before/],
  ['air-spring-and-spacers', /^Pressure/, /^Sag \d+ %/],
  ['negative-chamber', /^Negative/, /it holds \d+ % of the rider’s weight/],
  ['sag', /^Pressure/, /of 55 mm is [\d.]+ %/],
  ['leverage', /^at the end/, /mm at the wheel/],
  ['heat-and-height', /^At /, /gauge shows \d+ psi/],
  ['noise', /scatter by/, /give or take/],
  ['counting-clicks', /^rear Rebound/, /The same place is/],
] as const)
  test(`the figure of "${page_}" is played with by keyboard, said in words, and nothing is wrong with it`, async ({
    page,
  }) => {
    await page.goto(`${server.base}/handbook/works/${page_}`)
    const tells = page.locator('.figure .tells')
    await expect(tells).toHaveText(says)
    const before = await tells.innerText()
    await page.getByRole('slider', { name: slider }).press('ArrowRight')
    await expect(tells).not.toHaveText(before)
    await expect(tells).toHaveText(says)
    expect(await faults(page)).toEqual([])
    await expect.poll(() => overflow(page)).toBeLessThanOrEqual(0)
  })
