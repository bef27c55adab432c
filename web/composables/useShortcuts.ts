import { dialogsOpen } from '../support/dialogsOpen.ts'
import { onMounted, onUnmounted, shallowReactive } from 'vue'

/** A key, what it does in words, and the act. Keys that are told together share their words' line. */
export interface Shortcut {
  /** What the browser calls the key. */
  key: string
  does: string
  act: () => void
}

/** Every key that answers now, screen by screen: what the help shows is what is listened to. */
const listening = shallowReactive<(readonly Shortcut[])[]>([])
export const shortcutsNow = (): Shortcut[] => listening.flat()

const plain = (e: KeyboardEvent) => !(e.ctrlKey || e.metaKey || e.altKey || e.repeat)

function answer(e: KeyboardEvent): void {
  if (!plain(e) || e.defaultPrevented) return
  const target = e.target instanceof Element ? e.target : null
  // A letter that is typed, or that a dialog is open to, is no shortcut.
  if (dialogsOpen.count > 0 || target?.closest('input, textarea, select, [contenteditable]')) return
  const hit = shortcutsNow().findLast((s) => s.key === e.key)
  if (!hit) return
  e.preventDefault()
  hit.act()
}

/** Single-letter shortcuts of a screen; silent while something is typed or a dialog is open. */
export function useShortcuts(keys: readonly Shortcut[]): void {
  onMounted(() => {
    if (listening.length === 0) window.addEventListener('keydown', answer)
    listening.push(keys)
  })
  onUnmounted(() => {
    listening.splice(listening.indexOf(keys), 1)
    if (listening.length === 0) window.removeEventListener('keydown', answer)
  })
}
