import { spawnSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { LibsqlServer, libsqlProgram } from '../server/test/libsqlServer.ts'
import { makeRider } from '../server/test/story.ts'
import { startProcess } from './server.ts'

const folder = () => mkdtempSync(join(tmpdir(), 'wild-spring-libsql-'))

test('a libSQL server keeps the data: whoever runs Wild Spring on another machine goes on with them; two at once are refused', async ({
  page,
}) => {
  test.skip(libsqlProgram() === null, 'no package carries a libSQL server for this machine')
  const libsql = await LibsqlServer.start(folder())
  const env = { WILD_SPRING_LIBSQL_URL: libsql.url }
  try {
    const first = await startProcess(folder(), { env })
    const rider = makeRider({ name: 'Far Away' })
    const saved = await fetch(`${first.base}/api/v1/riders/${rider.id}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(rider),
    })
    expect(saved.status).toBe(200)
    const second = spawnSync(process.execPath, ['dist/server/index.js'], {
      env: { ...process.env, ...env, WILD_SPRING_DATA: folder(), WILD_SPRING_PORT: '0' },
      encoding: 'utf8',
      timeout: 30_000,
    })
    expect(second.status).not.toBe(0)
    expect(second.stderr).toMatch(/Another Wild Spring keeps its data at this libSQL server/)
    await first.stop()

    const next = await startProcess(folder(), { env })
    await expect.poll(() => next.said()).toContain(`The data are kept by the libSQL server at ${libsql.url}`)
    await page.goto(`${next.base}/garage`)
    await expect(page.getByText('Far Away').first()).toBeVisible()
    await page.goto(`${next.base}/data`)
    await expect(page.getByText(`The data are kept by the libSQL server at ${libsql.url}`)).toBeVisible()
    await page.getByRole('button', { name: 'Make one now' }).click()
    await expect(page.getByText(/A safe copy of .* is made, opened and checked/)).toBeVisible()
    // What is done to the file as a whole is not offered here.
    await expect(page.getByRole('list', { name: 'Safe copies' }).getByRole('listitem').first()).toBeVisible()
    await expect(page.getByRole('button', { name: /^Put the copy of/ })).toHaveCount(0)
    await next.stop()
  } finally {
    await libsql.kill()
  }
})
