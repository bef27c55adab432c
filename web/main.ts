import '@fontsource-variable/atkinson-hyperlegible-next/wght.css'
import '@fontsource-variable/bricolage-grotesque/wght.css'
import './styles/tokens.scss'
import './styles/bootstrap.scss'
import './styles/base.scss'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { askAccess } from './api/door.ts'
import { applyLive, cache, hear, readMissed } from './api/cache.ts'
import { listen } from './api/live.ts'
import { openOutbox } from './api/mail.ts'
import { keepPageHere } from './offline/newVersion.ts'
import { router, sendAhead } from './router.ts'
import { holdOutbox } from './stores/outbox.ts'

// Every window is told of every change, from before its first reading on; what was missed while it slept, or before the
// stream was there, is read again.
listen({
  told: hear,
  event: (e) => applyLive(cache, e),
  here: () => readMissed(cache),
})
sendAhead()
void askAccess()
// What waits from an earlier page is laid over the first screen already.
const outbox = await openOutbox()
holdOutbox(outbox)
// Back in reach: at once, not at the next try.
listen({ here: () => void outbox.flush() })
createApp(App).use(createPinia()).use(VueQueryPlugin, { queryClient: cache }).use(router).mount('#app')
// After the first screen: it fetches every file of the page.
if (import.meta.env.PROD) void keepPageHere()
