import type { Locator, Page } from '@playwright/test'
import { inDemo } from '../../e2e/screens.ts'
import { fillDemo, startProcess } from '../../e2e/server.ts'
import { builtBrowser } from '../builtBrowser.ts'
import { lots, option } from './lots.ts'

/**
 * Somebody who taps and types whatever is on the screen, and goes anywhere. No step may break the page, meet a fault of the
 * server, show a number that is none, run off the side, or leave a screen without a heading.
 * `npm run wander -- --steps 250 --seed 1 --phone 1`
 */
const seed = option('seed', 1)
const steps = option('steps', 250)
const isPhone = option('phone', 0) > 0
const draw = lots(seed)
const typed = [
  '5',
  '12,5',
  '-3',
  '1e9',
  'abc',
  'rear rebound 2 slower',
  '  ',
  '<b>x</b>',
  '漢字',
  '9'.repeat(40),
]
const keys = ['Escape', 'Enter', 'ArrowDown', 'Tab', 'c', 'r', 'f', 'j', 'k', 'x', '?', '/']
const whatIsHit =
  'button:visible, a:visible, input:visible, select:visible, textarea:visible, summary:visible, [role=slider]:visible'
const patienceMs = 1500
/** A screen that is only just on its way may be bare for so long. */
const settlesMs = 1200

const server = await startProcess()
await fillDemo(server.base)
const browser = await builtBrowser()
if (!browser)
  throw new Error('No browser at hand, or no built page: npm run build, and Chromium in CHROMIUM.')
const context = await browser.newContext({
  viewport: isPhone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
  hasTouch: isPhone,
  serviceWorkers: 'block',
})
const page = await context.newPage()

const trail: string[] = []
const found = new Set<string>()
function tell(fault: string): void {
  const at = page.url().replace(server.base, '')
  if (found.has(`${fault} ${at}`)) return
  found.add(`${fault} ${at}`)
  console.log(`${fault}\n    at ${at}, after ${trail.slice(-4).join(' > ')}`)
}
page.on('pageerror', (e) => tell(`broke: ${e.message}`))
page.on('console', (m) => {
  if (['warning', 'error'].includes(m.type()) && !/status of 4|Service Worker/.test(m.text()))
    tell(`said: ${m.text()}`)
})
page.on('response', (r) => {
  if (r.status() >= 500) tell(`a fault of the server: ${r.status()} ${r.url().replace(server.base, '')}`)
})
page.on('dialog', (d) => void d.dismiss())

async function faultsOn(p: Page): Promise<string[]> {
  const text = await p.locator('body').innerText()
  const none = /.{0,30}(\bundefined\b|\bNaN\b|\[object|\bInfinity\b|\bnull\b|went wrong).{0,30}/.exec(text)
  const wide = await p.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
  const headings = await p.locator('h1:visible').count()
  return [
    none ? `shows “${none[0]}”` : '',
    wide > 1 ? `runs off the side by ${wide} px` : '',
    headings === 1 ? '' : `${headings} headings of the first level`,
  ].filter(Boolean)
}

async function hit(x: Locator): Promise<void> {
  const tag = await x.evaluate((e) => e.tagName, null, { timeout: patienceMs })
  const type = (await x.getAttribute('type')) ?? ''
  const name = (await x.getAttribute('aria-label')) ?? (await x.innerText({ timeout: patienceMs }))
  trail.push(`${tag.toLowerCase()} ${name.slice(0, 30).replaceAll('\n', ' ')}`)
  if (tag === 'SELECT') {
    const index = draw.below(await x.locator('option').count())
    return void (await x.selectOption({ index }, { timeout: patienceMs }))
  }
  const takesText =
    tag === 'TEXTAREA' || (tag === 'INPUT' && ['', 'text', 'number', 'search', 'tel'].includes(type))
  if (!takesText) return type === 'file' ? undefined : x.click({ timeout: patienceMs })
  const words = draw.one(typed)
  trail.push(`“${words.slice(0, 12)}”`)
  await x.fill(words, { timeout: patienceMs }).catch(() => page.keyboard.type(words))
  if (draw.next() < 0.5) await page.keyboard.press(draw.one(['Enter', 'Tab', 'Escape']))
}

async function goAnywhere(): Promise<void> {
  const { address } = draw.one(Object.values(inDemo))
  trail.push(`to ${address}`)
  await page.goto(server.base + address)
}

await goAnywhere()
for (let n = 0; n < steps; n++) {
  try {
    if (draw.next() < 0.06) await goAnywhere()
    else if (draw.next() < 0.03) await page.reload()
    else if (draw.next() < 0.06) {
      const key = draw.one(keys)
      trail.push(`key ${key}`)
      await page.keyboard.press(key)
    } else {
      const all = await page.locator(whatIsHit).all()
      if (all.length === 0) await goAnywhere()
      else await hit(draw.one(all))
    }
  } catch (e) {
    // What was drawn has gone meanwhile, or lies under something: nobody could have hit it.
    trail.push(`(${String(e).split('\n')[0].slice(0, 40)})`)
  }
  await page.waitForTimeout(120 + draw.below(250))
  if ((await faultsOn(page)).length > 0) {
    await page.waitForTimeout(settlesMs)
    for (const fault of await faultsOn(page)) tell(fault)
  }
}
await browser.close()
await server.stop()
console.log(`${steps} steps, seed ${seed}${isPhone ? ', phone' : ''}: ${found.size} faults`)
process.exit(found.size > 0 ? 1 : 0)
