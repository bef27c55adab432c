import { onReachAgain } from './reach.ts'

/** Nothing else may ask meanwhile, and a stream that held all along says no hello. */
const againMs = 10_000

/**
 * Readings that did not reach the server: the screen shows what was seen last, and each is asked for again as soon as the
 * server answers anything, or after a while.
 *
 * @param read asks again for what stands under this key
 */
export function readingsBehind(read: (queryKey: string[]) => void) {
  const behind = new Map<string, string[]>()
  let timer: ReturnType<typeof setTimeout> | null = null
  function readAgain(): void {
    if (timer !== null) clearTimeout(timer)
    timer = null
    const keys = [...behind.values()]
    // What fails once more comes back by itself.
    behind.clear()
    for (const key of keys) read(key)
  }
  onReachAgain(readAgain, 'sync')
  return {
    add(queryKey: string[]): void {
      behind.set(queryKey.join(), queryKey)
      timer ??= setTimeout(readAgain, againMs)
    },
    readAgain,
  }
}
