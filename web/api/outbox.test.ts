import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Problem } from '#contract/errors'
import { seededRandom } from '#core/numeric/random'
import { ApiError } from './client.ts'
import type { Letter, NewLetter } from './letters.ts'
import { writeFromForm } from './mail.ts'
import { Outbox, type Channel, type OutboxNews, type Send } from './outbox.ts'
import { databaseShelf, memoryShelf, type Shelf } from './shelves.ts'

/** A clock whose timers fire only when it is moved. */
function testClock() {
  let now = 0
  let next = 1
  const timers = new Map<number, { at: number; act: () => void }>()
  return {
    now: () => now,
    later: (act: () => void, ms: number) => (timers.set(next, { at: now + ms, act }), next++),
    never: (t: unknown) => void timers.delete(t as number),
    async move(ms: number) {
      const until = now + ms
      for (;;) {
        await settle()
        const due = [...timers].filter(([, t]) => t.at <= until).sort((a, b) => a[1].at - b[1].at)[0]
        if (!due) break
        now = due[1].at
        timers.delete(due[0])
        due[1].act()
      }
      now = until
      await settle()
    },
  }
}
const settle = async () => {
  for (let i = 0; i < 30; i++) await new Promise((r) => setImmediate(r))
}
/** Tabs of one browser, who hear each other and not themselves. */
function testChannels(n: number): Channel[] {
  const hears: ((news: OutboxNews) => void)[][] = Array.from({ length: n }, () => [])
  return hears.map((mine, i) => ({
    post: (news) => hears.forEach((h, k) => k !== i && h.forEach((hear) => hear(news))),
    listen: (hear) => void mine.push(hear),
  }))
}

const problem = (status: number, code: Problem['code'], current?: unknown): ApiError =>
  new ApiError('no', { type: '', title: '', status, detail: 'The sentence.', code, current })

const keyed = <T extends object>(x: T): T => Object.fromEntries(Object.entries(x).sort()) as T
/** A server with versions, idempotent like ours, whose answers can be lost. */
class TestServer {
  held = new Map<string, { version: number; [k: string]: unknown }>()
  log: string[] = []
  saves = 0
  /** What happens to the next calls: kept but the answer lost, never arrived, or refused. */
  fate: ('ok' | 'answer-lost' | 'unreachable')[] = []
  send = async (l: Letter): Promise<unknown> => {
    const fate = this.fate.shift() ?? 'ok'
    this.log.push(`${l.key} ${fate}`)
    if (fate === 'unreachable') throw new ApiError('away', null)
    const saved = this.keep(l)
    if (fate === 'answer-lost') throw new ApiError('away', null)
    return saved
  }
  private keep(l: Letter) {
    const sent = l.body as { version: number; [k: string]: unknown }
    const now = this.held.get(l.key)
    const same =
      now && JSON.stringify(keyed({ ...now, version: 0 })) === JSON.stringify(keyed({ ...sent, version: 0 }))
    if (now && same && (sent.version === now.version || sent.version === now.version - 1)) return now
    if ((now?.version ?? 0) !== sent.version) throw problem(409, 'record.stale', now)
    // Kept in the server's own order of keys.
    const saved = keyed({ ...sent, version: sent.version + 1 })
    this.held.set(l.key, saved)
    this.saves++
    return saved
  }
}
const feel = (run: string, rating: number, version = 0): NewLetter => ({
  kind: 'feel',
  key: `feel:${run}`,
  params: { id: run },
  body: { runId: run, version, rating },
  file: null,
})
const run = (id: string): NewLetter => ({
  kind: 'run',
  key: `run:${id}`,
  params: { id },
  body: { id, version: 0 },
  file: null,
})

let clock: ReturnType<typeof testClock>
let server: TestServer
beforeEach(() => {
  clock = testClock()
  server = new TestServer()
})
const outboxOn = (shelf: Shelf, channel = testChannels(1)[0], tab = 'tab', send: Send = server.send) =>
  new Outbox({ shelf, send, channel, tab, now: clock.now, later: clock.later, never: clock.never })

