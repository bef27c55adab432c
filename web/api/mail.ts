import { v7 as uuid } from 'uuid'
import type { LiveEvent } from '#contract/live'
import type { Bench } from '#contract/bench'
import type { TrailDay } from '#contract/day'
import type { ProposalRecord } from '#contract/proposal'
import type { Feel, Run } from '#contract/run'
import type { Setup } from '#contract/setup'
import { applyLive, cache, holdLetters } from './cache.ts'
import { ApiError } from './client.ts'
import type { Letter, NewLetter } from './letters.ts'
import { Outbox, type Channel } from './outbox.ts'
import { sendLetter } from './send.ts'
import { databaseShelf, memoryShelf } from './shelves.ts'
import { layTaken } from './taken.ts'

/** Tabs of this page tell each other what they wrote; where the browser has no such thing, each sends its own. */
function tabChannel(): Channel {
  if (typeof BroadcastChannel === 'undefined') return { post: () => {}, listen: () => {} }
  const channel = new BroadcastChannel('wild-spring-outbox')
  return {
    post: (news) => channel.postMessage(news),
    listen: (hear) => channel.addEventListener('message', (e) => hear(e.data)),
  }
}

/** The outbox of this page. A browser that keeps nothing still sends; `durable` says so. */
export async function openOutbox(): Promise<Outbox> {
  const shelf = await databaseShelf().catch(memoryShelf)
  const outbox = new Outbox({
    shelf,
    send: sendLetter,
    channel: tabChannel(),
    tab: uuid(),
    now: () => Date.now(),
    later: (act, ms) => setTimeout(act, ms),
    never: (t) => clearTimeout(t as ReturnType<typeof setTimeout>),
  })
  holdLetters(() => outbox.state().letters)
  // Without this a browser that is short of room may clear what waits.
  let asked = false
  outbox.subscribe((s) => {
    if (asked || s.unreachableSince === null || s.letters.length === 0) return
    asked = true
    void navigator.storage?.persist?.().catch(() => false)
  })
  // What the server took is laid over what is held, whether or not the live stream is open.
  outbox.onSent((letter, saved) => {
    const told = asLive(letter, saved)
    if (told) applyLive(cache, told)
    layTaken(cache, letter, saved)
  })
  window.addEventListener('pagehide', () => void outbox.close())
  // Shown again from the browser's memory: it sends on.
  window.addEventListener('pageshow', (e: PageTransitionEvent) => e.persisted && location.reload())
  await outbox.start()
  return outbox
}

/** A confirmed write as the live event that everybody else is told by. */
export function asLive(letter: Letter, saved: unknown): LiveEvent | null {
  switch (letter.kind) {
    case 'run':
      return { type: 'run', dayId: (saved as Run).dayId, run: saved as Run }
    case 'feel': {
      const feel = saved as Feel
      const dayId = dayOfRun(feel.runId)
      return dayId ? { type: 'feel', dayId, feel } : null
    }
    case 'setup':
      return { type: 'setup', setup: saved as Setup }
    case 'day':
      return { type: 'day', day: saved as TrailDay }
    case 'proposal':
      return { type: 'proposal', proposal: saved as ProposalRecord }
    case 'bench':
      return { type: 'bench', bench: saved as Bench }
    case 'recording':
    case 'addedFile':
    case 'remove':
    case 'restore':
      // The server tells by name what else it touched.
      return { type: 'stale', what: 'day', id: null }
    // The server tells which tent.
    case 'tent':
    case 'tentRider':
    case 'tentHour':
    case 'tentNote':
    case 'takenReport':
    case 'handedReport':
      return null
    default:
      return { type: 'stale', what: 'garage', id: null }
  }
}

const dayOfRun = (runId: string) => runInDay(runId)?.dayId ?? null

/** The day of a run and its number there, where this page has read that day. */
export function runInDay(runId: string): { dayId: string; number: number } | null {
  for (const [key, b] of cache.getQueriesData<{ runs: Run[] }>({ queryKey: ['day'] })) {
    const at = b?.runs.findIndex((r) => r.id === runId) ?? -1
    if (at >= 0) return { dayId: key[1] as string, number: at + 1 }
  }
  return null
}

/** How a write went: the server keeps it, or it waits here because the server cannot be reached. */
export type Written<T> = { state: 'saved'; saved: T } | { state: 'kept-here' }

/**
 * Writes from a form that is still open: waits for the answer while the server is in reach. What is refused comes back to
 * the form instead of waiting in the outbox. What was kept here has no form any more: refused or changed elsewhere, it
 * stays, and the line about the outbox asks.
 *
 * @throws ApiError when it is refused, or changed elsewhere meanwhile (with both versions)
 */
export async function writeFromForm<T>(outbox: Outbox, written: NewLetter): Promise<Written<T>> {
  const letter = await outbox.write(written)
  return new Promise((resolve, reject) => {
    let stop = () => {}
    let isKept = false
    outbox.confirmed(letter.id).then(
      (saved) => (stop(), resolve({ state: 'saved', saved: saved as T })),
      (e: unknown) => {
        stop()
        if (e instanceof ApiError && e.problem && !isKept) void outbox.drop([letter.id])
        reject(e instanceof Error ? e : new Error(String(e)))
      },
    )
    stop = outbox.subscribe((s) => {
      const at = s.letters.findIndex((l) => l.id === letter.id)
      // Its own try failed, or it stands behind one whose try failed: it waits like that one.
      const stuck = s.letters.slice(0, at + 1).some((l) => l.state === 'waiting' && l.tries > 0)
      if (stuck && s.unreachableSince !== null) {
        queueMicrotask(() => stop())
        isKept = true
        resolve({ state: 'kept-here' })
      }
    })
  })
}
