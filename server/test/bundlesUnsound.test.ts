import { createHash } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { BundleLook } from '#contract/bundle'
import { fillWorld } from './bundleWorld.ts'
import { dump } from './dump.ts'
import { startApp, type TestApp } from './harness.ts'

type Files = Record<string, Uint8Array>
type Line = Record<string, unknown> & { body: Record<string, unknown> }

let from: TestApp
let to: TestApp
let whole: Uint8Array<ArrayBuffer>
let empty: unknown

beforeAll(async () => {
  from = await startApp()
  to = await startApp()
  await fillWorld(from, {
    riders: [
      {
        note: 'it kicks',
        runs: 2,
        changes: 2,
        recorded: true,
        awayRun: false,
        awayRider: false,
        kept: true,
        inTent: true,
        wished: true,
      },
    ],
  })
  const id = uuid()
  await from.put(`/data/bundles/${id}`, {
    scope: { kind: 'everything' },
    with: { weights: true, voices: true, inside: true },
  })
  whole = new Uint8Array((await from.get(`/data/bundles/${id}`)).body as ArrayBuffer)
  empty = await dump(join(to.dir, 'test.sqlite'))
})
afterAll(async () => {
  await from.store.close()
  await to.store.close()
})

/** Sends bytes and looks: what is answered; nothing may have come of it. */
async function looked(bytes: Uint8Array) {
  const id = uuid()
  const sent = await to.send('PUT', `/data/arrivals/${id}`, Uint8Array.from(bytes), {
    'content-type': 'application/zip',
  })
  if (sent.status !== 200) return sent
  const answer = await to.send('PUT', `/data/arrivals/${id}/look`)
  if (answer.status !== 200)
    expect(
      (await to.put(`/data/arrivals/${id}/take`, { differing: 'ours', except: [], taken: [] })).status,
    ).toBe(409)
  await to.send('DELETE', `/data/arrivals/${id}`)
  expect(readdirSync(to.incomingDir)).toEqual([])
  return answer
}
async function refused(bytes: Uint8Array, code = 'bundle.unsound') {
  const answer = await looked(bytes)
  expect(answer, JSON.stringify(answer.body)).toMatchObject({ body: { code } })
  expect(await dump(join(to.dir, 'test.sqlite'))).toEqual(empty)
  return (answer.body as { detail: string }).detail
}

/** The bundle written anew by another hand, with checksums that fit. */
function again(change: (files: Files) => void, keepSums = false): Uint8Array {
  const files = unzipSync(whole) as Files
  change(files)
  if (!keepSums) {
    const sums = Object.entries(files)
      .filter(([name]) => name !== 'checksums.sha256')
      .map(([name, bytes]) => `${createHash('sha256').update(bytes).digest('hex')}  ${name}`)
    files['checksums.sha256'] = strToU8(sums.join('\n') + '\n')
  }
  return zipSync(files)
}
const linesOf = (files: Files, kind: string) =>
  strFromU8(files[`records/${kind}.jsonl`])
    .trimEnd()
    .split('\n')
    .map((l) => JSON.parse(l) as Line)
const writeLines = (files: Files, kind: string, lines: unknown[]) =>
  void (files[`records/${kind}.jsonl`] = strToU8(
    lines.map((l) => `${typeof l === 'string' ? l : JSON.stringify(l)}\n`).join(''),
  ))
const editLine = (kind: string, edit: (line: Line) => unknown) =>
  again((files) => {
    const [first, ...rest] = linesOf(files, kind)
    writeLines(files, kind, [edit(first), ...rest])
  })
const headWith = (over: Record<string, unknown>) =>
  again((files) => {
    const head = JSON.parse(strFromU8(files['bundle.json'])) as object
    files['bundle.json'] = strToU8(JSON.stringify({ ...head, ...over }))
  })