describe('a letter', () => {
  it('goes out in its order, is kept once, and leaves the box', async () => {
    const box = outboxOn(memoryShelf())
    for (const l of [run('a'), feel('a', 6), run('b')]) await box.write(l)
    await clock.move(10)
    expect(server.log).toEqual(['run:a ok', 'feel:a ok', 'run:b ok'])
    expect(box.state().letters).toEqual([])
  })
  it('whose answer was lost is asked again and kept once; nothing is to be chosen', async () => {
    const box = outboxOn(memoryShelf())
    server.fate = ['answer-lost']
    const l = await box.write(run('a'))
    const saved = box.confirmed(l.id)
    await clock.move(60_000)
    expect(await saved).toMatchObject({ id: 'a', version: 1 })
    expect(server.saves).toBe(1)
    expect(box.state()).toMatchObject({ letters: [], unreachableSince: null })
  })
  it('typed on after a lost answer goes on from our own earlier words, without a question', async () => {
    const box = outboxOn(memoryShelf())
    server.fate = ['answer-lost']
    await box.write(feel('a', 6))
    await clock.move(500)
    await box.write(feel('a', 7))
    await clock.move(60_000)
    expect(server.held.get('feel:a')).toMatchObject({ rating: 7, version: 2 })
    expect(box.state().letters).toEqual([])
  })
  it('that meets a locked door waits, and is sent when it opens; a flood is slowed and lost neither', async () => {
    for (const status of [401, 429]) {
      let open = false
      const box = outboxOn(memoryShelf(), undefined, 'tab', async (l) => {
        if (!open) throw problem(status, status === 401 ? 'access.needed' : 'access.slow-down')
        return server.send(l)
      })
      await box.write(run(`a${status}`))
      await box.write(feel(`a${status}`, 6))
      await clock.move(120_000)
      expect(box.state().letters.map((l) => l.state)).toEqual(['waiting', 'waiting'])
      open = true
      await clock.move(31_000)
      expect(box.state().letters).toEqual([])
      expect(server.log.slice(-2)).toEqual([`run:a${status} ok`, `feel:a${status} ok`])
    }
  })
  it('that waited long is not given up for one fault of the server', async () => {
    let at = 'away'
    const box = outboxOn(memoryShelf(), undefined, 'tab', async (l) => {
      if (at === 'away') throw new ApiError('away', null)
      if (at === 'faulty') {
        at = 'well'
        throw problem(500, 'internal')
      }
      return server.send(l)
    })
    await box.write(run('a'))
    await clock.move(600_000)
    expect(box.state().letters[0].tries).toBeGreaterThan(5)
    at = 'faulty'
    await clock.move(62_000)
    expect(at).toBe('well')
    expect(box.state().letters).toEqual([])
    expect(server.saves).toBe(1)
  })
  it('of a form that stands behind one that waits is kept here too: its form is not left hanging', async () => {
    const box = outboxOn(memoryShelf())
    server.fate = Array.from({ length: 50 }, () => 'unreachable' as const)
    const ends: unknown[] = []
    for (const l of [run('a'), run('b'), run('c')]) {
      void writeFromForm(box, l).then((w) => ends.push(w.state))
      await clock.move(2000)
    }
    expect(ends).toEqual(['kept-here', 'kept-here', 'kept-here'])
  })
  it('waits longer each time while the server is away, and says since when', async () => {
    const box = outboxOn(memoryShelf())
    server.fate = Array.from({ length: 50 }, () => 'unreachable' as const)
    await box.write(run('a'))
    await clock.move(30_000)
    const tries = server.log.length
    expect(tries).toBeGreaterThan(3)
    expect(tries).toBeLessThan(8)
    expect(box.state().unreachableSince).toBe(0)
    await clock.move(300_000)
    expect(server.log.length - tries).toBeLessThan(12)
  })
  it('is replaced by newer words of the same feel while it waits, never by another record', async () => {
    const box = outboxOn(memoryShelf())
    server.fate = ['unreachable']
    await box.write(run('a'))
    await clock.move(1)
    await box.write(feel('a', 5))
    await box.write(feel('b', 4))
    await box.write(feel('a', 8))
    expect(box.state().letters.map((l) => [l.key, (l.body as { rating?: number }).rating])).toEqual([
      ['run:a', undefined],
      ['feel:b', 4],
      ['feel:a', 8],
    ])
    await clock.move(10_000)
    expect(server.saves).toBe(3)
  })
  it('typed while it is under way goes on from the version it got', async () => {
    let release = () => {}
    const slow = async (l: Letter) => {
      if (server.log.length === 0) await new Promise<void>((r) => (release = r))
      return server.send(l)
    }
    const box = outboxOn(memoryShelf(), undefined, 'tab', slow)
    await box.write(feel('a', 5))
    await clock.move(1)
    await box.write(feel('a', 6))
    release()
    await clock.move(5000)
    expect(server.held.get('feel:a')).toMatchObject({ rating: 6, version: 2 })
  })
})

