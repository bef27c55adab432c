import type { Page } from '@playwright/test'
import type { DayBundle } from '#contract/endpoints'
import type { TentHour } from '#contract/tent'
import { DayBuilder, fork, shock } from '#core/test/dayBuilder'
import { changedSinceStart, laneOf } from '#core/tent/lane'
import { byNeed } from '#core/tent/need'
import { trends } from '#core/tent/trend'
import { idOf } from '../demo/ids.ts'
import { fillDemo, startServer } from '../e2e/server.ts'
import { builtBrowser } from './builtBrowser.ts'
import { medianMs, timesAsLong, type Row } from './measure.ts'

/** A rider's practice: ten runs with a change before each but the first. */
function practice(n: number): DayBundle {
  const day = new DayBuilder().run(6)
  for (let i = 0; i < 9; i++)
    day.change({ rr: 7 - ((i + n) % 3), fc: 8 - ((i + n) % 2) }, { linked: true }).run(6.5)
  const history = day.history()
  return {
    day: { id: 'day', startSetupId: history.startSetupId },
    units: [fork, shock],
    setups: history.setups.map((s, i) => ({
      ...s,
      dayId: i ? 'day' : null,
      parentId: history.setups[i - 1]?.id ?? null,
    })),
    runs: history.runs.map((r) => r.run),
    feels: history.runs.flatMap((r) => r.feel ?? []),
  } as unknown as DayBundle
}

const hours = [14, 18, 22, 27].map((airTempC, i) => ({
  at: `2026-11-21T0${7 + i}:00:00.000Z`,
  airTempC,
})) as TentHour[]

/** Everything that is reckoned when one rider of a tent did something. */
function board(days: readonly DayBundle[]) {
  const rows = days.map((d, i) => ({
    number: i + 1,
    whereabouts: i % 3 ? ('out' as const) : ('here' as const),
    sinceMs: i,
    openQuestion: false,
    later: false,
    lane: laneOf(d),
    changed: changedSinceStart(d),
  }))
  const moves = rows.flatMap((r) =>
    r.lane.changes.map((c) => ({ dayId: String(r.number), atMs: c.atMs, moves: c.moves })),
  )
  return [byNeed(rows), trends(moves, hours)]
}

export async function tentRows(): Promise<Row[]> {
  const twelve = Array.from({ length: 12 }, (_, i) => practice(i))
  const three = twelve.slice(0, 3)
  return [
    {
      work: 'order, lanes and trends of a tent of 12 riders with 10 runs and 9 changes each',
      figure: medianMs(() => board(twelve), 21),
      unit: 'ms',
      against: `bar ≤ 16 ms with the drawing; 3 riders: 1/${timesAsLong(
        () => board(twelve),
        () => board(three),
      ).toFixed(1)} of it`,
    },
    ...(await drawnRows()),
  ]
}

/** The practice of the demo: what a key that says where a rider is costs the page. */
async function drawnRows(): Promise<Row[]> {
  const browser = await builtBrowser()
  if (!browser) return []
  const server = await startServer()
  try {
    await fillDemo(server.base)
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${server.base}/tent/${idOf('tent practice')}`)
    await page.getByText('all as it started').first().waitFor()
    // What came with the page is done.
    await page.waitForTimeout(settleMs)
    const tasks = await tasksAfter(page, [
      'Goes out',
      'Rests',
      'Goes out',
      'Rests',
      'Goes out',
      'Rests',
      'Goes out',
    ])
    const middle = (all: number[]) => all.sort((a, b) => a - b)[Math.floor(all.length / 2)]
    return [
      {
        work: 'redrawing six lanes after a rider went out: longest task of the page, script to paint',
        figure: middle(tasks.map((t) => Math.max(...t))),
        unit: 'ms',
        against: `bar ≤ 16 ms; all tasks of the first ${redrawMs} ms together ${middle(tasks.map((t) => t.reduce((x, y) => x + y, 0))).toFixed(0)} ms`,
      },
    ]
  } finally {
    await browser.close()
    await server.stop()
  }
}

/** Until nothing of what a page opened with is left to do. */
const settleMs = 4000
/** A rider is shown elsewhere by then; what comes after is the answer of the server. */
const redrawMs = 60

/** What the page's thread did after each key, ms a task. */
async function tasksAfter(page: Page, keys: readonly string[]): Promise<number[][]> {
  const devtools = await page.context().newCDPSession(page)
  const events: TraceEvent[] = []
  devtools.on('Tracing.dataCollected', (e) => events.push(...(e.value as unknown as TraceEvent[])))
  await devtools.send('Tracing.start', {
    traceConfig: { includedCategories: ['devtools.timeline', 'toplevel'] },
  })
  for (const key of keys) {
    await page
      .getByRole('group', { name: 'Where the rider is' })
      .getByRole('button', { name: key })
      .evaluate((button: HTMLElement) => {
        console.timeStamp('key')
        button.click()
      })
    await page.waitForTimeout(settleMs / 4)
  }
  const done = new Promise<void>((resolve) => devtools.once('Tracing.tracingComplete', () => resolve()))
  await devtools.send('Tracing.end')
  await done
  return events
    .filter((e) => e.name === 'TimeStamp' && e.args?.data?.message === 'key')
    .map((key) =>
      events
        .filter((e) => e.name === 'ThreadControllerImpl::RunTask' && e.pid === key.pid && e.tid === key.tid)
        .filter((e) => e.ts + (e.dur ?? 0) > key.ts && e.ts < key.ts + 1000 * redrawMs)
        .map((e) => (e.dur ?? 0) / 1000),
    )
}

/** A line of the browser's trace; times in µs. */
interface TraceEvent {
  name: string
  pid: number
  tid: number
  ts: number
  dur?: number
  args?: { data?: { message?: string } }
}
