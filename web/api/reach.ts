import { shallowRef } from 'vue'

/** Since when the server could not be reached, ms; null while it answers. */
export const outOfReachSince = shallowRef<number | null>(null)

export const answered = (): void => void (outOfReachSince.value = null)
export const unanswered = (): void => void (outOfReachSince.value ??= Date.now())