describe('written in one breath', () => {
  it('each builds on the one before it, though none is kept yet', async () => {
    const box = outboxOn(await databaseShelf(`box-${Math.random()}`))
    const seen: number[] = []
    for (const rating of [3, 5, 8]) {
      void box.write(feel('a', rating))
      seen.push(...box.state().letters.map((l) => (l.body as { rating: number }).rating))
    }
    expect(seen).toEqual([3, 5, 8])
    await clock.move(1000)
    expect(server.held.get('feel:a')).toMatchObject({ rating: 8 })
    expect(box.state().letters).toEqual([])
  })
})

describe('written while the one before it is answered', () => {
  /** A storage of which one write takes until it is let go: a slow phone. */
  function slowShelf() {
    const shelf = memoryShelf()
    let hold: Promise<void> | null = null
    return {
      ...shelf,
      add: async (l: Omit<Letter, 'id'>, replaces: boolean) => {
        const held = hold
        hold = null
        await held
        return shelf.add(l, replaces)
      },
      holdNext: () => {
        let letGo = () => {}
        hold = new Promise((r) => (letGo = r))
        return letGo
      },
    }
  }
  const ring = (mm: number | null, version: number): NewLetter => ({
    ...run('a'),
    body: { id: 'a', version, kind: 'void', ringRearMm: mm },
  })
  it('goes on from the version that one got, though its own storage is slower than the answer', async () => {
    const shelf = slowShelf()
    const box = outboxOn(shelf)
    await box.write(ring(null, 0))
    const letGo = shelf.holdNext()
    // On the page the run still has the version it was read with.
    const second = writeFromForm(box, ring(48, 0))
    await clock.move(10)
    expect(server.held.get('run:a')).toMatchObject({ version: 1, ringRearMm: null })
    letGo()
    await clock.move(10)
    expect(server.held.get('run:a')).toMatchObject({ version: 2, ringRearMm: 48 })
    expect((await second).state).toBe('saved')
    // And a third on top of both.
    await box.write(ring(50, 2))
    await clock.move(10)
    expect(server.held.get('run:a')).toMatchObject({ version: 3, ringRearMm: 50 })
  })
  for (const kind of ['run', 'feel'] as const)
    it(`300 random rows of changes to one ${kind}, storage and answers of any speed, some lost: the last one stands, nobody is asked`, async () => {
      for (let seed = 1; seed <= 300; seed++) {
        const random = seededRandom(seed)
        clock = testClock()
        server = new TestServer()
        const slow = (most: number) => new Promise<void>((r) => clock.later(r, random() * most))
        const shelf = memoryShelf()
        let last: Promise<unknown> = Promise.resolve()
        /** Each act in its turn, as a database has it. */
        const inTurn = <T>(act: () => Promise<T>): Promise<T> => {
          const done = last.then(() => slow(30)).then(act)
          last = done
          return done
        }
        const box = new Outbox({
          shelf: {
            ...shelf,
            add: (l, replaces) => inTurn(() => shelf.add(l, replaces)),
            put: (l) => inTurn(() => shelf.put(l)),
            remove: (ids) => inTurn(() => shelf.remove(ids)),
          },
          send: async (l) => {
            await slow(30)
            if (random() < 0.15) server.fate = ['answer-lost']
            const saved = await server.send(l)
            await slow(30)
            return saved
          },
          channel: testChannels(1)[0],
          tab: 'tab',
          now: clock.now,
          later: clock.later,
          never: clock.never,
        })
        // What the page shows: what was saved, with what waits laid over it.
        let saved = 0
        box.onSent((_, answer) => (saved = (answer as { version: number }).version))
        const shownVersion = () =>
          (box.state().letters.at(-1)?.body as { version: number } | undefined)?.version ?? saved
        const changes = 2 + Math.floor(random() * 5)
        for (let n = 1; n <= changes; n++) {
          const letter = kind === 'run' ? ring(n, shownVersion()) : feel('a', n, shownVersion())
          void box.write(letter)
          await clock.move(random() * 60)
        }
        await clock.move(60_000)
        const end = kind === 'run' ? { ringRearMm: changes, version: changes } : { rating: changes }
        expect(server.held.get(`${kind}:a`), `seed ${seed}`).toMatchObject(end)
        expect(box.state().letters, `seed ${seed}`).toEqual([])
      }
    })
  it('in another window, which the sender hears of too late, goes on from it too', async () => {
    const shelf = memoryShelf()
    const [one, two] = testChannels(2)
    let answer = () => {}
    const send: Send = async (l) => {
      const saved = await server.send(l)
      if (server.log.length === 1) await new Promise<void>((r) => (answer = r))
      return saved
    }
    const a = outboxOn(shelf, one, 'one', send)
    await a.write(ring(null, 0))
    await clock.move(10)
    // Written next door while the first is under way; the news of it comes after the answer.
    const deaf: Channel = { post: () => {}, listen: two.listen }
    const b = outboxOn(shelf, deaf, 'two', send)
    await b.write(ring(48, 0))
    answer()
    await clock.move(10)
    two.post({ type: 'changed' })
    await clock.move(10)
    expect(server.held.get('run:a')).toMatchObject({ version: 2, ringRearMm: 48 })
  })
  it('a form that was open since before it is asked, not laid over it', async () => {
    const box = outboxOn(memoryShelf())
    await box.write(ring(null, 0))
    await clock.move(10)
    const old = writeFromForm(box, ring(48, 0))
    const end = old.then(
      () => 'saved',
      (e: ApiError) => e.problem?.code,
    )
    await clock.move(10)
    expect(await end).toBe('record.stale')
    expect(server.held.get('run:a')).toMatchObject({ version: 1, ringRearMm: null })
  })
})

