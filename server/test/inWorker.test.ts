import { describe, expect, it } from 'vitest'
import { ingestInWorker } from '../ingest/inWorker.ts'
import type { IngestJob } from '../ingest/job.ts'

const job = { files: [], geometry: {}, sections: [], placing: {} } as unknown as IngestJob
const control = () => ({ onProgress: () => {}, signal: new AbortController().signal })
const script = (code: string) => new URL(`data:text/javascript,${encodeURIComponent(code)}`)

describe('a reading thread that goes wrong', () => {
  it('and never ends is a refusal of the file after its time, not a server that hangs', async () => {
    const ingest = ingestInWorker(script('for (;;) {}'), { seconds: 0.3, heapMb: 256 })
    await expect(ingest(job, control())).rejects.toMatchObject({
      code: 'file.took-too-long',
      detail: { seconds: 0.3 },
    })
  })
  it('and takes all memory is a refusal too, and this process lives on', async () => {
    const hungry = 'const a = []; for (;;) a.push({ x: a.length, y: [a.length] })'
    const ingest = ingestInWorker(script(hungry), { seconds: 60, heapMb: 32 })
    await expect(ingest(job, control())).rejects.toMatchObject({ code: 'file.too-much-memory' })
  })
  it('and is cancelled from outside ends with that reason', async () => {
    const cancel = new AbortController()
    const ingest = ingestInWorker(script('for (;;) {}'), { seconds: 60, heapMb: 256 })
    const done = ingest(job, { onProgress: () => {}, signal: cancel.signal })
    setTimeout(() => cancel.abort(new Error('not wanted any more')), 50)
    await expect(done).rejects.toThrow('not wanted any more')
  })
})
