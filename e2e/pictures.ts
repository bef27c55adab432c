import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chromium, type Page } from '@playwright/test'
import type { GivenPadLink } from '../contract/pad.ts'
import { idOf } from '../demo/ids.ts'
import { drawPdf } from './pdfPicture.ts'
import { handFile } from './handFile.ts'
import { inDemo, proposed } from './screens.ts'
import { atNoon } from './noon.ts'
import { fillDemo, startLoggers, startProcess } from './server.ts'

atNoon()
const folder = join(import.meta.dirname, '..', 'docs', 'screenshots')
const loggers = await startLoggers()
const server = await startProcess(undefined, { loggers: loggers.addresses })
await fillDemo(server.base)
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--disable-background-networking'],
})
const day = `/days/${idOf('day half-way')}`

async function picture(name: string, path: string, act?: (page: Page) => Promise<unknown>): Promise<void> {
  const png = await seen(path, act, { width: 1280, height: 800 })
  writeFileSync(join(folder, `${name}.png`), png)
}
async function seen(
  path: string,
  act: (page: Page) => Promise<unknown> = async () => {},
  viewport: { width: number; height: number },
): Promise<Buffer> {
  const page = await browser.newPage({ viewport, hasTouch: viewport.width < 500, reducedMotion: 'reduce' })
  await page.goto(server.base + path)
  await page.getByRole('heading').first().waitFor()
  await act(page)
  await page.evaluate(() => document.fonts.ready)
  const png = await page.screenshot({ animations: 'disabled' })
  await page.close()
  return png
}
/** Views of a phone, side by side in one picture. */
async function phones(name: string, views: [path: string, act: (page: Page) => Promise<unknown>][]) {
  const size = { width: 390, height: 844 }
  const gap = 16
  const shots: Buffer[] = []
  for (const [path, act] of views) shots.push(await seen(path, act, size))
  const page = await browser.newPage({
    viewport: { width: views.length * (size.width + gap) - gap, height: size.height },
  })
  const images = shots.map((s) => `<img src="data:image/png;base64,${s.toString('base64')}">`).join('')
  await page.setContent(`<body style="margin:0;display:flex;gap:${gap}px;background:#4a4f4b">${images}`)
  await page.screenshot({ path: join(folder, `${name}.png`) })
  await page.close()
}
const panel = (name: string) => async (page: Page) => {
  await proposed(page)
  await page.getByRole('navigation', { name: 'Parts of the day' }).getByRole('button', { name }).tap()
}

// A picture that cannot be taken must not leave browser and server behind.
try {
  // Under twenty pictures: what is only a form or one line has none.
  const { logger: _connected, lost: _empty, access: _form, enter: _line, practice: _list, ...plain } = inDemo
  for (const [name, { address, ready }] of Object.entries(plain)) await picture(name, address, ready)
  await picture('setups', inDemo.setups.address, async (p) => {
    await p.getByRole('button', { name: /^Wet roots, October/ }).click()
    await p.getByText('5 dials differ').waitFor()
  })
  const card = await fetch(`${server.base}/api/v1/bikes/${idOf('tarek bike')}/card.pdf?paper=A6`)
  writeFileSync(join(folder, 'card.png'), (await drawPdf(await card.arrayBuffer(), 180))[0].png())
  await picture('day-mess', `/days/${idOf('day mess')}`, (p) =>
    p.getByRole('heading', { name: /one thing at a time/ }).waitFor(),
  )
  // In dusk colours, for there is a picture of each view by day.
  await picture('practice', '/practice/kicks/1', async (p) => {
    await p.getByRole('button', { name: 'Dusk colours' }).click()
    const ride = async (n: number) => {
      await p.getByRole('button', { name: `Ride run ${n}` }).click()
      await p.getByRole('heading', { name: `Run ${n}, the rider says` }).waitFor()
    }
    const turn = async (rail: RegExp, key: string, times: number) => {
      for (let i = 0; i < times; i++) await p.getByRole('slider', { name: rail }).press(key)
      await p.getByRole('slider', { name: rail }).press('Enter')
    }
    await ride(1)
    await turn(/^rear Rebound/, 'ArrowLeft', 2)
    await ride(2)
    await turn(/^rear Rebound/, 'ArrowRight', 2)
    await turn(/^rear Pressure/, 'ArrowRight', 8)
    await ride(3)
    await turn(/^rear Pressure/, 'ArrowRight', 6)
    await ride(4)
    await ride(5)
    await p.getByRole('button', { name: /We’re happy/ }).click()
    await p.getByText(/the adviser [\d.]+, one thing/).waitFor({ timeout: 60_000 })
  })
  await picture('import', day, async (p) => {
    await proposed(p)
    await p.getByRole('button', { name: /^Run 1,/ }).click()
    await p.getByRole('button', { name: 'Add a sensor file' }).click()
    await p
      .locator('input[type=file]')
      .setInputFiles({ name: 'ride 7.txt', mimeType: 'text/plain', buffer: handFile({ sinking: 1 }) })
    await p.getByText('min at 200 Hz').waitFor()
  })
  await picture('logger', `${day}/logger`, async (p) => {
    for (const box of await p.getByRole('checkbox').all()) await box.check()
    await p.getByRole('button', { name: 'Connect' }).first().click()
    await p.getByText('live', { exact: true }).waitFor()
    await p.getByRole('button', { name: 'That is done' }).first().click()
    await p
      .getByRole('listitem')
      .filter({ hasText: 'Hold it fully extended, empty' })
      .getByRole('button', { name: /Hold now/ })
      .click()
    await p.getByText(/^Held: front/).waitFor()
    await p.getByRole('checkbox', { name: 'flat battery' }).check()
    await p.getByRole('alert').first().waitFor()
  })
  await picture('trail', '/garage?part=trails', async (p) => {
    await p.getByRole('button', { name: 'New trail' }).click()
    for (const kind of ['berms', 'roots', 'jump', 'square edges'])
      await p.getByRole('dialog').getByRole('button', { name: kind, exact: true }).click()
    await p.getByLabel('Section 2, severity').fill('1.6')
  })
  const bench = `/bench/${idOf('joren bike')}`
  const again = (p: Page) => p.getByText('Check this again').waitFor()
  await fetch(`${server.base}/api/v1/data/copy`, { method: 'PUT' })
  await picture('data', '/data', async (p) => {
    await p.getByRole('button', { name: /^Put the copy of/ }).waitFor()
    // The folder is of this picture alone.
    await p.locator('code').evaluateAll((all, folder) => {
      for (const x of all) x.textContent = x.textContent!.replace(folder, 'data')
    }, server.dataDir)
  })
  const link = await fetch(`${server.base}/api/v1/tent-riders/${idOf('day tent mika')}/pad`, {
    method: 'PUT',
    body: '{}',
    headers: { 'content-type': 'application/json' },
  })
  const pad = `/pad/${((await link.json()) as GivenPadLink).token}`
  const press = (...names: string[]) =>
    async function (p: Page) {
      for (const name of names) await p.getByRole('button', { name, exact: true }).click()
    }
  const where = ['Worse', 'Next', 'Front', 'Braking bumps'] as const
  await phones('pad', [
    [pad, press('Worse', 'Worse')],
    [pad, press(...where)],
    [pad, press(...where, 'Next', 'dives', 'kicks', 'kicks')],
    [pad, press('Next', 'Next', 'dives', 'Send')],
  ])
  await phones('phone', [
    [`${bench}?step=sag-rear`, again],
    [day, proposed],
    [day, panel('Feel')],
    [day, panel('Bike')],
  ])
} finally {
  await browser.close()
  await server.stop()
  loggers.stop()
}
