import { v7 as uuid } from 'uuid'
import type { BundleLook, MadeBundle } from '#contract/bundle'
import { fillDemo, startProcess } from '../e2e/server.ts'
import type { Row } from './measure.ts'

/** Years of settings on their way from one server to another: 40 riders, 200 days. */
export async function bundleRows(): Promise<Row[]> {
  const [home, other] = [await startProcess(), await startProcess()]
  try {
    await fillDemo(home.base, 'large')
    const put = async <T>(base: string, path: string, body?: unknown): Promise<T> => {
      const isZip = body instanceof ArrayBuffer
      const r = await fetch(`${base}/api/v1${path}`, {
        method: 'PUT',
        headers: { 'content-type': isZip ? 'application/zip' : 'application/json' },
        ...(body === undefined ? {} : { body: isZip ? body : JSON.stringify(body) }),
      })
      if (!r.ok) throw new Error(`${path}: ${await r.text()}`)
      return (await r.json()) as T
    }
    const timed = async <T>(act: () => Promise<T>): Promise<[T, number]> => {
      const began = performance.now()
      return [await act(), performance.now() - began]
    }
    const id = uuid()
    const order = { scope: { kind: 'everything' }, with: { weights: true, voices: true, inside: true } }
    // Whoever rides on meanwhile: the longest that a small question has to wait.
    let longestMs = 0
    let isDone = false
    const asking = (async () => {
      while (!isDone) {
        const [, ms] = await timed(() => fetch(`${other.base}/api/v1/health`))
        longestMs = Math.max(longestMs, ms)
        await new Promise((r) => setTimeout(r, 5))
      }
    })()
    const [made, makeMs] = await timed(() => put<MadeBundle>(home.base, `/data/bundles/${id}`, order))
    const bytes = await (await fetch(`${home.base}/api/v1/data/bundles/${id}`)).arrayBuffer()
    const came = uuid()
    await put(other.base, `/data/arrivals/${came}`, bytes)
    const [look, lookMs] = await timed(() => put<BundleLook>(other.base, `/data/arrivals/${came}/look`))
    const choices = { differing: 'ours', except: [], taken: [] }
    const [, takeMs] = await timed(() => put(other.base, `/data/arrivals/${came}/take`, choices))
    isDone = true
    await asking
    const records = look.kinds.reduce((n, k) => n + k.fresh, 0)
    const of = `${records} records`
    return [
      {
        work: `bundle of everything, ${of}: written`,
        figure: makeMs / 1000,
        unit: 's',
        against: 'a progress bar',
      },
      { work: 'its size', figure: made.bytes / 1e6, unit: 'MB', against: '' },
      { work: 'unpacked, checked and compared', figure: lookMs / 1000, unit: 's', against: 'a progress bar' },
      { work: 'brought in, in one transaction', figure: takeMs, unit: 'ms', against: '' },
      {
        work: 'longest wait of a small question meanwhile',
        figure: longestMs,
        unit: 'ms',
        against: '1000 ms',
      },
    ]
  } finally {
    await home.stop()
    await other.stop()
  }
}
