import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { v7 as uuid } from 'uuid'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { Access, AccessBook, GivenPass } from '#contract/access'
import { DayBundle, endpoints } from '#contract/endpoints'
import { TentBundle } from '#contract/tent'
import { asPrinted, personCode } from '../access/codes.ts'
import { addressesOf, doorFrom, isOwnOrigin, meansUs } from '../access/door.ts'
import { Limiter } from '../access/limiter.ts'
import { mayAsk } from '../access/rules.ts'
import { startApp, type TestApp } from './harness.ts'
import { startStory } from './story.ts'

const setupCode = 'ABCDE-12345-FGHJK'
const passphrase = 'heather quarry lantern nine'
const host = '192.168.7.5:4870'
const beyond = () => doorFrom('0.0.0.0', '', false)

let t: TestApp
afterEach(() => t.store.close())

/** A browser on the tent's network: says where it is from, and keeps what it is given. */
function browser(app: TestApp, own = `http://${host}`) {
  let cookie = ''
  const ask = async (method: string, path: string, body?: unknown, headers: Record<string, string> = {}) => {
    const answer = await app.send(method, path, body, {
      host: new URL(own).host,
      ...(method === 'GET' ? {} : { origin: own }),
      ...(cookie ? { cookie } : {}),
      ...headers,
    })
    const given = answer.headers.get('set-cookie')
    if (given) cookie = given.split(';')[0]
    return { ...answer, given }
  }
  return {
    ask,
    get: (path: string) => ask('GET', path),
    put: (path: string, body: unknown) => ask('PUT', path, body),
    cookie: () => cookie,
    signIn: (words = passphrase) => ask('PUT', '/access/session', { passphrase: words, device: 'Laptop' }),
    access: async () => Access.parse((await ask('GET', '/access')).body),
  }
}
type Browser = ReturnType<typeof browser>

async function locked(door = beyond()) {
  t = await startApp(undefined, [], door)
  const own = door.origin ?? `${door.encrypted ? 'https' : 'http'}://${host}`
  const owner = browser(t, own)
  const first = await owner.put('/access/lock', { setupCode, passphrase, device: 'Van laptop' })
  expect(first.status).toBe(200)
  const { recoveryCode } = endpoints.setLock.reply.parse(first.body)
  return { owner, recoveryCode, own, first }
}
const code = (answer: { body: unknown }) => (answer.body as { code: string }).code

describe('on this machine alone', () => {
  it('nothing is asked, and whoever sits there is the owner', async () => {
    t = await startApp()
    expect((await t.get('/garage')).status).toBe(200)
    expect((await t.get('/access')).body).toEqual({
      door: 'open',
      role: 'owner',
      tentId: null,
      encrypted: false,
      addresses: [],
    })
  })
  it('a proxy in front of it is refused: it would let everybody in', async () => {
    t = await startApp()
    for (const header of ['x-forwarded-for', 'x-real-ip', 'forwarded', 'via'])
      expect(code(await t.send('GET', '/garage', undefined, { [header]: '10.0.0.9' }))).toBe(
        'request.wrong-origin',
      )
    expect((await t.send('GET', '/garage', undefined, { host: '192.168.7.5:4870' })).status).toBe(403)
  })
})

describe('before the owner has locked it', () => {
  beforeEach(async () => {
    t = await startApp(undefined, [], beyond())
  })
  it('nothing is read or written, and the page is told that the door has no lock', async () => {
    const b = browser(t)
    expect(await b.access()).toMatchObject({ door: 'unset', role: null, addresses: [] })
    expect(code(await b.get('/garage'))).toBe('access.unset')
    expect(code(await b.signIn())).toBe('access.unset')
  })
  it('only whoever can read the code where the server was started locks it, once', async () => {
    const b = browser(t)
    const set = (setupCode: string, words = passphrase) =>
      b.put('/access/lock', { setupCode, passphrase: words, device: 'Laptop' })
    expect(code(await set('AAAAA-AAAAA-AAAAA'))).toBe('access.wrong')
    expect(code(await set(setupCode, 'too short'))).toBe('request.invalid')
    expect((await b.access()).role).toBeNull()
    // As people type it from a terminal.
    expect((await set(' abcde12345 fghjk ')).status).toBe(200)
    expect(await b.access()).toMatchObject({ door: 'locked', role: 'owner' })
    expect(code(await set(setupCode, 'somebody else comes'))).toBe('access.denied')
  })
})

