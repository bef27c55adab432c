import { onMounted, onUnmounted } from 'vue'

/** Single-letter shortcuts of a screen; silent while something is typed or a dialog is open. */
export function useShortcuts(keys: Record<string, () => void>): void {
  const listen = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || e.repeat) return
    const target = e.target as HTMLElement
    if (target.closest('input, textarea, select, [contenteditable], .modal')) return
    const act = keys[e.key]
    if (!act) return
    e.preventDefault()
    act()
  }
  onMounted(() => window.addEventListener('keydown', listen))
  onUnmounted(() => window.removeEventListener('keydown', listen))
}
