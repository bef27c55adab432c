// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'

class FakeSource {
  static open: FakeSource[] = []
  private handlers = new Map<string, (e: { data: string }) => void>()
  constructor(readonly address: string) {
    FakeSource.open.push(this)
  }
  addEventListener(name: string, handler: (e: { data: string }) => void) {
    this.handlers.set(name, handler)
  }
  close() {
    FakeSource.open = FakeSource.open.filter((s) => s !== this)
  }
  say(name: string, data: object = {}) {
    this.handlers.get(name)!({ data: JSON.stringify(data) })
  }
}
vi.stubGlobal('EventSource', FakeSource)
const { useLive } = await import('./live.ts')

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
  it('reach whoever asked for their kind', () => {
    const day = vi.fn()
    const ingest = vi.fn()
    const stop = listen({ day, ingest })
    FakeSource.open[0].say('day', { dayId: 'd1' })
    FakeSource.open[0].say('ingest', { recordingId: 'r', share: 0.5, doing: 'Reading the file' })
    expect(day).toHaveBeenCalledWith('d1')
    expect(ingest).toHaveBeenCalledWith('r', 0.5, 'Reading the file')
    stop()
  })
  it('pause while the window is hidden, and tell when they are back', () => {
    const back = vi.fn()
    const stop = listen({ back })
    FakeSource.open[0].say('hello')
    back.mockClear()
    see('hidden')
    expect(FakeSource.open).toHaveLength(0)
    see('visible')
    expect(FakeSource.open).toHaveLength(1)
    FakeSource.open[0].say('hello')
    expect(back).toHaveBeenCalledOnce()
    stop()
  })
})