describe('the moment a letter arrives', () => {
  it('is never seen without it: either it waits, or it is known as saved', async () => {
    const box = outboxOn(await databaseShelf(`box-${Math.random()}`))
    let saved = 0
    let written = false
    const gaps: number[] = []
    box.onSent(() => saved++)
    box.subscribe((s) => {
      const waits = s.letters.some((l) => l.key === 'feel:a')
      if (!waits && saved === 0 && written) gaps.push(server.saves)
    })
    await box.write(feel('a', 5))
    written = true
    await clock.move(1000)
    expect(saved).toBe(1)
    expect(gaps).toEqual([])
  })
})

describe('what the server will not take', () => {
  it.each([
    ['conflict', 409, 'record.stale'],
    ['refused', 422, 'input.refused'],
  ] as const)(
    'in %s after its form was told that it waits here: it stays, and is asked about',
    async (state, status, code) => {
      const answers: Send[] = [
        () => Promise.reject(new ApiError('away', null)),
        () => Promise.reject(problem(status, code as Problem['code'], { version: 2 })),
      ]
      const box = outboxOn(memoryShelf(), undefined, undefined, (...sent) =>
        (answers.shift() ?? server.send)(...sent),
      )
      const told = writeFromForm(box, run('a'))
      await clock.move(1)
      expect((await told).state).toBe('kept-here')
      await clock.move(60_000)
      expect(box.state().letters).toMatchObject([{ state, key: 'run:a' }])
    },
  )
  it('changed elsewhere: stays, with both versions, and a person chooses', async () => {
    server.held.set('feel:a', { runId: 'a', version: 3, rating: 2 })
    const box = outboxOn(memoryShelf())
    await box.write(feel('a', 9, 1))
    await clock.move(60_000)
    const [l] = box.state().letters
    expect(l).toMatchObject({ state: 'conflict', problem: { current: { rating: 2 } } })
    expect(server.held.get('feel:a')!.rating).toBe(2)
    await box.settle(l.id, 'mine')
    await clock.move(1000)
    expect(box.state().letters).toEqual([])
    expect(server.held.get('feel:a')).toMatchObject({ rating: 9, version: 4 })
  })
  it('theirs is taken: the server keeps what it had', async () => {
    server.held.set('feel:a', { runId: 'a', version: 3, rating: 2 })
    const box = outboxOn(memoryShelf())
    await box.write(feel('a', 9, 1))
    await clock.move(1000)
    await box.settle(box.state().letters[0].id, 'theirs')
    await clock.move(60_000)
    expect(server.held.get('feel:a')).toMatchObject({ rating: 2, version: 3 })
  })
  it('refused for good: told with its sentence once, not retried for ever, and nothing else waits for it', async () => {
    const send = async (l: Letter) => {
      if (l.key === 'feel:bad') throw (server.log.push('refused'), problem(422, 'reference.missing'))
      return server.send(l)
    }
    const box = outboxOn(memoryShelf(), undefined, 'tab', send)
    const bad = await box.write(feel('bad', 3))
    const told = box.confirmed(bad.id).catch((e: ApiError) => e.problem?.detail)
    await box.write(run('next'))
    await clock.move(600_000)
    expect(await told).toBe('The sentence.')
    expect(server.log).toEqual(['refused', 'run:next ok'])
    expect(box.state().letters).toMatchObject([{ key: 'feel:bad', state: 'refused' }])
    await box.drop([bad.id])
    expect(box.state().letters).toEqual([])
  })
  it('a fault of the server is tried a few times, then told', async () => {
    let n = 0
    const box = outboxOn(memoryShelf(), undefined, 'tab', async () => {
      n++
      throw problem(500, 'internal')
    })
    await box.write(run('a'))
    await clock.move(3_600_000)
    expect(n).toBe(5)
    expect(box.state().letters[0].state).toBe('refused')
  })
})

