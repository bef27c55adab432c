import type { Page } from '@playwright/test'
import { fillDemo, startProcess } from '../../e2e/server.ts'
import { builtBrowser } from '../builtBrowser.ts'
import { arenas } from './arenas.ts'
import { choice, lots, option } from './lots.ts'

/**
 * Two people on one day or in one tent, one of them often out of reach; both tap as they come. Back in reach, what was changed
 * twice is chosen about where the page asks. Then each page has to show what a page shows that is opened afresh.
 * `npm run two-hands -- --rounds 8 --seed 1 --at tent`
 */
const seed = option('seed', 1)
const rounds = option('rounds', 8)
const draw = lots(seed)
const at = choice('at', ['day', 'tent'])
const arena = arenas(draw)[at]
const patienceMs = 900
/** Letters go, answers come, the day is judged anew. */
const settlesMs = 3000
/** Back in reach is found at the next try, which may be half a minute off. */
const comesBackMs = 40_000
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
  await arrive(page)
  return page
}

async function arrive(page: Page): Promise<void> {
  await page.goto(server.base + arena.address)
  await page.locator(arena.ready).first().waitFor()
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
    const act = draw.one(Object.keys(arena.acts))
    // What is not on the screen at this moment nobody taps.
    const isDone = await arena.acts[act](pages[who]).then(
      () => true,
      () => false,
    )
    if (isDone) done++
    trail.push(`${'AB'[who]} ${act}${isDone ? '' : ' (not there)'}`)
    if (draw.next() < 0.5) await pages[0].waitForTimeout(draw.below(400))
  }
  await pages[0].context().setOffline(false)
  for (const p of pages) await p.keyboard.press('Escape')
  for (const p of pages) {
    const waits = p.getByText(/(entry waits|entries wait) on this device/)
    await waits.first().waitFor({ state: 'hidden', timeout: comesBackMs })
  }
  await pages[0].waitForTimeout(settlesMs)
  for (const p of pages) {
    asked += await choose(p)
    // Where both are looked at may be another screen.
    if (!p.url().includes(arena.address)) await arrive(p)
  }
  const fresh = await open()
  await fresh.waitForTimeout(settlesMs)
  const truth = await arena.shown(fresh)
  for (const [who, p] of pages.entries()) {
    const own = await arena.ofItsOwn(p)
    const says = await arena.shown(p)
    for (const part of Object.keys(truth))
      if (says[part] !== truth[part] && !own.includes(part))
        tell(
          `round ${round}, page ${'AB'[who]}, ${part}, after ${trail.join(' > ')}\n    shows ${says[part]}\n    is    ${truth[part]}`,
        )
  }
  await fresh.context().close()
}
await browser.close()
await server.stop()
console.log(
  `${rounds} rounds, seed ${seed}, ${at}: ${done} taps, asked ${asked} times which of two holds, ${faults} faults`,
)
process.exit(faults > 0 ? 1 : 0)
