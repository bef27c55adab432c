import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { makeRider } from '../server/test/story.ts'
import { startProcess, type ServerProcess } from './server.ts'

const folder = () => mkdtempSync(join(tmpdir(), 'wild-spring-follow-'))
const restored = (copy: string, dataDir: string) =>
  spawnSync(process.execPath, ['dist/server/restore.js', copy], {
    env: { ...process.env, WILD_SPRING_DATA: dataDir },
    encoding: 'utf8',
    timeout: 60_000,
  })
const names = async (server: ServerProcess) => {
  const garage = (await (await fetch(`${server.base}/api/v1/garage`)).json()) as {
    riders: { name: string }[]
  }
  return garage.riders.map((r) => r.name).sort()
}
const add = async (server: ServerProcess, name: string) => {
  const rider = makeRider({ name })
  const r = await fetch(`${server.base}/api/v1/riders/${rider.id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(rider),
  })
  expect(r.status).toBe(200)
  return rider
}

test('a copy on another disk follows every save, past a forgotten rider and a killed server, and comes back', async ({
  page,
}) => {
  const [dataDir, copyDir] = [folder(), folder()]
  const start = () => startProcess(dataDir, { env: { WILD_SPRING_FOLLOW: copyDir } })
  let server = await start()
  await add(server, 'Stays Here')
  const gone = await add(server, 'Gone Tomorrow')
  await page.goto(`${server.base}/data`)
  await expect(page.getByText(/a copy follows every save/)).toContainText(copyDir)
  await expect(async () => {
    await page.reload()
    await expect(page.getByText(/put together again and checked \S/)).toBeVisible({ timeout: 2000 })
  }).toPass({ timeout: 60_000 })

  await test.step('who is forgotten is in no past of it, when copies go too', async () => {
    await page.getByLabel('Who', { exact: true }).selectOption({ label: 'Gone Tomorrow' })
    // The one that follows is a copy, too.
    await expect(page.getByRole('checkbox', { name: /^Remove 1 copy of before/ })).toBeChecked()
    await page.getByLabel('Type Gone Tomorrow to go on').fill('Gone Tomorrow')
    await page.getByRole('button', { name: 'Erase for good' }).click()
    await expect(page.getByText('Gone Tomorrow is erased, with all that was theirs.')).toBeVisible()
    const begun = join(copyDir, 'generations')
    await expect.poll(() => (existsSync(begun) ? readdirSync(begun).length : 0)).toBe(1)
    expect((await fetch(`${server.base}/api/v1/riders/${gone.id}/erasure`)).status).toBe(404)
  })
  await test.step('a server that is killed leaves nobody behind who writes into it', async () => {
    await server.stop('SIGKILL')
    server = await start()
    await add(server, 'Came After')
  })
  await test.step('what was confirmed is there when both are gone', async () => {
    await server.stop()
    writeFileSync(join(dataDir, 'wild-spring.sqlite'), 'wrecked')
    const fresh = folder()
    const { status, stdout, stderr } = restored(copyDir, fresh)
    expect(stderr).toBe('')
    expect(status).toBe(0)
    expect(stdout).toContain('is in place')
    const again = await startProcess(fresh)
    expect(await names(again)).toEqual(['Came After', 'Stays Here'])
    await again.stop()
  })
})

test('a folder that holds no copy, or one that was spoilt, is refused and leaves the data as it was', async () => {
  const [dataDir, copyDir] = [folder(), folder()]
  const server = await startProcess(dataDir, { env: { WILD_SPRING_FOLLOW: copyDir } })
  await add(server, 'Stays Here')
  await expect.poll(() => existsSync(join(copyDir, 'generations'))).toBe(true)
  await server.stop()
  const nothing = restored(folder(), dataDir)
  expect(nothing.status).toBe(1)
  expect(nothing.stderr).toMatch(/^There is no copy in /)
  for (const entry of readdirSync(copyDir, { recursive: true, withFileTypes: true }))
    if (entry.isFile() && entry.name.endsWith('.lz4'))
      writeFileSync(join(entry.parentPath, entry.name), 'spoilt')
  const { status, stderr } = restored(copyDir, dataDir)
  expect(status).toBe(1)
  expect(stderr).toContain('cannot be put together')
  const after = await startProcess(dataDir)
  expect(await names(after)).toEqual(['Stays Here'])
  await after.stop()
})

test('a program that is not there is said before anything begins', async () => {
  const env = { WILD_SPRING_FOLLOW: folder(), WILD_SPRING_LITESTREAM: '/nowhere/litestream' }
  const { status, stderr } = spawnSync(process.execPath, ['dist/server/index.js'], {
    env: { ...process.env, WILD_SPRING_DATA: folder(), WILD_SPRING_PORT: '0', ...env },
    encoding: 'utf8',
    timeout: 30_000,
  })
  expect(status).toBe(1)
  expect(stderr).toContain('There is no program /nowhere/litestream')
})