describe('a locked door', () => {
  it('lets nobody in anywhere without a sign-in, but for what has to be asked before it', async () => {
    await locked()
    const free = new Set<string>()
    const stranger = browser(t)
    for (const { method, path } of t.app.routes) {
      if (method === 'ALL' || !path.startsWith('/api/v1/')) continue
      const address = path.replace('/api/v1', '').replace(/:\w+/g, uuid())
      const answer = await stranger.ask(method, address, method === 'GET' ? undefined : {})
      if (code(answer) !== 'access.needed') free.add(`${method} ${path.replace('/api/v1', '')}`)
    }
    expect([...free].sort()).toEqual([
      'DELETE /access/session',
      'GET /access',
      'GET /health',
      'GET /pad',
      'PUT /access/enter',
      'PUT /access/lock',
      'PUT /access/recovery',
      'PUT /access/session',
      'PUT /pad/reports/:id',
      'PUT /pad/voices/:id',
    ])
  })
  it('does not mind capital letters, slashes and dots in an address', async () => {
    await locked()
    for (const path of [
      '/Garage',
      '//garage',
      '/./garage',
      '/pad/../garage',
      '/health/../garage',
      '/garage/',
    ])
      expect([401, 404]).toContain((await browser(t).get(path)).status)
  })
  it('opens by the passphrase and by no other; the cookie is out of reach of scripts and of other sites', async () => {
    const { first } = await locked()
    expect(first.given).toMatch(/^wild-spring=[\w-]{43,}; /)
    // It outlives the thirty days that a device may be away: those begin anew each time it is seen.
    for (const part of ['HttpOnly', 'SameSite=Strict', 'Path=/', 'Max-Age=34560000'])
      expect(first.given).toContain(part)
    expect(first.given).not.toContain('Secure')
    const b = browser(t)
    expect(code(await b.signIn('heather quarry lantern ten'))).toBe('access.wrong')
    expect(b.cookie()).toBe('')
    // The same letters from another keyboard.
    expect((await b.signIn(passphrase.normalize('NFD'))).status).toBe(200)
    expect((await b.get('/garage')).status).toBe(200)
    expect((await b.get('/garage')).headers.get('cache-control')).toBe('no-store')
  })
  it('over https the cookie is tied to https, and browsers are told to stay there', async () => {
    const { first, owner } = await locked(doorFrom('0.0.0.0', '', true))
    expect(first.given).toMatch(/^__Host-wild-spring=/)
    expect(first.given).toContain('Secure')
    expect((await owner.get('/garage')).headers.get('strict-transport-security')).toContain('max-age=')
    const plain = await startApp(undefined, [], beyond())
    expect((await browser(plain).get('/health')).headers.get('strict-transport-security')).toBeNull()
    await plain.store.close()
  })
  it('a write with the cookie alone, or from another site, is refused', async () => {
    const { owner } = await locked()
    const { cookie } = owner
    const trail = { id: uuid(), version: 0, name: 'T', place: '', sections: [], note: '' }
    const path = `/trails/${trail.id}`
    for (const headers of [
      {},
      { origin: 'http://evil.example' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
    ])
      expect(
        (await t.send('PUT', path, trail, { host, cookie: cookie(), ...(headers as Record<string, string>) }))
          .status,
      ).toBe(403)
    expect(
      (await t.send('PUT', path, trail, { host, cookie: cookie(), 'sec-fetch-site': 'same-origin' })).status,
    ).not.toBe(403)
  })
  it('many tries are slowed down, also when one of them is right, and written down', async () => {
    const { owner } = await locked()
    const b = browser(t)
    for (let i = 0; i < 5; i++) expect(code(await b.signIn(`guess ${i}`))).toBe('access.wrong')
    const sixth = await b.signIn()
    expect(sixth.status).toBe(429)
    expect(b.cookie()).toBe('')
    const { attempts } = AccessBook.parse((await owner.get('/access/book')).body)
    expect(attempts.map((a) => a.opened)).toEqual([false, false, false, false, false, true])
    expect(JSON.stringify(attempts)).not.toContain('guess')
    expect(t.logged.filter((l) => String(l).includes('A try at the door'))).toHaveLength(5)
    t.skip(13_000)
    expect((await b.signIn()).status).toBe(200)
  })
  it('the recovery code sets another passphrase, signs everybody out, and works once', async () => {
    const { owner, recoveryCode } = await locked()
    const b = browser(t)
    const recover = (recoveryCode: string, words: string) =>
      b.put('/access/recovery', { recoveryCode, passphrase: words, device: 'Phone' })
    expect(code(await recover(personCode(30), 'another four words here'))).toBe('access.wrong')
    const answer = await recover(recoveryCode.toLowerCase().replace(/-/g, ' '), 'another four words here')
    expect(answer.status).toBe(200)
    expect(endpoints.recover.reply.parse(answer.body).recoveryCode).not.toBe(recoveryCode)
    expect((await b.access()).role).toBe('owner')
    expect((await owner.access()).role).toBeNull()
    expect(code(await b.signIn())).toBe('access.wrong')
    expect(code(await recover(recoveryCode, 'once more four words'))).toBe('access.wrong')
  })
  it('another passphrase needs the one before it, and signs the others out', async () => {
    const { owner } = await locked()
    const b = browser(t)
    await b.signIn()
    const change = (before: string) =>
      owner.put('/access/passphrase', { before, passphrase: 'new words for the door' })
    expect(code(await change('wrong words'))).toBe('access.wrong')
    expect((await b.access()).role).toBe('owner')
    expect((await change(passphrase)).status).toBe(200)
    expect((await b.access()).role).toBeNull()
    expect((await owner.access()).role).toBe('owner')
  })
  it('keeps neither passphrase nor code nor token in its file', async () => {
    const { owner, recoveryCode } = await locked()
    const { pass, token } = GivenPass.parse(
      (await owner.put(`/access/passes/${id}`, { id, role: 'coach', name: 'Second laptop', tentId: null }))
        .body,
    )
    expect(pass.name).toBe('Second laptop')
    await t.store.client.execute('PRAGMA wal_checkpoint(TRUNCATE)')
    const bytes = readdirSync(t.dir)
      .filter((f) => f.startsWith('test.sqlite'))
      .map((f) => readFileSync(join(t.dir, f)).toString('latin1'))
      .join('')
    expect(bytes).toContain('Second laptop')
    for (const secret of [
      passphrase,
      recoveryCode,
      asPrinted(recoveryCode),
      token,
      owner.cookie().split('=')[1],
    ])
      expect(bytes).not.toContain(secret)
  })
  it('a device that is signed out is out at once, also of the live stream', async () => {
    const { owner } = await locked()
    const b = browser(t)
    await b.signIn()
    const stream = await t.app.request('/api/v1/events', { headers: { host, cookie: b.cookie() } })
    const reader = stream.body!.getReader()
    expect(new TextDecoder().decode((await reader.read()).value)).toContain('hello')
    const other = AccessBook.parse((await owner.get('/access/book')).body).sessions.find((x) => !x.here)!
    expect(other.device).toBe('Laptop')
    await owner.ask('DELETE', `/access/sessions/${other.id}`)
    expect(code(await b.get('/garage'))).toBe('access.needed')
    const gauge = { id: uuid(), version: 0, name: 'Secret', readsHighPsi: 0, hoseCc: 0, note: '' }
    expect((await owner.put(`/gauges/${gauge.id}`, gauge)).status).toBe(200)
    const rest: string[] = []
    for (let r = await reader.read(); !r.done; r = await reader.read())
      rest.push(new TextDecoder().decode(r.value))
    expect(rest.join('')).not.toContain('stale')
  })
  it('signs everybody out, and forgets a device after thirty days', async () => {
    const { owner } = await locked()
    await owner.ask('DELETE', '/access/sessions')
    expect((await owner.access()).role).toBeNull()
    const b = browser(t)
    await b.signIn()
    t.skip(29 * 86_400_000)
    expect((await b.access()).role).toBe('owner')
    t.skip(29 * 86_400_000)
    expect((await b.access()).role).toBe('owner')
    t.skip(31 * 86_400_000)
    expect((await b.access()).role).toBeNull()
  })
  it('stays locked, and its devices signed in, over a restart', async () => {
    const { owner } = await locked()
    const { dir } = t
    await t.store.close()
    t = await startApp(dir, [], beyond())
    const again = await t.send('GET', '/garage', undefined, { host, cookie: owner.cookie() })
    expect(again.status).toBe(200)
    expect((await browser(t).access()).door).toBe('locked')
  })
})

const id = '01890a5d-ac96-774b-bcce-b302099a8057'

describe('ways in for others', () => {
  const give = async (owner: Browser, role: 'coach' | 'wall', tentId: string | null = null) => {
    const passId = uuid()
    const answer = await owner.put(`/access/passes/${passId}`, { id: passId, role, name: 'Tablet', tentId })
    expect(answer.status).toBe(200)
    return GivenPass.parse(answer.body)
  }
  const enter = (b: Browser, token: string) => b.put('/access/enter', { token, device: 'Tablet' })

  it('open once, also when two come at the same time, and end within the hour', async () => {
    const { owner } = await locked()
    const { token } = await give(owner, 'coach')
    const both = await Promise.all([enter(browser(t), token), enter(browser(t), token)])
    expect(both.map((a) => a.status).sort()).toEqual([200, 403])
    const late = await give(owner, 'coach')
    t.skip(61 * 60_000)
    expect(code(await enter(browser(t), late.token))).toBe('access.wrong')
    const taken = await give(owner, 'coach')
    await owner.ask('DELETE', `/access/passes/${taken.pass.id}`)
    expect(code(await enter(browser(t), taken.token))).toBe('access.wrong')
  })
  it('a coach works, and neither puts the owner’s records away nor decides who comes in', async () => {
    const { owner } = await locked()
    const s = await startStory({ ...t, put: owner.put, get: owner.get } as TestApp)
    const coach = browser(t)
    await enter(coach, (await give(owner, 'coach')).token)
    expect(await coach.access()).toMatchObject({ role: 'coach' })
    expect((await coach.get('/garage')).status).toBe(200)
    expect(
      (
        await coach.put(`/runs/${s.run.id}/feel`, {
          runId: s.run.id,
          version: 0,
          rating: 6,
          marks: [],
          verdicts: [],
          note: '',
        })
      ).status,
    ).toBe(200)
    for (const path of [
      `/riders/${s.rider.id}`,
      `/bikes/${s.bike.id}`,
      `/days/${s.day.id}`,
      `/trails/${s.trail.id}`,
    ])
      expect(code(await coach.ask('DELETE', path))).toBe('access.denied')
    expect(code(await coach.get('/access/book'))).toBe('access.denied')
    // What is kept as a whole, and who is forgotten, is the owner's.
    for (const path of ['/data', '/data/copies/x', `/riders/${s.rider.id}/erasure`])
      expect(code(await coach.get(path)), path).toBe('access.denied')
    for (const path of ['/data/copy', '/data/copies/x/back', `/riders/${s.rider.id}/erasure`])
      expect(code(await coach.put(path, { name: s.rider.name, alsoCopies: true })), path).toBe(
        'access.denied',
      )
    expect(
      code(await coach.put(`/access/passes/${id}`, { id, role: 'coach', name: 'x', tentId: null })),
    ).toBe('access.denied')
    // A slip of the hand is taken back by whoever made it.
    expect((await coach.ask('DELETE', `/runs/${s.run.id}`)).status).toBe(200)
  })
  it('a wall looks at its tent, without a weight or a private word, and at nothing else', async () => {
    const { owner } = await locked()
    const s = await startStory({ ...t, put: owner.put, get: owner.get } as TestApp)
    const tent = {
      id: uuid(),
      version: 0,
      name: 'Tent',
      date: s.day.date,
      trailId: s.trail.id,
      schedule: [],
      note: 'SECRET tent',
    }
    await owner.put(`/tents/${tent.id}`, tent)
    const other = { ...tent, id: uuid() }
    await owner.put(`/tents/${other.id}`, other)
    await owner.put(`/tent-riders/${s.day.id}`, {
      id: s.day.id,
      version: 0,
      tentId: tent.id,
      number: 1,
      whereabouts: 'here',
      since: '2031-04-02T08:00:00.000Z',
      temper: 'reasons',
      named: false,
    })
    const noteId = uuid()
    await owner.put(`/tent-notes/${noteId}`, {
      id: noteId,
      version: 0,
      tentId: tent.id,
      dayId: s.day.id,
      at: '2031-04-02T08:10:00.000Z',
      kind: 'left-alone',
      text: 'SECRET he is scared',
      closedAt: null,
    })
    const plan = { id: uuid(), at: '2031-04-02T08:10:00.000Z', text: 'if worse, SECRET undo' }
    await owner.put(`/days/${s.day.id}`, {
      ...s.day,
      version: 1,
      plans: [{ ...plan, afterRunId: null, closedAt: null }],
    })
    await owner.put(`/runs/${s.run.id}`, { ...s.run, version: 1, note: 'SECRET run' })
    await owner.put(`/runs/${s.run.id}/feel`, {
      runId: s.run.id,
      version: 0,
      rating: 6,
      marks: [],
      verdicts: [],
      note: 'SECRET feel',
    })
    const whole = JSON.stringify((await owner.get(`/days/${s.day.id}`)).body)
    for (const what of ['run', 'undo']) expect(whole).toContain(`SECRET ${what}`)

    const wall = browser(t)
    await enter(wall, (await give(owner, 'wall', tent.id)).token)
    const seen = await wall.get(`/tents/${tent.id}`)
    expect(TentBundle.parse(seen.body).riders).toHaveLength(1)
    const day = await wall.get(`/days/${s.day.id}`)
    expect(DayBundle.parse(day.body).runs).toHaveLength(1)
    for (const text of [JSON.stringify(seen.body), JSON.stringify(day.body)]) {
      expect(text).not.toContain('SECRET')
      expect(text).not.toMatch(/bodyMassKg|kitMassKg/)
    }
    const lone = { ...s.day, id: uuid(), version: 0 }
    await owner.put(`/days/${lone.id}`, lone)
    for (const path of [
      '/garage',
      '/days',
      '/tents',
      `/tents/${other.id}`,
      `/days/${lone.id}`,
      '/access/book',
      `/tents/${tent.id}/sheets.pdf`,
      '/shelf',
      '/openapi.json',
    ])
      expect([path, code(await wall.get(path))]).toEqual([path, 'access.denied'])
    expect(code(await wall.put(`/tents/${tent.id}`, { ...tent, version: 1, name: 'Mine' }))).toBe(
      'access.denied',
    )
  })
  it('a wall’s live stream says that something changed, and not what was written', async () => {
    const { owner } = await locked()
    const s = await startStory({ ...t, put: owner.put, get: owner.get } as TestApp)
    const tent = {
      id: uuid(),
      version: 0,
      name: 'Tent',
      date: s.day.date,
      trailId: s.trail.id,
      schedule: [],
      note: '',
    }
    await owner.put(`/tents/${tent.id}`, tent)
    const wall = browser(t)
    await enter(wall, (await give(owner, 'wall', tent.id)).token)
    const stream = await t.app.request('/api/v1/events', { headers: { host, cookie: wall.cookie() } })
    const reader = stream.body!.getReader()
    const read = async () => new TextDecoder().decode((await reader.read()).value)
    expect(await read()).toContain('hello')
    await owner.put(`/runs/${s.run.id}/feel`, {
      runId: s.run.id,
      version: 0,
      rating: 3,
      marks: [],
      verdicts: [],
      note: 'SECRET',
    })
    const told = await read()
    expect(told).toContain('event: stale')
    expect(told).not.toContain('SECRET')
    await reader.cancel()
  })
  it('a new address is closed to walls, and to coaches where it removes, until somebody decides', () => {
    expect(mayAsk('wall', 'GET', '/something-new')).toBe(false)
    expect(mayAsk('wall', 'GET', '/tents/x/sheets.pdf')).toBe(false)
    expect(mayAsk('wall', 'PUT', `/days/${id}`)).toBe(false)
    expect(mayAsk('coach', 'DELETE', '/something-new/1')).toBe(false)
    for (const e of Object.values(endpoints))
      if (e.path.startsWith('/access/'))
        expect([e.path, mayAsk('coach', e.method.toUpperCase(), e.path)]).toEqual([e.path, false])
  })
})

describe('how the server can be reached', () => {
  it('beyond this machine a number is taken, and no name but its own', () => {
    const door = beyond()
    for (const h of ['192.168.7.5:4870', '10.0.0.1', '[fd00::1]:4870', 'localhost:4870', '127.0.0.1'])
      expect([h, meansUs(door, h)]).toEqual([h, true])
    for (const h of ['evil.example', 'evil.example:4870', '192.168.7.5.evil.example', 'tent.example'])
      expect([h, meansUs(door, h)]).toEqual([h, false])
    const proxied = doorFrom('127.0.0.1', 'https://tent.example', false)
    expect(proxied.beyond).toBe(true)
    expect(meansUs(proxied, 'tent.example')).toBe(true)
    expect(meansUs(proxied, 'evil.example')).toBe(false)
    expect(isOwnOrigin(proxied, 'https://tent.example', '127.0.0.1:4870')).toBe(true)
    expect(isOwnOrigin(proxied, 'http://tent.example', 'tent.example')).toBe(false)
    expect(isOwnOrigin(doorFrom('0.0.0.0', '', true), `http://${host}`, host)).toBe(false)
    expect(() => doorFrom('127.0.0.1', 'tent.example', false)).toThrow(/https:\/\/tent\.example/)
    expect(addressesOf(proxied, '127.0.0.1', 4870)).toEqual(['https://tent.example'])
    expect(addressesOf(doorFrom('127.0.0.1', '', false), '127.0.0.1', 4870)).toEqual([])
    expect(addressesOf(doorFrom('192.168.7.5', '', true), '192.168.7.5', 1)).toEqual([
      'https://192.168.7.5:1',
    ])
  })
  it('what a proxy says of where a try came from counts only where a proxy was named', async () => {
    const { owner } = await locked()
    const b = browser(t)
    // Each time another address is claimed: the tries are slowed down all the same.
    const tries = []
    for (let i = 0; i < 7; i++)
      tries.push(
        (
          await b.ask(
            'PUT',
            '/access/session',
            { passphrase: `guess ${i}`, device: 'x' },
            { 'x-forwarded-for': `10.0.0.${i}` },
          )
        ).status,
      )
    expect(tries.slice(5)).toEqual([429, 429])
    const { attempts } = AccessBook.parse((await owner.get('/access/book')).body)
    expect(JSON.stringify(attempts)).not.toContain('10.0.0.')
  })
})

describe('the limiter', () => {
  it('gives so many at once, then so many a minute, to each', () => {
    const l = new Limiter(3, 6)
    expect([0, 0, 0, 0].map(() => l.take('a', 0))).toEqual([0, 0, 0, 10])
    expect(l.take('b', 0)).toBe(0)
    expect(l.take('a', 9_000)).toBe(1)
    expect(l.take('a', 10_000)).toBe(0)
    l.giveBack('a')
    expect(l.take('a', 10_000)).toBe(0)
    expect(l.take('a', 10_000)).toBeGreaterThan(0)
    // A clock that goes back gives nothing away.
    expect(l.take('a', -1e9)).toBeGreaterThan(0)
  })
  it('holds few keys, and never forgets one that tries on', () => {
    const l = new Limiter(1, 0.001, 10)
    expect(l.take('mine', 0)).toBe(0)
    for (let i = 0; i < 5; i++) l.take(`other ${i}`, 0)
    expect(l.take('mine', 0)).toBeGreaterThan(0)
  })
})

describe('codes for people', () => {
  it('have no letters that are read as others, and are taken as people type them', () => {
    const printed = personCode(30)
    expect(printed).toMatch(/^([0-9A-HJKMNP-TV-Z]{5}-){5}[0-9A-HJKMNP-TV-Z]{5}$/)
    expect(asPrinted(printed.toLowerCase())).toBe(asPrinted(printed))
    expect(asPrinted('o0 iL1')).toBe('00111')
    expect(new Set(Array.from({ length: 200 }, () => personCode(15))).size).toBe(200)
  })
})
