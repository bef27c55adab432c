import { spawn } from 'node:child_process'
import { v7 as uuid } from 'uuid'
import type { DayBundle } from '#contract/endpoints'
import type { Feel, Run } from '#contract/run'
import { idOf } from '../demo/ids.ts'
import { fillDemo, startProcess } from '../e2e/server.ts'
import { LeanClient } from './leanClient.ts'
import type { Row } from './measure.ts'

const riders = ['mika', 'sanna', 'nuri', 'wren', 'obi', 'runa']
const entries = 300
/** Flat out for some seconds: what it takes to let fifty in is part of it, not most of it. */
const entriesOfFifty = 1500

/** Many hands at once on one server: what one saved run takes, and when a screen is told of it. */
export async function clientRows(): Promise<Row[]> {
  const server = await startProcess()
  const api = `${server.base}/api/v1`
  const hands = new LeanClient(api)
  try {
    await fillDemo(server.base)
    const put = hands.put.bind(hands)
    const days = await Promise.all(
      riders.map(
        async (r) => (await (await fetch(`${api}/days/${idOf(`day tent ${r}`)}`)).json()) as DayBundle,
      ),
    )
    /** A run with its feel, as it is logged; ms for both, and when the run was sent. */
    const log = async (n: number, sent?: Map<string, number>): Promise<number> => {
      const { day } = days[n % days.length]
      const run: Run = {
        ...days[0].runs[0],
        id: uuid(),
        version: 0,
        dayId: day.id,
        setupId: day.startSetupId,
        startedAt: new Date(Date.UTC(2026, 1, 1) + n * 1000).toISOString(),
      }
      const feel: Feel = {
        runId: run.id,
        version: 0,
        rating: 6,
        marks: [],
        verdicts: [],
        answers: [],
        note: '',
      }
      const start = performance.now()
      sent?.set(run.id, start)
      await put(`/runs/${run.id}`, run)
      await put(`/runs/${run.id}/feel`, feel)
      return performance.now() - start
    }
    let next = 0
    const byClients = async (clients: number, sent?: Map<string, number>, n = entries): Promise<number> => {
      const times: number[] = []
      const end = next + n
      await Promise.all(
        Array.from({ length: clients }, async () => {
          while (next < end) times.push(await log(next++, sent))
        }),
      )
      return p95(times)
    }
    await byClients(1)
    const one = await byClients(1)
    const fifty = await byClients(50, undefined, entriesOfFifty)

    const leave = await audience(server.base, 50, 100)
    let oneBeforeAll: number
    let fiftyBeforeAll: number
    try {
      oneBeforeAll = await byClients(1)
      fiftyBeforeAll = await byClients(50, undefined, entriesOfFifty)
    } finally {
      leave()
    }

    // Three screens listen while twelve hands write, one after the other as hands do.
    const cancel = new AbortController()
    const sent = new Map<string, number>()
    const late: number[] = []
    const screens = Array.from({ length: 3 }, () => hear(`${api}/events`, cancel.signal, sent, late))
    await new Promise((r) => setTimeout(r, 300))
    await byClients(12, sent)
    await new Promise((r) => setTimeout(r, 500))
    cancel.abort()
    await Promise.all(screens)
    return [
      {
        work: 'a run with its feel saved, one client, p95',
        figure: one,
        unit: 'ms',
        against: 'single figure',
      },
      {
        work: '50 clients flat out, p95 of the same',
        figure: fifty / one,
        unit: '× one client',
        against: 'bar ≤ 10 ×',
      },
      {
        work: 'the same while 50 screens listen and 100 connections drip',
        figure: fiftyBeforeAll / oneBeforeAll,
        unit: '× one client',
        against: `bar ≤ 10 ×; one client then ${oneBeforeAll.toFixed(1)} ms`,
      },
      {
        work: 'a run that one of 12 clients flat out saves is told on three screens, p95',
        figure: p95(late),
        unit: 'ms',
        against: `bar ≤ 1000 ms; ${late.length} of ${3 * entries} told`,
      },
    ]
  } finally {
    hands.close()
    await server.stop()
  }
}

/** Screens and slow connections, in a process of their own; comes back when all screens are told. */
async function audience(base: string, screens: number, slow: number): Promise<() => void> {
  const words = ['node_modules/tsx/dist/cli.mjs', 'bench/audience.ts', base, String(screens), String(slow)]
  // Its input ends with this process too, so that it never stays behind.
  const child = spawn(process.execPath, words, { stdio: ['pipe', 'pipe', 'inherit'] })
  await new Promise<void>((resolve, reject) => {
    child.stdout.on('data', (said: Buffer) => said.toString().includes('here') && resolve())
    child.on('exit', (code) => reject(new Error(`the audience ended with ${code}`)))
  })
  return () => void child.stdin.end()
}

const p95 = (times: number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length * 0.95)]

/** A screen: notes how long after it was sent each run was told. */
async function hear(
  url: string,
  signal: AbortSignal,
  sent: Map<string, number>,
  late: number[],
): Promise<void> {
  const answer = await fetch(url, { signal })
  const text = new TextDecoder()
  let rest = ''
  try {
    for await (const piece of answer.body!) {
      rest += text.decode(piece as Uint8Array, { stream: true })
      const events = rest.split('\n\n')
      rest = events.pop()!
      for (const e of events) {
        const id = /^event: run$/m.test(e) ? /"run":\{"id":"([^"]+)"/.exec(e)?.[1] : undefined
        const at = id && sent.get(id)
        if (at) late.push(performance.now() - at)
      }
    }
  } catch {
    // Switched off.
  }
}
