import { useEventListener } from '@vueuse/core'
import { useNotices } from '../stores/notices.ts'

/** Several parts may be missing at one tap; it is told once in so long, ms. */
const tellAgainMs = 10_000

/**
 * A part of the page that does not come, after an update or out of reach, is told: a dialog that does not open is silent
 * otherwise. Whole screens the router takes anew by itself.
 */
export function useMissingParts(): void {
  const notices = useNotices()
  let toldAt = -Infinity
  useEventListener(window, 'vite:preloadError', () => {
    if (performance.now() - toldAt < tellAgainMs) return
    toldAt = performance.now()
    notices.show(
      'This part of the page did not come: the server has a newer version, or is out of reach. Reload the page; nothing that was saved or waits here is lost.',
      'error',
    )
  })
}
