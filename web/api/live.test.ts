// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'

class FakeSource {
  static open: FakeSource[] = []
  static readonly CONNECTING = 0
  static readonly CLOSED = 2
  readyState = 1
  private handlers = new Map<string, (e: { data: string; lastEventId: string }) => void>()
  constructor(readonly address: string) {
    FakeSource.open.push(this)
  }
  addEventListener(name: string, handler: (e: { data: string; lastEventId: string }) => void) {
    this.handlers.set(name, handler)
  }
  close() {
    FakeSource.open = FakeSource.open.filter((s) => s !== this)
  }
  say(name: string, data: object = {}, id = 1) {
    this.handlers.get(name)!({ data: JSON.stringify(data), lastEventId: String(id) })
  }
}
vi.stubGlobal('EventSource', FakeSource)
const { useLive, whenRefused } = await import('./live.ts')

function see(state: 'visible' | 'hidden') {
  Object.defineProperty(document, 'visibilityState', { value: state, configurable: true })
  document.dispatchEvent(new Event('visibilitychange'))
}
const listen = (handlers: Parameters<typeof useLive>[0]) => {
  const scope = effectScope()
  scope.run(() => useLive(handlers))
  return () => scope.stop()
}

describe('live events in the page', () => {
  beforeEach(() => see('visible'))
  it('share one stream, which ends with its last listener', () => {
    const stop = [listen({}), listen({})]
    expect(FakeSource.open).toHaveLength(1)
    stop[0]()
    expect(FakeSource.open).toHaveLength(1)
    stop[1]()
    expect(FakeSource.open).toHaveLength(0)
  })
  it('reach everybody who listens, in the shape the contract gives them, and nothing else', () => {
    const event = vi.fn()
    const stop = listen({ event })
    const ingest = {
      type: 'ingest',
      recordingId: '01a21259-5d75-71e8-8587-e53156d25a81',
      share: 0.5,
      doing: 'Reading the file',
    }
    FakeSource.open[0].say('ingest', ingest)
    expect(event).toHaveBeenCalledWith(ingest)
    FakeSource.open[0].say('feel', { type: 'feel', dayId: 'not an id' })
    expect(event).toHaveBeenCalledTimes(1)
    stop()
  })
  it('carry their number, which comes before what they tell; the reading of a file has none', () => {
    const heard: (number | string)[] = []
    const stop = listen({
      told: (n) => heard.push(n),
      here: () => heard.push('here'),
      event: (e) => heard.push(e.type),
    })
    FakeSource.open[0].say('hello', {}, 40)
    FakeSource.open[0].say('stale', { type: 'stale', what: 'garage', id: null }, 41)
    const recordingId = '01a21259-5d75-71e8-8587-e53156d25a81'
    FakeSource.open[0].say('ingest', { type: 'ingest', recordingId, share: 1, doing: 'Done' }, 42)
    expect(heard).toEqual([40, 'here', 41, 'stale', 'ingest'])
    stop()
  })
  it('are asked for again where the server refused them, and whoever was signed out is told', () => {
    vi.useFakeTimers()
    const refused = vi.fn()
    whenRefused(refused)
    const here = vi.fn()
    const stop = listen({ here })
    const fails = (readyState: number) => {
      const [source] = FakeSource.open
      source.readyState = readyState
      source.say('error')
      if (readyState === FakeSource.CLOSED) source.close()
    }
    // Cut off is not refused: the browser comes back by itself.
    fails(FakeSource.CONNECTING)
    expect(refused).not.toHaveBeenCalled()
    expect(FakeSource.open).toHaveLength(1)
    fails(FakeSource.CLOSED)
    expect(refused).toHaveBeenCalledTimes(1)
    expect(FakeSource.open).toHaveLength(0)
    vi.advanceTimersByTime(5000)
    expect(FakeSource.open).toHaveLength(1)
    FakeSource.open[0].say('hello')
    expect(here).toHaveBeenCalledTimes(1)
    // Nobody looks by then: nothing is asked.
    fails(FakeSource.CLOSED)
    stop()
    vi.advanceTimersByTime(60_000)
    expect(FakeSource.open).toHaveLength(0)
    vi.useRealTimers()
  })
  it('pause while the window is hidden, and tell when they are back', () => {
    const here = vi.fn()
    const stop = listen({ here })
    FakeSource.open[0].say('hello')
    here.mockClear()
    see('hidden')
    expect(FakeSource.open).toHaveLength(0)
    see('visible')
    expect(FakeSource.open).toHaveLength(1)
    FakeSource.open[0].say('hello')
    expect(here).toHaveBeenCalledOnce()
    stop()
  })
})