describe('a browser that goes away', () => {
  it('reload and power loss: what waited is sent by the next page, in order, once', async () => {
    const name = `box-${Math.random()}`
    const first = outboxOn(await databaseShelf(name))
    server.fate = ['answer-lost']
    await first.write(run('a'))
    await first.write(feel('a', 7))
    await clock.move(10)
    // The page is gone: its timers never fire again.
    clock = testClock()
    const second = outboxOn(await databaseShelf(name), undefined, 'later tab')
    await second.start()
    await clock.move(120_000)
    expect(server.saves).toBe(2)
    expect(second.state().letters).toEqual([])
  })
  it('storage that is full: the rating is not called saved, and is sent all the same', async () => {
    const shelf = {
      ...memoryShelf(),
      durable: true,
      add: () => Promise.reject(new Error('QuotaExceededError')),
    }
    const box = outboxOn(shelf)
    server.fate = ['unreachable']
    await box.write(feel('a', 8))
    await clock.move(10)
    expect(box.state()).toMatchObject({ durable: false })
    expect(box.state().letters).toHaveLength(1)
    await clock.move(60_000)
    expect(server.held.get('feel:a')).toMatchObject({ rating: 8 })
  })
})

describe('two windows', () => {
  it('one sends for both: nothing is sent twice', async () => {
    const name = `box-${Math.random()}`
    const channels = testChannels(2)
    const a = outboxOn(await databaseShelf(name), channels[0], 'a')
    const b = outboxOn(await databaseShelf(name), channels[1], 'b')
    await a.start()
    await b.start()
    await a.write(run('a'))
    await b.write(run('b'))
    await b.write(feel('b', 6))
    await clock.move(60_000)
    expect(server.log.filter((x) => x.startsWith('run:'))).toHaveLength(2)
    expect(server.saves).toBe(3)
    expect([a.state().letters, b.state().letters]).toEqual([[], []])
  })
  it('the owner is closed: the other takes over within seconds', async () => {
    const name = `box-${Math.random()}`
    const shelf = await databaseShelf(name)
    await shelf.lease('closed tab', clock.now(), 6000)
    const b = outboxOn(await databaseShelf(name), undefined, 'b')
    await b.write(run('b'))
    await clock.move(3000)
    expect(server.saves).toBe(0)
    await clock.move(6000)
    expect(server.saves).toBe(1)
  })
  it('200 random interleavings of two windows, lost answers and pauses: nothing lost, nothing doubled', async () => {
    for (let seed = 1; seed <= 200; seed++) {
      const random = seededRandom(seed)
      clock = testClock()
      server = new TestServer()
      const name = `box-${seed}-${Math.random()}`
      const channels = testChannels(2)
      const boxes = [
        outboxOn(await databaseShelf(name), channels[0], 'a'),
        outboxOn(await databaseShelf(name), channels[1], 'b'),
      ]
      const wanted = new Map<string, unknown>()
      for (let i = 0; i < 6; i++) {
        const box = boxes[random() < 0.5 ? 0 : 1]
        server.fate.push(random() < 0.25 ? 'answer-lost' : random() < 0.3 ? 'unreachable' : 'ok')
        if (random() < 0.5) {
          const id = `r${i}`
          wanted.set(`run:${id}`, undefined)
          await box.write(run(id))
        } else {
          // Each window judges runs of its own; a shared one is the conflict test above.
          const id = box === boxes[0] ? 'mine' : 'yours'
          const rating = Math.floor(random() * 10)
          wanted.set(`feel:${id}`, rating)
          await box.write(feel(id, rating, server.held.get(`feel:${id}`)?.version ?? 0))
        }
        if (random() < 0.4) await clock.move(random() * 3000)
      }
      await clock.move(300_000)
      for (const [key, rating] of wanted) {
        expect(server.held.has(key), `seed ${seed} ${key}`).toBe(true)
        if (rating !== undefined) expect(server.held.get(key)!.rating, `seed ${seed} ${key}`).toBe(rating)
      }
      expect(server.held.size, `seed ${seed}`).toBe(wanted.size)
      expect(
        boxes.flatMap((b) => b.state().letters),
        `seed ${seed}`,
      ).toEqual([])
    }
  }, 120_000)
})

