import { expect, test, type Page } from '@playwright/test'
import { idOf } from '../demo/ids.ts'
import { inDemo, proposed } from './screens.ts'
import { startDemo, type RunningServer } from './server.ts'

let server: RunningServer
test.beforeEach(async () => void (server = await startDemo()))
test.afterEach(async () => server?.stop())

const riders = async (page: Page) =>
  ((await (await page.request.get(`${server.base}/api/v1/garage`)).json()) as { riders: Rider[] }).riders
interface Rider {
  id: string
  name: string
  bodyMassKg: number
  kitMassKg: number | null
}
const joren = async (page: Page) => (await riders(page)).find((r) => r.name === 'Joren')!

/** Body weight typed while the server is out of reach, and the form closed over it. */
async function typedAway(page: Page, kg: string) {
  await page.goto(`${server.base}/garage`)
  await page.getByRole('button', { name: /^Joren/ }).click()
  await page.getByRole('button', { name: 'Edit Joren' }).click()
  await page.context().setOffline(true)
  const form = page.getByRole('dialog')
  await form.getByLabel('Body weight').fill(kg)
  await form.getByRole('button', { name: 'Save rider' }).click()
  await expect(form).toHaveCount(0)
  await expect(page.getByText(/1 entry waits/)).toBeVisible()
}

for (const reloaded of [false, true])
  test(`a form saved out of reach and overtaken meanwhile is put to the person${reloaded ? ', also after a reload' : ''}`, async ({
    page,
  }) => {
    await typedAway(page, '91')
    const held = await joren(page)
    const elsewhere = { ...held, bodyMassKg: 77, kitMassKg: 6 }
    expect(
      (await page.request.put(`${server.base}/api/v1/riders/${held.id}`, { data: elsewhere })).ok(),
    ).toBe(true)
    await page.context().setOffline(false)
    const line = page.getByRole('alert').filter({ hasText: 'changed elsewhere' })
    await expect(line).toContainText('a rider (Joren) was changed elsewhere before it arrived')
    await expect(line).toContainText('body mass: yours 91 kg, theirs 77 kg')
    // Nobody typed the kit here: theirs is the only word on it.
    await expect(line).not.toContainText('kit')
    if (reloaded) {
      await page.goto(`${server.base}/handbook`)
      await expect(line).toContainText('body mass: yours 91 kg, theirs 77 kg')
    }
    // Nobody has chosen: nothing is laid over theirs.
    expect(await joren(page)).toMatchObject({ bodyMassKg: 77 })
    await line.getByRole('button', { name: reloaded ? 'Use theirs' : 'Use mine' }).click()
    await expect(line).toHaveCount(0)
    await expect.poll(() => joren(page)).toMatchObject({ bodyMassKg: reloaded ? 77 : 91, kitMassKg: 6 })
    await page.reload()
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await expect(line).toHaveCount(0)
  })

test('a feel that was changed elsewhere is told of on every screen, and leads to where both are', async ({
  page,
}) => {
  // The page hears of nothing while the other device saves.
  await page.route('**/api/v1/events', (route) => route.abort())
  await page.goto(server.base + inDemo.day.address)
  await proposed(page)
  const runId = idOf('half-way run 4')
  await page.getByRole('button', { name: /^Run 4,/ }).click()
  await expect(page.getByRole('heading', { name: 'Run 4, how it felt' })).toBeVisible()
  const { feels } = (await (
    await page.request.get(`${server.base}/api/v1/days/${idOf('day half-way')}`)
  ).json()) as { feels: { runId: string }[] }
  const held = feels.find((f) => f.runId === runId)!
  await page.request.put(`${server.base}/api/v1/runs/${runId}/feel`, {
    data: { ...held, note: 'from there' },
  })
  await page.getByLabel('Note on this run').fill('mine')
  const both = page.getByText('note: “mine” here, “from there” there')
  await expect(both).toBeVisible()
  const line = page.getByRole('alert').filter({ hasText: 'before it arrived' })
  // The screen shows both itself.
  await expect(line).toHaveCount(0)
  await page.getByRole('button', { name: /^Run 2,/ }).click()
  await expect(both).toHaveCount(0)
  await expect(line).toContainText('how a run felt')
  await page.getByRole('navigation', { name: 'Screens' }).getByRole('link', { name: 'Garage' }).click()
  await expect(page).toHaveURL(/\/garage/)
  await line.getByRole('link', { name: 'Look at both' }).click()
  await expect(page.getByRole('heading', { name: 'Run 4, how it felt' })).toBeVisible()
  await expect(both).toBeVisible()
  await page.getByRole('button', { name: 'Use theirs' }).click()
  await expect(both).toHaveCount(0)
  await expect(line).toHaveCount(0)
  await expect(page.getByLabel('Note on this run')).toHaveValue('from there')
})

test('a reading that did not arrive while the stream held is repeated, and what was removed goes', async ({
  page,
}) => {
  await page.goto(server.base + inDemo.day.address)
  await proposed(page)
  const run = page.getByRole('button', { name: /^Run 5,/ })
  await expect(run).toBeVisible()
  await page.route('**/api/v1/days/*', (route) => route.abort())
  await page.request.delete(`${server.base}/api/v1/runs/${idOf('half-way run 5')}`)
  await expect(page.getByText('The server cannot be reached since')).toBeVisible()
  // Well before it would be asked for by itself.
  const asked = page.waitForRequest('**/api/v1/days/*', { timeout: 3000 })
  await page.getByRole('button', { name: 'Try now' }).click()
  await asked
  await page.unroute('**/api/v1/days/*')
  await expect(page.getByText('The server cannot be reached since')).toBeHidden()
  await expect(run).toBeHidden()
})
