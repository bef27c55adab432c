import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ApiError } from '../api/client.ts'

export interface Notice {
  id: number
  text: string
  kind: 'done' | 'error'
  /** The day it speaks of; it leaves with that day. */
  dayId: string | null
  /** What the undo button does; null for none. */
  undo: (() => Promise<void>) | null
}

const shownMs = { done: 7000, error: 14000 }

/** Short messages at the foot of the screen, with undo where something was taken away. */
export const useNotices = defineStore('notices', () => {
  const list = ref<Notice[]>([])
  let next = 1

  function show(
    text: string,
    kind: Notice['kind'] = 'done',
    undo: Notice['undo'] = null,
    dayId: string | null = null,
  ): void {
    const id = next++
    list.value = [...list.value.slice(-2), { id, text, kind, undo, dayId }]
    setTimeout(() => dismiss(id), shownMs[kind])
  }
  function dismiss(id: number): void {
    list.value = list.value.filter((n) => n.id !== id)
  }
  /** Takes away what speaks of a day that is not on the screen any more. */
  function leave(dayId: string): void {
    list.value = list.value.filter((n) => n.dayId !== dayId)
  }
  /** Runs an action; a failure is told, never swallowed. @returns whether it went through */
  async function attempt(action: () => Promise<unknown>): Promise<boolean> {
    try {
      await action()
      return true
    } catch (e) {
      // Nobody is signed in: the door says so.
      if (e instanceof ApiError && e.problem?.status === 401) return false
      show(
        e instanceof ApiError
          ? e.message
          : 'Something went wrong here in the page; reload it. Nothing saved was lost.',
        'error',
      )
      if (!(e instanceof ApiError)) console.error(e)
      return false
    }
  }
  return { list, show, dismiss, leave, attempt }
})