describe('a bundle that another program wrote by the book', () => {
  it('is taken: what it is written with does not matter', async () => {
    const answer = await looked(again(() => undefined))
    expect(answer.status, JSON.stringify(answer.body)).toBe(200)
    expect(BundleLook.parse(answer.body).kinds.find((k) => k.kind === 'runs')).toMatchObject({ fresh: 3 })
  })
})

describe('no bundle', () => {
  it.each([
    ['nothing at all', new Uint8Array(), 'bundle.unsound'],
    ['a text', strToU8('date,rider\n2031-05-02,Ilka\n'), 'bundle.unsound'],
    ['a zip of holiday pictures', zipSync({ 'beach.png': strToU8('x') }), 'bundle.unsound'],
    ['an empty zip', zipSync({}), 'bundle.unsound'],
    [
      'a zip with a bundle.json of something else',
      zipSync({ 'bundle.json': strToU8('{"format":"other"}') }),
      'bundle.unsound',
    ],
  ] as const)('%s is refused in a sentence', async (_, bytes, code) => {
    expect(await refused(bytes, code)).toMatch(/^[A-Z"].*\.$/)
  })
  it('one of a newer version is refused before anything else is asked of it', async () => {
    const sentence = /newer version of Wild Spring made this bundle \(9\.1\); bring this one up to date/
    expect(await refused(headWith({ shape: '0099_wheels', by: '9.1', planets: 9 }), 'bundle.newer')).toMatch(
      sentence,
    )
    expect(await refused(headWith({ version: 2, by: '9.1' }), 'bundle.newer')).toMatch(sentence)
  })
})

describe('a bundle that was damaged on its way', () => {
  it('cut anywhere, it is refused', async () => {
    for (const share of [0.1, 0.5, 0.9, 0.999])
      await refused(whole.subarray(0, Math.floor(whole.length * share)))
  })
  it('with any one byte changed, it is refused or means the same', { timeout: 600_000 }, async () => {
    await fc.assert(
      fc.asyncProperty(fc.nat(whole.length - 1), fc.integer({ min: 1, max: 255 }), async (at, flip) => {
        const bytes = Uint8Array.from(whole)
        bytes[at] ^= flip
        const answer = await looked(bytes)
        // Dates and such in the zip say nothing of what is in it.
        if (answer.status === 200)
          expect(BundleLook.parse(answer.body).kinds.find((k) => k.kind === 'runs')?.fresh).toBe(3)
        else expect(answer.body).toMatchObject({ code: expect.stringMatching(/^bundle\./) as string })
        expect(await dump(join(to.dir, 'test.sqlite'))).toEqual(empty)
      }),
      { numRuns: Number(process.env.WILD_SPRING_FLIPS ?? 40) },
    )
  })
  it('a record changed by hand without its checksum is told by name', async () => {
    const bytes = again((files) => {
      const [first, ...rest] = linesOf(files, 'runs')
      writeLines(files, 'runs', [{ ...first, body: { ...first.body, note: 'better' } }, ...rest])
    }, true)
    expect(await refused(bytes)).toContain('records/runs.jsonl')
  })
})

describe('a bundle that somebody meant ill with', () => {
  const riderId = () => (linesOf(unzipSync(whole) as Files, 'riders')[0] as unknown as { id: string }).id
  it.each<[string, () => Uint8Array, RegExp]>([
    [
      'a file that leads out of the folder',
      () => again((f) => void (f['../../etc/passwd'] = strToU8('x'))),
      /no bundle|does not belong/,
    ],
    ['a program', () => again((f) => void (f['files/run.sh'] = strToU8('x'))), /does not belong/],
    [
      // From then on a true file with that hash would be taken for this one.
      'other bytes under the name of a sensor file',
      () =>
        again((f) => {
          const name = Object.keys(f).find((n) => n.startsWith('files/'))!
          f[name] = strToU8('time;front\n0;1\n')
        }),
      /not the file that its name says/,
    ],
    ...([7, 'none', { id: 1 }, [null], [{ id: 'x' }]] as const).map(
      (addedFiles): [string, () => Uint8Array, RegExp] => [
        `further files that are ${JSON.stringify(addedFiles)}`,
        () => editLine('recordings', (l) => ({ ...l, body: { ...l.body, addedFiles } })),
        /does not say which files/,
      ],
    ),
    [
      'a kind that is none',
      () => again((f) => void (f['records/locks.jsonl'] = strToU8('{"id":1}\n'))),
      /no kind of record called "locks"/,
    ],
    [
      'a sign-in',
      () => again((f) => void (f['records/sessions.jsonl'] = strToU8('{"hash":"x"}\n'))),
      /no kind of record/,
    ],
    [
      'a field that is none',
      () => editLine('riders', (l) => ({ ...l, 'id) VALUES (1); --': 1 })),
      /that is none/,
    ],
    [
      'a weight of four tonnes',
      () => editLine('riders', (l) => ({ ...l, body: { ...l.body, bodyMassKg: 4000 } })),
      /at most 200 kg/,
    ],
    [
      'a row that says another rider than its record',
      () => editLine('days', (l) => ({ ...l, rider_id: uuid() })),
      /rider_id/,
    ],
    [
      'a day of a rider who is not in it',
      () =>
        editLine('days', (l) => {
          const id = uuid()
          return { ...l, rider_id: id, body: { ...l.body, riderId: id } }
        }),
      /not in it/,
    ],
    [
      'a bike with somebody else’s setup on it',
      () => editLine('bikes', (l) => ({ ...l, current_setup_id: uuid() })),
      /refers to something that is not there/,
    ],
    [
      'a record twice',
      () => again((f) => writeLines(f, 'runs', [...linesOf(f, 'runs'), linesOf(f, 'runs')[0]])),
      /twice|another number/,
    ],
    [
      'one record fewer than it says',
      () => again((f) => writeLines(f, 'feels', linesOf(f, 'feels').slice(1))),
      /another number of feels/,
    ],
    [
      'half a letter',
      () => editLine('riders', (l) => JSON.stringify(l).replace('"name":"', '"name":"\\ud800')),
      /half a letter/,
    ],
    ['what is no JSON', () => editLine('riders', () => '{"id":'), /no JSON object/],
    ['a list for a record', () => editLine('riders', () => '[1,2]'), /no JSON object/],
    [
      'a record nested without end',
      () =>
        editLine('runs', (l) =>
          JSON.stringify(l).replace('"body":{', `"body":{"deep":${'['.repeat(60_000)}${']'.repeat(60_000)},`),
        ),
      /./,
    ],
    [
      'a record of megabytes',
      () => editLine('riders', (l) => ({ ...l, body: { ...l.body, note: 'x'.repeat(5_000_000) } })),
      /too long/,
    ],
    [
      'a moment that is none',
      () => editLine('runs', (l) => ({ ...l, deleted_at: 'yesterday' })),
      /deleted_at/,
    ],
    [
      'a recording without its file',
      () =>
        again((f) =>
          Object.keys(f)
            .filter((n) => n.startsWith('files/'))
            .forEach((n) => delete f[n]),
        ),
      /is missing/,
    ],
    [
      'channels of a recording that is not there',
      () => again((f) => void (f[`channels/${uuid()}/front.f32`] = new Uint8Array(8))),
      /a recording that is not/,
    ],
    [
      'weights where it says that there are none',
      () => headWith({ with: { weights: false, voices: true, inside: true } }),
      /leaves out/,
    ],
    [
      'no checksums',
      () => {
        const f = unzipSync(whole) as Files
        delete f['checksums.sha256']
        return zipSync(f)
      },
      /checksums are missing/,
    ],
  ])('with %s is refused, and nothing of it is kept', async (_, make, sentence) => {
    expect(await refused(make())).toMatch(sentence)
    expect(riderId()).toBeTruthy()
  })
})
