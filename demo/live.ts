import { endpoints, type DayBundle } from '#contract/endpoints'
import type { GivenPadLink } from '#contract/pad'
import type { TentBundle } from '#contract/tent'
import { sender } from './send.ts'
import { nextDeed, type Deed } from './tent/deeds.ts'
import { tentId } from './tent/plan.ts'

/** Lets the riders of the practice come and go while somebody watches. `tsx demo/live.ts http://…`, until it is ended */
const address = process.argv[2] ?? 'http://127.0.0.1:4870'
const { send, put } = sender(address)
const everyMs = 2000

async function read<T>(path: string): Promise<T> {
  const answer = await fetch(`${address}/api/v1${path}`)
  if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`)
  return (await answer.json()) as T
}
/** Links of the simulated riders' phones. A link that is given by hand in the tent ends theirs: then they say nothing more. */
const tokens = new Map<string, string>()
async function phoneOf(dayId: string): Promise<string> {
  const held = tokens.get(dayId)
  if (held) return held
  const answer = await fetch(`${address}/api/v1/tent-riders/${dayId}/pad`, {
    method: 'PUT',
    body: '{}',
    headers: { 'content-type': 'application/json' },
  })
  const { token } = (await answer.json()) as GivenPadLink
  tokens.set(dayId, token)
  return token
}

async function carryOut(deed: Deed): Promise<void> {
  if (deed.does === 'turns') return put(endpoints.putSetup, deed.setup.id, deed.setup)
  if (deed.does === 'comes in') {
    await put(endpoints.putRun, deed.run.id, deed.run)
    if (deed.report) {
      const { report } = deed
      await send(
        `/pad/reports/${report.id}`,
        JSON.stringify({ report, phoneNow: new Date().toISOString() }),
        { Authorization: `Bearer ${await phoneOf(deed.rider.id)}` },
      )
    }
  }
  await put(endpoints.putTentRider, deed.rider.id, deed.rider)
}

for (;;) {
  try {
    const tent = await read<TentBundle>(`/tents/${tentId}`)
    const riders = [...tent.riders].sort(() => Math.random() - 0.5)
    for (const rider of riders) {
      const day = await read<DayBundle>(`/days/${rider.id}`)
      const deed = nextDeed(rider, day, Math.random, new Date().toISOString())
      if (!deed) continue
      await carryOut(deed)
      break
    }
  } catch (e) {
    // Somebody did the same a moment before, by hand: looked at afresh in the next round.
    console.error(e instanceof Error ? e.message : e)
  }
  await new Promise((r) => setTimeout(r, everyMs))
}