describe('files', () => {
  it('have a lane of their own: a ride note does not wait behind forty megabytes', async () => {
    let release = () => {}
    const send = async (l: Letter) => {
      if (l.file) await new Promise<void>((r) => (release = r))
      return server.send(l)
    }
    const box = outboxOn(memoryShelf(), undefined, 'tab', send)
    await box.write(run('a'))
    await box.write({
      kind: 'recording',
      key: 'recording:x',
      params: { id: 'x' },
      body: { version: 0 },
      file: new Blob(['1']),
    })
    await clock.move(10)
    await box.write(feel('a', 7))
    await clock.move(10)
    // The file waited for its run, and the feel did not wait for the file.
    expect(server.log).toEqual(['run:a ok', 'feel:a ok'])
    release()
    await clock.move(10)
    expect(server.log.at(-1)).toBe('recording:x ok')
  })
  it('can be cancelled on the way: gone from the box, and its sender told to stop', async () => {
    let stopped = false
    const send = (_: Letter, __: unknown, signal: AbortSignal) =>
      new Promise((_resolve, reject) =>
        signal.addEventListener('abort', () => ((stopped = true), reject(new Error('aborted')))),
      )
    const box = outboxOn(memoryShelf(), undefined, 'tab', send)
    const l = await box.write({
      kind: 'recording',
      key: 'recording:x',
      params: { id: 'x' },
      body: {},
      file: new Blob(['1']),
    })
    await clock.move(10)
    await box.drop([l.id])
    await clock.move(60_000)
    expect([stopped, box.state().letters]).toEqual([true, []])
  })
  it('can be cancelled while it is still being put away: it goes nowhere, now or after a reload, and its form is told', async () => {
    const shelf = memoryShelf()
    let putAway = () => {}
    const slow: Shelf = {
      ...shelf,
      add: async (...l) => {
        await new Promise<void>((r) => (putAway = r))
        return shelf.add(...l)
      },
    }
    const box = outboxOn(slow)
    const file: NewLetter = {
      kind: 'recording',
      key: 'recording:x',
      params: { id: 'x' },
      body: {},
      file: new Blob(['1']),
    }
    const told = writeFromForm(box, file).then(
      () => 'saved',
      (e: unknown) => (e as Error).message,
    )
    await settle()
    await box.drop(box.state().letters.map((l) => l.id))
    putAway()
    await clock.move(60_000)
    expect(await told).toMatch(/^Cancelled/)
    expect(await shelf.all()).toEqual([])
    const next = outboxOn(shelf)
    await next.start()
    await clock.move(60_000)
    expect(server.log).toEqual([])
    expect([box.state().letters, next.state().letters]).toEqual([[], []])
  })
})
