import { wrap, type Remote } from 'comlink'
import { onUnmounted } from 'vue'
import { endpoints } from '#contract/endpoints'
import type { ImportMapping } from '#contract/recording'
import { call } from '../api/client.ts'
import type { FileLook, FileWorker } from '../workers/file.worker.ts'

/** The worker that looks into sensor files, ended with the component; and mappings kept for known headers. */
export function useFileReader() {
  let worker: Worker | null = null
  let remote: Remote<FileWorker> | null = null
  function reader(): Remote<FileWorker> {
    worker ??= new Worker(new URL('../workers/file.worker.ts', import.meta.url), { type: 'module' })
    remote ??= wrap<FileWorker>(worker)
    return remote
  }
  onUnmounted(() => worker?.terminate())
  async function knownMapping(l: FileLook): Promise<ImportMapping | null> {
    if (!l.fingerprintBytes) return null
    const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', l.fingerprintBytes))
    const fingerprint = Array.from(hash, (b) => b.toString(16).padStart(2, '0')).join('')
    return (await call(endpoints.getMapping, { fingerprint }).catch(() => null))?.mapping ?? null
  }
  return { reader, knownMapping }
}
