import type { DayBundle } from '#contract/endpoints'
import type { TentHour } from '#contract/tent'
import { DayBuilder, fork, shock } from '#core/test/dayBuilder'
import { changedSinceStart, laneOf } from '#core/tent/lane'
import { byNeed } from '#core/tent/need'
import { trends } from '#core/tent/trend'
import { idOf } from '../demo/ids.ts'
import { fillDemo, startProcess } from '../e2e/server.ts'
import { builtBrowser } from './builtBrowser.ts'
import { medianMs, timesAsLong, type Row } from './measure.ts'
import { middleOf, tasksAfter } from './pageTasks.ts'

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
  const server = await startProcess()
  try {
    await fillDemo(server.base)
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${server.base}/tent/${idOf('tent practice')}`)
    await page.getByText('all as it started').first().waitFor()
    // What came with the page is done.
    await page.waitForTimeout(settleMs)
    const keys = ['Goes out', 'Rests', 'Goes out', 'Rests', 'Goes out', 'Rests', 'Goes out']
    const press = (name: string) => (mark: string) =>
      page
        .getByRole('group', { name: 'Where the rider is' })
        .getByRole('button', { name })
        .evaluate((button: HTMLElement, words) => {
          console.timeStamp(words)
          button.click()
        }, mark)
    const tasks = await tasksAfter(page, keys.map(press), redrawMs, settleMs / 4)
    return [
      {
        work: 'redrawing six lanes after a rider went out: longest task of the page, script to paint',
        figure: middleOf(tasks.map((t) => Math.max(...t.map((x) => x.wallMs)))),
        unit: 'ms',
        against: `bar ≤ 16 ms; all tasks of the first ${redrawMs} ms together ${middleOf(tasks.map((t) => t.reduce((x, y) => x + y.wallMs, 0))).toFixed(0)} ms`,
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
