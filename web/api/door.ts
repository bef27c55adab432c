import { computed, shallowRef } from 'vue'
import type { Access } from '#contract/access'
import { endpoints } from '#contract/endpoints'
import { call, whenLocked } from './client.ts'
import { forgetHeld } from './held.ts'
import { whenRefused } from './live.ts'
import { onReachAgain } from './reach.ts'

/** How this page stands to the door of its server; null: not asked yet, or the server is out of reach. */
export const access = shallowRef<Access | null>(null)

/** Nobody gets further before they have said who they are. */
export const shut = computed(() => access.value !== null && access.value.role === null)

/** A screen for everybody: it looks, and touches nothing. */
export const isWall = computed(() => access.value?.role === 'wall')

let asking: Promise<void> | null = null
/** Asks how it stands; out of reach, what was known stays. */
export function askAccess(): Promise<void> {
  asking ??= call(endpoints.getAccess, {})
    .then((a) => {
      access.value = a
      // Whoever sits here next is somebody else.
      if (a.role === null) void forgetHeld()
    })
    .catch(() => undefined)
    .finally(() => (asking = null))
  return asking
}

// Signed out elsewhere, or the lock was changed: a page that asks for nothing is told by its stream.
whenLocked(() => void askAccess())
whenRefused(() => void askAccess())
// Opened out of reach, the page does not know yet for whom it is.
onReachAgain(() => access.value === null && askAccess())
