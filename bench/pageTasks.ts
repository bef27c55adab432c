import type { Page } from '@playwright/test'

/** A task of the page's thread: from beginning to end, and what the thread worked of it; the rest is waiting. */
export interface PageTask {
  wallMs: number
  workMs: number
}

/**
 * What the page's thread did after each act, task by task.
 * @param acts  done one after another; each is marked in the trace when it begins
 * @param redrawMs how long after an act its tasks are counted
 * @param pauseMs  from act to act
 */
export async function tasksAfter(
  page: Page,
  acts: readonly ((mark: string) => Promise<void>)[],
  redrawMs: number,
  pauseMs: number,
): Promise<PageTask[][]> {
  const devtools = await page.context().newCDPSession(page)
  const events: TraceEvent[] = []
  devtools.on('Tracing.dataCollected', (e) => events.push(...(e.value as unknown as TraceEvent[])))
  await devtools.send('Tracing.start', {
    traceConfig: { includedCategories: ['devtools.timeline', 'toplevel'] },
  })
  for (const act of acts) {
    await act(mark)
    await page.waitForTimeout(pauseMs)
  }
  const done = new Promise<void>((resolve) => devtools.once('Tracing.tracingComplete', () => resolve()))
  await devtools.send('Tracing.end')
  await done
  await devtools.detach()
  return events
    .filter((e) => e.name === 'TimeStamp' && e.args?.data?.message === mark)
    .map((begun) =>
      events
        .filter(
          (e) => e.name === 'ThreadControllerImpl::RunTask' && e.pid === begun.pid && e.tid === begun.tid,
        )
        .filter((e) => e.ts + (e.dur ?? 0) > begun.ts && e.ts < begun.ts + 1000 * redrawMs)
        .map((e) => ({ wallMs: (e.dur ?? 0) / 1000, workMs: (e.tdur ?? 0) / 1000 })),
    )
}
const mark = 'act'

export const middleOf = (all: readonly number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]

/** A line of the browser's trace; times in µs. */
interface TraceEvent {
  name: string
  pid: number
  tid: number
  ts: number
  dur?: number
  /** On the processor, alone. */
  tdur?: number
  args?: { data?: { message?: string } }
}
