import { createPinia, setActivePinia } from 'pinia'
import { cache } from '../api/cache.ts'
import { Outbox } from '../api/outbox.ts'
import { sendLetter } from '../api/send.ts'
import { memoryShelf, type Shelf } from '../api/shelves.ts'
import { applyLive } from '../api/cache.ts'
import { asLive } from '../api/mail.ts'
import { holdOutbox } from '../stores/outbox.ts'

/** Retries come this much sooner than in the page. */
const faster = 100

/** A page of its own, as it is after a reload: new stores, nothing cached; what waited on the shelf is still there. */
export async function openPage(shelf: Shelf = memoryShelf()): Promise<Outbox> {
  cache.clear()
  const outbox = new Outbox({
    shelf,
    send: sendLetter,
    channel: { post: () => {}, listen: () => {} },
    tab: crypto.randomUUID(),
    now: () => Date.now(),
    later: (act, ms) => setTimeout(act, ms / faster),
    never: (t) => clearTimeout(t as ReturnType<typeof setTimeout>),
  })
  outbox.onSent((letter, saved) => {
    const told = asLive(letter, saved)
    if (told) applyLive(cache, told)
  })
  holdOutbox(outbox)
  setActivePinia(createPinia())
  await outbox.start()
  return outbox
}

/** Waits until nothing waits, or until it is clear that it will go on waiting. */
export async function quiet(outbox: Outbox): Promise<void> {
  for (let i = 0; i < 200; i++) {
    await new Promise((r) => setTimeout(r, 5))
    const { letters, unreachableSince } = outbox.state()
    if (unreachableSince !== null || letters.every((l) => l.state !== 'waiting')) return
  }
}
