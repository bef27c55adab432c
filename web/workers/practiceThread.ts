import { wrap } from 'comlink'
import type { Practising } from './practice.worker.ts'

let thread: Worker | null = null
let started: ReturnType<typeof wrap<Practising>> | null = null

/** The thread that rides and plays for practice; begun when somebody first needs it. */
export function practiceThread() {
  thread ??= new Worker(new URL('./practice.worker.ts', import.meta.url), { type: 'module' })
  return (started ??= wrap<Practising>(thread))
}

/** Ends what the thread is at; the next one begins anew. */
export function endPracticeThread(): void {
  thread?.terminate()
  thread = started = null
}
