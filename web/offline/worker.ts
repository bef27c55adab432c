import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

declare const self: ServiceWorkerGlobalScope
/** Every file of the page with the hash of its content; put in when it is built (scripts/build.mjs). */
declare const builtFiles: { url: string; revision: string | null }[]

// Page and scripts of one version together, whatever the server has by now: a half-new page is worse than an old one.
precacheAndRoute(builtFiles)
cleanupOutdatedCaches()
registerRoute(new NavigationRoute(createHandlerBoundToURL('/pad.html'), { allowlist: [/^\/pad\//] }))
registerRoute(
  new NavigationRoute(createHandlerBoundToURL('/index.html'), { denylist: [/^\/api\//, /^\/pad\//] }),
)

self.addEventListener('activate', (e) => e.waitUntil(self.clients.claim()))
// A newer one waits until somebody asks for it.
self.addEventListener('message', (e) => {
  if (e.data === 'take-over') void self.skipWaiting()
})
