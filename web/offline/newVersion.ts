import { ref } from 'vue'

/** A newer page is here and waits to be asked for. */
export const newerIsHere = ref(false)

let waiting: ServiceWorker | null = null
const lookMs = 30 * 60_000

/**
 * Keeps the page on this device, so that it opens without its server. On plain http in a network no browser does that; there
 * it goes without.
 */
export async function keepPageHere(): Promise<void> {
  if (!('serviceWorker' in navigator) || !window.isSecureContext) return
  const offer = (worker: ServiceWorker | null) => {
    // The first one is nobody's successor.
    if (!worker || !navigator.serviceWorker.controller) return
    waiting = worker
    newerIsHere.value = true
  }
  try {
    const here = await navigator.serviceWorker.register('/worker.js')
    offer(here.waiting)
    here.addEventListener('updatefound', () => {
      const next = here.installing
      next?.addEventListener('statechange', () => next.state === 'installed' && offer(next))
    })
    setInterval(() => void here.update().catch(() => undefined), lookMs)
  } catch {
    // A private window, or no room: the page works while its server is in reach.
  }
}

/** Takes the newer page: every window of it is opened anew. What waits in the outbox stays. */
export function takeNewer(): void {
  navigator.serviceWorker.addEventListener('controllerchange', () => location.reload())
  waiting?.postMessage('take-over')
}
