import { onScopeDispose, watch, type Ref } from 'vue'

/**
 * What one is tapping stays under the hand while what stands above it is made anew: as long as the hand is there, the
 * part above keeps its height and scrolls in itself. It ends when the hand goes elsewhere.
 */
export function useSteady(above: Ref<HTMLElement | null>, tapped: Ref<HTMLElement | null>): void {
  const hold = () => {
    const slot = above.value
    if (!slot || slot.style.height || slot.offsetHeight === 0) return
    slot.style.height = `${slot.offsetHeight}px`
    slot.style.overflowY = 'auto'
  }
  /** Whole again; what was scrolled to in it stays where it is, so that a press on it lands. */
  const release = () => {
    const slot = above.value
    if (!slot?.style.height) return
    const scrolled = slot.scrollTop
    Object.assign(slot.style, { height: '', overflowY: '' })
    if (scrolled > 0) scrollerOf(slot).scrollTop += scrolled
  }
  const touched = (e: Event) => (tapped.value?.contains(e.target as Node) ? hold() : release())
  window.addEventListener('pointerdown', touched, true)
  window.addEventListener('focusin', touched, true)
  // A mouse has gone when it leaves; a finger leaves after every tap.
  const left = (e: PointerEvent) => e.pointerType === 'mouse' && release()
  watch(
    tapped,
    (now, before) => {
      before?.removeEventListener('pointerleave', left)
      now?.addEventListener('pointerleave', left)
    },
    { immediate: true, flush: 'post' },
  )
  onScopeDispose(() => {
    window.removeEventListener('pointerdown', touched, true)
    window.removeEventListener('focusin', touched, true)
    tapped.value?.removeEventListener('pointerleave', left)
    release()
  })
}

function scrollerOf(part: HTMLElement): Element {
  for (let at = part.parentElement; at; at = at.parentElement)
    if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at
  return document.scrollingElement ?? document.documentElement
}
