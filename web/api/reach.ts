import { shallowRef, watch } from 'vue'

/** Since when the server could not be reached, ms; null while it answers. */
export const outOfReachSince = shallowRef<number | null>(null)

export const answered = (): void => void (outOfReachSince.value = null)
export const unanswered = (): void => void (outOfReachSince.value ??= Date.now())

/**
 * Does something as soon as the server answers again after it was out of reach; in a screen for as long as that is open.
 *
 * @param flush 'sync' before anybody has the answer; else when what it changes is settled
 */
export const onReachAgain = (again: () => unknown, flush: 'sync' | 'pre' = 'pre') =>
  watch(outOfReachSince, (since) => since === null && void again(), { flush })
