/**
 * What the browser's Back does while dialogs are open: it closes the topmost one and stays on the page.
 *
 * Each open dialog has an entry of its own in the history, at the address of its page. One that was closed by hand leaves
 * its entry behind: going back at once would race with a page that opens in the same breath. A step back onto such a spent
 * entry is walked over instead. Framework-free: the history and the place of pop events are passed in.
 */
export interface BackStack {
  /** A dialog came up; `close` is what Back does with it. The answer tells the stack that it was closed by hand. */
  push: (close: () => void) => () => void
}

interface Entry {
  /** Place in the history as the router counts it. */
  position: unknown
  /** Dialogs that lie over the page at this entry. */
  dialogs: number
}

const entryOf = (state: unknown): Entry => {
  const s = (state ?? {}) as { position?: unknown; dialogs?: unknown }
  return { position: s.position ?? null, dialogs: typeof s.dialogs === 'number' ? s.dialogs : 0 }
}

export function backStack(
  history: Pick<History, 'state' | 'pushState' | 'back'>,
  pops: Pick<EventTarget, 'addEventListener'>,
): BackStack {
  const open: (() => void)[] = []
  let at = entryOf(history.state)
  pops.addEventListener(
    'popstate',
    (event) => {
      const before = at
      at = entryOf((event as PopStateEvent).state)
      // The same page: only dialogs lie between, and the router is not concerned.
      if (at.position !== before.position || at.dialogs === before.dialogs) return
      event.stopImmediatePropagation()
      if (at.dialogs > before.dialogs) return
      if (open.length > at.dialogs) while (open.length > at.dialogs) open.pop()!()
      else history.back()
    },
    { capture: true },
  )
  return {
    push(close) {
      open.push(close)
      at = entryOf(history.state)
      if (at.dialogs < open.length) {
        history.pushState({ ...(history.state as object), dialogs: open.length }, '')
        at = entryOf(history.state)
      }
      return () => {
        const i = open.indexOf(close)
        if (i >= 0) open.splice(i, 1)
      }
    },
  }
}
