import { expect, test, type Browser, type Page, type Route } from '@playwright/test'
import { mkdtempSync, cpSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { idOf } from '../demo/ids.ts'
import { startServer, type RunningServer } from './server.ts'

let server: RunningServer
/** A server that others could reach, on the demo world. */
async function startBeyond(words: readonly string[] = [], dataDir = copy()): Promise<RunningServer> {
  return startServer(dataDir, { env: { WILD_SPRING_HOST: '0.0.0.0' }, words })
}
function copy() {
  const dir = mkdtempSync(join(tmpdir(), 'wild-spring-e2e-'))
  cpSync(process.env.WILD_SPRING_DEMO_WORLD!, dir, { recursive: true })
  return dir
}
test.beforeEach(async () => void (server = await startBeyond()))
test.afterEach(async () => server?.stop())

const passphrase = 'heather quarry lantern nine'
async function lock(page: Page): Promise<string> {
  await page.goto(server.base)
  await expect(page.getByRole('heading', { name: 'Lock this door first' })).toBeVisible()
  await expect.poll(() => server.said()).toContain('the code is ')
  await page
    .getByLabel('Code from where the server was started')
    .fill(/code is (\S+)/.exec(server.said())![1])
  await page.getByLabel('New passphrase').fill(passphrase)
  await page.getByLabel('This device').fill('Van laptop')
  await page.getByRole('button', { name: 'Lock it and go in' }).click()
  const code = (await page.getByLabel('Recovery code', { exact: true }).innerText()).trim()
  await expect(page.getByRole('button', { name: 'Go on' })).toBeDisabled()
  await page.getByLabel('I have it on paper').check()
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(page.getByText('Next: Rear: when does it kick?')).toBeVisible()
  return code
}
const other = async (browser: Browser) => (await browser.newContext()).newPage()

test('nothing of the house is seen before the owner is in; what was typed waits and goes out after', async ({
  page,
  browser,
}) => {
  await lock(page)
  const second = await other(browser)
  await second.goto(`${server.base}/garage`)
  await expect(second.getByRole('heading', { name: 'This door is locked' })).toBeVisible()
  await expect(second.getByText('Joren')).toHaveCount(0)
  await second.getByLabel('Passphrase').fill('wrong words')
  await second.getByRole('button', { name: 'Go in' }).click()
  await expect(second.getByText('That is not the passphrase.')).toBeVisible()
  await second.getByLabel('Passphrase').fill(passphrase)
  await second.getByRole('button', { name: 'Go in' }).click()
  await expect(second.getByText('55 mm air shock').first()).toBeVisible()

  // Signed out from the other device before it could hear of that: what it sends is kept, and sent once the owner is in again.
  await second.route('**/api/v1/events', (route) => route.abort())
  await second.goto(`${server.base}/tent/${idOf('tent practice')}?rider=3`)
  // All of it has been read: what is asked of the server next is the key.
  await second.getByText('Settled. Leave it alone.').waitFor()
  // Nothing it reads by itself may tell it before the key does.
  const reads = (route: Route) =>
    route.request().method() === 'GET' && !route.request().url().endsWith('/access')
      ? route.abort()
      : route.fallback()
  await second.route('**/api/v1/**', reads)
  await page.goto(`${server.base}/access`)
  await page.getByRole('button', { name: /^Sign (Laptop|Phone) out$/ }).click()
  await expect(page.getByRole('button', { name: /^Sign (Laptop|Phone) out$/ })).toBeHidden()
  await second.keyboard.press('z')
  await expect(second.getByRole('heading', { name: 'This door is locked' })).toBeVisible()
  await second.unroute('**/api/v1/**', reads)
  await second.getByLabel('Passphrase').fill(passphrase)
  await second.getByRole('button', { name: 'Go in' }).click()
  const nuri = second.getByRole('listitem').filter({ has: second.getByRole('button', { name: /^Nuri/ }) })
  await expect(nuri.getByText(/resting since/)).toBeVisible()
})

test('a coach and a wall come in by a link, once, and the wall looks at its tent only', async ({
  page,
  browser,
}) => {
  await lock(page)
  await page.goto(`${server.base}/access`)
  await page.getByRole('button', { name: /^A wall/ }).click()
  await page.getByLabel('For whom').fill('Tablet on the pole')
  await page.getByRole('button', { name: 'Make a link' }).click()
  const link = server.base + new URL(await page.locator('.address').innerText()).pathname
  const wall = await other(browser)
  await wall.goto(link)
  await wall.getByRole('button', { name: 'Come in' }).click()
  await expect(wall.getByText('Who needs me next')).toBeVisible()
  await expect(wall.getByText('Settled. Leave it alone.')).toBeVisible()
  await expect(wall.getByText('After the run: fork lsc firmer 1')).toHaveCount(0)
  await expect(wall.getByRole('navigation', { name: 'Screens' })).toHaveCount(0)
  // Whatever is typed leads back to its tent.
  await wall.goto(`${server.base}/garage`)
  await expect(wall.getByText('Who needs me next')).toBeVisible()
  await expect(wall.getByText('Joren')).toHaveCount(0)
  // A change in the tent is on the wall without a touch.
  await page.goto(`${server.base}/tent/${idOf('tent practice')}?rider=1`)
  await page.getByText('Who needs me next').waitFor()
  await page.keyboard.press('z')
  await expect(
    wall
      .getByRole('listitem')
      .filter({ hasText: 'Mika' })
      .getByText(/resting since/),
  ).toBeVisible()
  const again = await other(browser)
  await again.goto(link)
  await again.getByRole('button', { name: 'Come in' }).click()
  await expect(again.getByText(/^This way in was used or has ended/)).toBeVisible()
})

test('the recovery code opens the door, and whoever has the machine can take the lock off', async ({
  page,
  browser,
}) => {
  const code = await lock(page)
  const second = await other(browser)
  await second.goto(server.base)
  await second.getByRole('button', { name: 'The passphrase is lost' }).click()
  await second.getByLabel('Recovery code', { exact: true }).fill(code.toLowerCase())
  await second.getByLabel('New passphrase').fill('other four words here')
  await second.getByRole('button', { name: 'Set it and go in' }).click()
  // The code that stands there now is another.
  await expect(second.getByLabel('I have it on paper')).toBeVisible()
  await expect(second.getByLabel('Recovery code', { exact: true })).not.toHaveText(code)
  // The page that was signed out by that asks for nothing, and shuts all the same.
  await expect(page.getByRole('heading', { name: 'This door is locked' })).toBeVisible()
  const { dataDir } = server
  await server.stop()
  server = await startBeyond(['--take-off-the-lock'], dataDir)
  const third = await other(browser)
  await third.goto(server.base)
  await expect(third.getByRole('heading', { name: 'Lock this door first' })).toBeVisible()
})

test('with a certificate it speaks TLS only, and its cookie goes nowhere else', async ({ browser }) => {
  await server.stop()
  const file = (name: string) => join(import.meta.dirname, 'fixtures', name)
  server = await startServer(server.dataDir, {
    env: {
      WILD_SPRING_HOST: '0.0.0.0',
      WILD_SPRING_TLS_CERT: file('tls-cert.pem'),
      WILD_SPRING_TLS_KEY: file('tls-key.pem'),
    },
  })
  expect(server.base).toMatch(/^https:/)
  const context = await browser.newContext({ ignoreHTTPSErrors: true })
  const page = await context.newPage()
  await lock(page)
  const [cookie] = await context.cookies()
  expect(cookie).toMatchObject({
    name: '__Host-wild-spring',
    httpOnly: true,
    secure: true,
    sameSite: 'Strict',
  })
  const answer = await page.request.get(server.base)
  expect(answer.headers()['strict-transport-security']).toContain('max-age=')
  await expect(fetch(server.base.replace('https', 'http'))).rejects.toThrow()
  await context.close()
})
