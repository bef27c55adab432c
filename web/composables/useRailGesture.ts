import { ref, type Ref } from 'vue'

/** Less than this is a tap, px. */
const tapPx = 8

/**
 * Tells a tap and a sideways drag on a rail from a finger that only scrolls by. Nothing is said before the finger lifts,
 * and nothing at all when it moved up or down first or the browser took it for scrolling.
 *
 * @param pick what a horizontal place along the rail stands for, 0 … 1
 */
export function useRailGesture(track: Ref<HTMLElement | undefined>, pick: (share: number) => void) {
  /** Share along the rail while a drag is under way. */
  const drag = ref<number | null>(null)
  let start: { x: number; y: number; id: number; way: 'open' | 'sideways' | 'none' } | null = null

  const shareAt = (x: number) => {
    const box = track.value!.getBoundingClientRect()
    return Math.min(1, Math.max(0, (x - box.left) / box.width))
  }
  function down(e: PointerEvent): void {
    if (e.button !== 0) return
    start = { x: e.clientX, y: e.clientY, id: e.pointerId, way: 'open' }
  }
  function move(e: PointerEvent): void {
    if (!start || e.pointerId !== start.id) return
    const dx = Math.abs(e.clientX - start.x)
    const dy = Math.abs(e.clientY - start.y)
    if (start.way === 'open' && Math.max(dx, dy) >= tapPx) {
      start.way = dx > dy ? 'sideways' : 'none'
      if (start.way === 'sideways') track.value?.setPointerCapture?.(e.pointerId)
    }
    if (start.way === 'sideways') drag.value = shareAt(e.clientX)
  }
  function up(e: PointerEvent): void {
    if (!start || e.pointerId !== start.id) return
    const { way, x, y } = start
    // A pointer that jumped without moving in between is judged by where it came down and went up.
    const dx = Math.abs(e.clientX - x)
    const dy = Math.abs(e.clientY - y)
    const tap = way === 'open' && Math.max(dx, dy) < tapPx
    end()
    if (tap || way === 'sideways') pick(shareAt(e.clientX))
  }
  function end(): void {
    start = null
    drag.value = null
  }
  return { drag, on: { pointerdown: down, pointermove: move, pointerup: up, pointercancel: end } }
}
