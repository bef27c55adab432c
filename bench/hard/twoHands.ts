import type { Page } from '@playwright/test'
import { inDemo } from '../../e2e/screens.ts'
import { fillDemo, startProcess } from '../../e2e/server.ts'
import { builtBrowser } from '../builtBrowser.ts'
import { lots, option } from './lots.ts'

/**
 * Two people on one day, one of them often out of reach; both tap as they come. Back in reach, what was changed twice is
 * chosen about where the page asks. Then each page has to show what a page shows that is opened afresh.
 * `npm run two-hands -- --rounds 8 --seed 1`
 */
const seed = option('seed', 1)
const rounds = option('rounds', 8)
const draw = lots(seed)
const patienceMs = 900
/** Letters go, answers come, the day is judged anew. */
const settlesMs = 3000
/** Back in reach is found at the next try. */
const comesBackMs = 5000
const mostChoices = 6

const server = await startProcess()
await fillDemo(server.base)
const browser = await builtBrowser()
if (!browser)
  throw new Error('No browser at hand, or no built page: npm run build, and Chromium in CHROMIUM.')
let faults = 0
const tell = (fault: string) => {
  faults++
  console.log(fault)
}

async function open(): Promise<Page> {
  const context = await browser!.newContext({
    viewport: { width: 1280, height: 900 },
    serviceWorkers: 'block',
  })
  const page = await context.newPage()
  page.on('pageerror', (e) => tell(`broke: ${e.message}`))
  page.on('response', (r) => {
    if (r.status() >= 500) tell(`a fault of the server: ${r.status()} ${r.url()}`)
  })
  await page.goto(server.base + inDemo.day.address)
  await page.locator('.p-next h1').waitFor()
  return page
}

const anyOf = async (p: Page, within: string, name: RegExp) => {
  const all = p.locator(within).getByRole('button', { name })
  await all.nth(draw.below(Math.max(1, await all.count()))).click({ timeout: patienceMs })
}
const acts: Record<string, (p: Page) => Promise<void>> = {
  turn: (p) => anyOf(p, '.on-bike', /one step/),
  done: (p) => anyOf(p, '.on-bike', /^Done/),
  log: (p) => anyOf(p, 'header', /^Log run/),
  rate: (p) => anyOf(p, '.p-feel', /^\d+$/),
  word: (p) => anyOf(p, '.p-feel', /^(kicks|bounces|harsh|dives|good|wallows)/),
  card: (p) => anyOf(p, '.p-next', /./),
  look: (p) => anyOf(p, '.line', /^Run \d/),
  undo: (p) => anyOf(p, 'body', /^Undo/),
}

const flat = (texts: readonly string[]) => texts.map((t) => t.replace(/\s+/g, ' ').trim()).join(' | ')
/** What a page says of the day, the bike and what is next. */
async function shown(p: Page): Promise<Record<'day' | 'bike' | 'next', string>> {
  const rails = await p.locator('.on-bike').getByRole('slider').all()
  const stands = await Promise.all(rails.map((r) => r.getAttribute('aria-valuetext')))
  return {
    day: flat(await p.locator('.col.line').allInnerTexts()),
    bike: stands.join(' | '),
    next: flat(await p.locator('.p-next h1').allInnerTexts()),
  }
}

/** What was changed elsewhere meanwhile is theirs, wherever the page asks. @returns how often it asked */
async function choose(p: Page): Promise<number> {
  for (let n = 0; n < mostChoices; n++) {
    const theirs = p.getByRole('button', { name: /^(Use theirs|Drop mine)/ }).first()
    const both = p.getByRole('link', { name: 'Look at both' }).first()
    if ((await theirs.count()) > 0) await theirs.click()
    else if ((await both.count()) > 0) await both.click()
    else return n
    await p.waitForTimeout(patienceMs)
  }
  return mostChoices
}

const pages = [await open(), await open()]
let [done, asked] = [0, 0]
for (let round = 0; round < rounds; round++) {
  const isAway = draw.next() < 0.6
  await pages[0].context().setOffline(isAway)
  const trail = [isAway ? '(A away)' : '']
  for (let n = 4 + draw.below(8); n > 0; n--) {
    const who = draw.below(2)
    const act = draw.one(Object.keys(acts))
    // What is not on the screen at this moment nobody taps.
    const isDone = await acts[act](pages[who]).then(
      () => true,
      () => false,
    )
    if (isDone) done++
    trail.push(`${'AB'[who]} ${act}${isDone ? '' : ' (not there)'}`)
    if (draw.next() < 0.5) await pages[0].waitForTimeout(draw.below(400))
  }
  await pages[0].context().setOffline(false)
  for (const p of pages) await p.keyboard.press('Escape')
  await pages[0].waitForTimeout(isAway ? comesBackMs : settlesMs)
  for (const p of pages) asked += await choose(p)
  const fresh = await open()
  await fresh.waitForTimeout(settlesMs)
  const truth = await shown(fresh)
  for (const [who, p] of pages.entries()) {
    // What is turned and not done yet is a draft of its own page.
    const isTurning = (await p.getByRole('button', { name: /^Done, it is on/ }).count()) > 0
    const says = await shown(p)
    for (const part of ['day', 'bike', 'next'] as const)
      if (says[part] !== truth[part] && !(isTurning && part !== 'day'))
        tell(
          `round ${round}, page ${'AB'[who]}, ${part}, after ${trail.join(' > ')}\n    shows ${says[part]}\n    is    ${truth[part]}`,
        )
  }
  await fresh.context().close()
}
await browser.close()
await server.stop()
console.log(
  `${rounds} rounds, seed ${seed}: ${done} taps, asked ${asked} times which of two holds, ${faults} faults`,
)
process.exit(faults > 0 ? 1 : 0)
